import { boxHolds } from '../geometry/box';
import { evaluate } from '../geometry/cubic';
import type { Box, Point } from '../geometry/point';
import { isWithin } from '../geometry/polygon';
import type { Flat, Item } from './item';
import { isFlat, isLine } from './items';
import { shownCubics } from './rounding';
import { skeletonBox } from './run';
import type { Run } from './schema';

/** What closed runs enclose: of filled lines, of flats, and of what things are held inside of. */
type Outline = { readonly runs: readonly Run[] };

/** The outline of a closed line or a flat; null where an item has none. */
export const outlineOf = (item: Item): readonly Run[] | null =>
  isFlat(item) || (isLine(item) && item.runs.every((r) => r.closed && r.nodes.length > 1)) ? item.runs : null;

/** The outline of a flat as it is painted. */
export const shownOutline = (flat: Flat): readonly Run[] => flat.inner ?? flat.runs;

const polygons = new WeakMap<Run, Point[]>();
const EACH = 16;

/** A run as a polygon, as it is drawn; made once for each. */
export function polygonOf(run: Run): Point[] {
  let polygon = polygons.get(run);
  if (!polygon) {
    const cubics = run.nodes.length > 1 ? shownCubics(run) : [];
    polygon = cubics.flatMap((c) => Array.from({ length: EACH }, (_, i) => evaluate(c, i / EACH)));
    polygons.set(run, polygon);
  }
  return polygon;
}

const boxes = new WeakMap<readonly Run[], Box>();

/** The box of an outline; worked out once for each. */
export function outlineBox({ runs }: Outline): Box {
  let box = boxes.get(runs);
  if (!box) boxes.set(runs, (box = skeletonBox({ runs })));
  return box;
}

/** Whether a place lies within an outline (even-odd). */
export const outlineHolds = (outline: Outline, p: Point): boolean =>
  boxHolds(outlineBox(outline), p) && outline.runs.filter((run) => isWithin(p, polygonOf(run))).length % 2 === 1;
