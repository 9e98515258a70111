import { alphaOf, withAlpha } from '../../colour/colour';
import { runFromCubics } from '../../drawing/fromCubics';
import type { Paint } from '../../drawing/paint';
import { MOST_PLACE } from '../../drawing/values';
import { runLength, skeletonBox } from '../../drawing/run';
import type { Item, Line, Run, Style } from '../../drawing/schema';
import { mapCubics } from '../../geometry/cubic';
import { anisotropyOf, growthOf, identity, mapPoint, type Matrix } from '../../geometry/matrix';
import type { Box } from '../../geometry/point';
import { bodyOf, IN_FILES } from '../../ink/body';
import { lengthOf } from './lengths';
import type { Look, SvgPaint } from './look';
import type { Context, Making } from './making';
import { placedGradient, type PlacedGradient } from './paintServers';
import { runsOf, type ReadRuns } from './shapes';
import type { SvgElement } from './tree';
import { boundedLines, isInReach } from './bounds';

/** What something is painted with where it is used; a pattern is drawn, not painted. */
export type Painted = { readonly paint: Paint } | { readonly pattern: SvgElement } | null;

/** What is painted: a shape's outline, its look, and where it lies. */
export type Shape = {
  readonly data: string;
  readonly element: SvgElement;
  readonly look: Look;
  readonly context: Context;
};

/** A map that makes lengths in one direction larger than in another by less keeps strokes as they are. */
const EVEN = 1.002;

/** How a pattern is drawn within some runs. */
export type Patterned = (pattern: SvgElement, runs: readonly Run[], evenOdd: boolean, alpha: number) => Item[];

/** The items of a shape, from the bottom up: one line wherever a line can look so. */
export function linesOfShape(making: Making, shape: Shape, patterned: Patterned): Item[] {
  const { look, data, context } = shape;
  const runs = outlineRuns(making, data, context.map);
  if (runs.length === 0 || !look.isVisible) return [];
  const growth = growthOf(context.map);
  if (!(growth > 0)) return [];
  const box = lazily(() => skeletonBox({ runs: runsOf(data, identity).runs }));
  const painted = (paint: SvgPaint, alpha: number): Painted => paintedWith(making, shape, paint, alpha, box, runs);
  const fill = painted(look.fill, look.fillAlpha);
  const stroke = look.width > 0 ? painted(look.stroke, look.strokeAlpha) : null;
  if (!fill && !stroke) return [];
  const style = styleOf(look, look.own.isConstantWidth ? 1 : growth, dashScale(shape, runs, growth));
  const uneven = stroke !== null && isStretched(shape);
  const isPlain = !(fill && 'pattern' in fill) && !(stroke && 'pattern' in stroke) && !uneven;
  if (isPlain) {
    const paints = {
      fill: fill && 'paint' in fill ? fill.paint : null,
      stroke: stroke && 'paint' in stroke ? stroke.paint : null,
    };
    return boundedLines(making, { runs, style: inked(style, paints, look) });
  }
  const filled = (): Item[] => {
    if (!fill) return [];
    if ('pattern' in fill) return patterned(fill.pattern, runs, look.evenOdd, look.fillAlpha);
    return boundedLines(making, { runs, style: inked(style, { fill: fill.paint, stroke: null }, look) });
  };
  const stroked = (): Item[] => {
    if (!stroke) return [];
    if ('paint' in stroke && !uneven)
      return boundedLines(making, { runs, style: inked(style, { fill: null, stroke: stroke.paint }, look) });
    const body = strokeBody(shape, runs, style);
    if (body.length === 0) return [];
    if ('pattern' in stroke) return patterned(stroke.pattern, body, false, look.strokeAlpha);
    return boundedLines(making, { runs: body, style: filledWith(stroke.paint) });
  };
  return look.strokeBelow ? [...stroked(), ...filled()] : [...filled(), ...stroked()];
}

function isSound(making: Making, { runs, isWhole }: ReadRuns): boolean {
  if (!isWhole)
    making.drop('paths that cannot be read', 'Their data is not as SVG has it; what comes before the fault is kept.');
  if (runs.every(isInReach)) return runs.length > 0;
  making.drop('what lies too far off', 'It is further out than a drawing reaches.');
  return false;
}

/** A path of more parts than this is not read. */
const MOST_PARTS = 100_000;

/** The runs of a shape's outline; none where it cannot be kept, which is said. */
export function outlineRuns(making: Making, data: string, map: Matrix): Run[] {
  if (data.length > 4 * MOST_PARTS && data.split(/[mz]/i, MOST_PARTS + 1).length > MOST_PARTS) {
    making.drop('paths of very many parts', `A path of more than ${MOST_PARTS} parts is not read.`);
    return [];
  }
  const read = runsOf(data, map);
  return isSound(making, read) ? read.runs : [];
}

/** Whether a shape's stroke is wider one way than another. */
const isStretched = ({ look, context }: Shape): boolean =>
  !look.own.isConstantWidth && anisotropyOf(context.map) > EVEN;

/** The area that a shape's stroke covers. Where the page is stretched more one way, it is drawn first, then stretched. */
export function strokeBody(shape: Shape, runs: readonly Run[], style: Style): Run[] {
  const { data, look, context } = shape;
  const outlines = isStretched(shape)
    ? bodyOf({ runs: runsOf(data, identity).runs, style: styleOf(look, 1, 1) }, IN_FILES / growthOf(context.map)).map(
        (o) => mapCubics(o, (p) => mapPoint(context.map, p)),
      )
    : bodyOf({ runs, style }, IN_FILES);
  return outlines.filter((o) => o.length > 0).map((o) => runFromCubics(o, true));
}

/** A paint that is no pattern, for what is painted whole; null where nothing is. */
export function paintOf(
  making: Making,
  shape: Shape,
  paint: SvgPaint,
  alpha: number,
  runs: readonly Run[],
): Paint | null {
  const box = lazily(() => skeletonBox({ runs: runsOf(shape.data, identity).runs }));
  const painted = paintedWith(making, shape, paint, alpha, box, runs);
  return painted && 'paint' in painted ? painted.paint : null;
}

function paintedWith(
  making: Making,
  shape: Shape,
  paint: SvgPaint,
  alpha: number,
  box: () => Box,
  runs: readonly Run[],
): Painted {
  const { context } = shape;
  if (paint.kind === 'none') return null;
  if (paint.kind === 'colour') {
    const whole = alphaOf(paint.colour) * alpha;
    if (whole === 0) return null;
    if (paint.variable && whole === 1) return { paint: making.swatchPaint(paint.variable, paint.colour) };
    return { paint: withAlpha(paint.colour, whole) };
  }
  const server = making.tree.byId.get(paint.id);
  const isGradient = server?.name === 'linearGradient' || server?.name === 'radialGradient';
  if (server?.name === 'pattern') return { pattern: server };
  if (!server || !isGradient) {
    const other = paintedWith(making, shape, paint.other, alpha, box, runs);
    if (!other)
      making.drop('gradients and patterns', 'What is painted with one that is not in the file is not painted.');
    return other;
  }
  const pageBox = skeletonBox({ runs });
  const placed = placedGradient(
    making.tree,
    server,
    { map: context.map, box: box(), pageBox, measures: context.measures, alpha },
    making.declaredOf,
  );
  if (!placed) return paintedWith(making, shape, paint.other, alpha, box, runs);
  const made = gradientPaint(making, placed.paint, placed.isBoxed ? pageBox : null);
  return made === null ? null : { paint: made };
}

/** In shares of the item's own box where it was told by that, so that it goes with the item. */
function gradientPaint(making: Making, placed: PlacedGradient, box: Box | null): Paint | null {
  if (typeof placed === 'string') return alphaOf(placed) === 0 ? null : placed;
  const { stops, ...places } = placed;
  const [w, h] = box ? [box.maxX - box.minX, box.maxY - box.minY] : [0, 0];
  const isOwn = box !== null && w > 1e-6 && h > 1e-6;
  const share = (p: { x: number; y: number }) =>
    isOwn ? { x: short((p.x - box.minX) / w), y: short((p.y - box.minY) / h) } : { x: short(p.x), y: short(p.y) };
  const { kind, from, to, across, focus } = places;
  if ([from, to, across, focus].some((p) => p && !(Math.max(Math.abs(p.x), Math.abs(p.y)) < MOST_PLACE)))
    return stops[Math.floor(stops.length / 2)].colour;
  return making.gradientPaint({
    kind,
    space: isOwn ? 'item' : 'page',
    from: share(from),
    to: share(to),
    ...(across && { across: share(across) }),
    ...(focus && { focus: share(focus) }),
    stops,
  });
}

const short = (v: number): number => Math.min(MOST_PLACE, Math.max(-MOST_PLACE, Math.round(v * 1e7) / 1e7));

/** By how much a path says it is longer or shorter than it is (SVG 2, 9.6.1). */
function dashScale({ look, context, element }: Shape, runs: readonly Run[], growth: number): number {
  if (look.dash.length === 0) return 1;
  const said = lengthOf(element.attributes.pathLength, context.measures);
  const length = runs.reduce((sum, r) => sum + runLength(r), 0) / growth;
  return said !== null && said > 0 && length > 0 ? length / said : 1;
}

const MOST_LENGTH = 10_000;

/** How an element's stroke is drawn, its lengths grown. */
export function styleOf(look: Look, growth: number, dashGrowth: number): Style {
  const length = (v: number): number => Math.min(MOST_LENGTH, Math.max(0, v * growth));
  const offset = look.dashOffset * growth * dashGrowth;
  return {
    stroke: '#000000',
    width: length(look.width),
    cap: look.cap,
    join: look.join,
    fill: null,
    ...(look.miterLimit !== 4 && { miterLimit: look.miterLimit }),
    ...(look.dash.length > 0 && {
      dash: {
        lengths: look.dash.map((v) => length(v * dashGrowth)),
        offset: Math.min(1e6, Math.max(-1e6, offset)),
      },
    }),
  };
}

/** A style with its paints. What is not stroked has no width, and keeps the fill's colour for a stroke that it may get. */
function inked(style: Style, { fill, stroke }: { fill: Paint | null; stroke: Paint | null }, look: Look): Style {
  return {
    ...style,
    ...(stroke === null && { width: 0 }),
    stroke: stroke ?? fill ?? '#000000',
    fill,
    ...(look.strokeBelow && fill && stroke && { strokeBelow: true }),
    ...(look.evenOdd && fill && { fillRule: 'evenodd' as const }),
  };
}

const filledWith = (paint: Paint): Style => ({ stroke: paint, width: 0, cap: 'butt', join: 'miter', fill: paint });

function lazily<T>(make: () => T): () => T {
  let made: { value: T } | null = null;
  return () => (made ??= { value: make() }).value;
}

/** A line that only cuts: of its style nothing counts but how its runs go together. */
export const cuttingLine = (id: string, runs: readonly Run[], evenOdd: boolean): Line => ({
  id,
  runs,
  style: { ...filledWith('#000000'), ...(evenOdd && { fillRule: 'evenodd' }) },
});
