/** The public core: geometry, drawings, changes and formats. Pure and deterministic; nothing here touches a page, a disk or a clock. */
export type { Box, Point } from './geometry/point';
export { cubicAt, splitCubic, type Cubic } from './geometry/cubic';
export { cubicBounds } from './geometry/bounds';
export { cubicLength } from './geometry/length';
export { nearestOnCubic, type Nearest } from './geometry/nearest';
export { intersectCubics, type Intersection } from './geometry/intersection';
export { selfIntersection } from './geometry/selfIntersection';
export { refitAsOne } from './geometry/refit';
export { fitCurve, type FitOptions } from './geometry/fit/fitCurve';
export type { GrayImage } from './raster/grayImage';
export { threshold, type ThresholdOptions } from './raster/threshold';
export { rectify, type Quad } from './raster/rectify';
export { pageCorners } from './raster/pageCorners';
export { skewAngle } from './raster/skew';
export { settle, type SettleOptions } from './assist/settle';
export { follow, type FollowOptions } from './assist/followWay';
export { readWidths } from './assist/readWidths';
export { strokeOutline, type StrokeOptions } from './ink/strokeOutline';
export { widthProfile, type WidthProfile, type Widths } from './ink/widths';
export { distanceFromInk, type Distance, type DistanceOptions } from './check/distance';
export { coverage, type Coverage } from './check/coverage';
export type { CubicRun } from './geometry/along';
export type { ColourImage } from './raster/colourImage';
export { paletteOf, type PaletteColour } from './colour/palette';
export { regionAt, regions } from './flats/regions';
export { pullInk, type PulledRun, type PullInkOptions } from './pull/pullInk';
export { pullShapes, type PulledShape, type PullShapesOptions } from './pull/pullShapes';
export {
  drawingSchema,
  emptyDrawing,
  firstStyle,
  freshSheet,
  plainPage,
  type Blend,
  type Drawing,
  type Flat,
  type Folder,
  type Gradient,
  type Group,
  type Guide,
  type Item,
  type Line,
  type Node,
  type NodeKind,
  type Page,
  type Paint,
  type Picture,
  type Reference,
  type Run,
  type Sheet,
  type SheetState,
  type Style,
  type Swatch,
  type Unit,
} from './drawing/schema';
export { correctedSize, type Correction, type CorrectionKind } from './raster/correction';
export { changeSchema, type Change, type Step } from './change/change';
export { applyChange, ChangeError, inverseOf } from './change/apply';
export { upgradeDrawing } from './drawing/upgrade';
export { writeSvg, type WriteSvgOptions } from './formats/svg/writeSvg';
export { readSvg, type Dropped } from './formats/svg/readSvg';
