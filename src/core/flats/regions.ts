import type { CubicRun } from '../geometry/along';
import { hullBox } from '../geometry/bounds';
import { boxesMeet, emptyBox, growBox, holdsBox, joinBoxes } from '../geometry/box';
import type { Cubic } from '../geometry/cubic';
import { assertPoint, type Box, type Point } from '../geometry/point';
import { arrangementOf, type Area, type Arrangement, type Closing } from './arrangement';

/**
 * Every bounded area of the arrangement of some runs, each once, none for the outside: its outer outline first, then those
 * of what lies within it, in the order in which their lines come. Page units. Outlines are parts of the curves themselves;
 * open ends nearer than `gap` to another line, or end, are led to it by a straight one. Crossings, ends that touch, lines
 * that cross themselves, run together or touch in passing (within a twentieth of a px) all bound.
 * @throws RangeError for a bad run, or a gap that is below 0 or not finite.
 */
export const regions = (runs: CubicRun[], options: { gap: number }): Cubic[][][] =>
  arrangementOf(runs, options)
    .areas()
    .map((a) => a.loops);

/**
 * The area that holds a place, as of `regions`; null outside of all. Only what lies about it is looked at.
 * @throws RangeError for a bad run or place, or a gap that is below 0 or not finite.
 */
export function regionAt(runs: CubicRun[], p: Point, options: { gap: number }): Cubic[][] | null {
  assertPoint(p, 'the place');
  if (!Array.isArray(runs) || runs.length === 0) return arrangementOf(runs, options).areaAt(p)?.loops ?? null;
  const bounds = runs.map((run) => ({ run, box: boxOfOutline(run.cubics) }));
  return areaNear(bounds, p, options)?.loops ?? null;
}

/** The first look around a place reaches so far, px, or so many times the gap. */
const FIRST = { px: 64, gaps: 8 };
const WIDER = 2.5;

/** A run that bounds areas, and the box that it lies in. */
export type Bound = { readonly run: CubicRun; readonly box: Box };

/** What was found about a place: its area, and what was led to what around it. */
export type Looked = { readonly area: Area | null; readonly closings: readonly Closing[] };

/** The area at a place, looked for among the runs near it, then further out until it lies in what was looked at. */
export const areaNear = (bounds: readonly Bound[], p: Point, options: { gap: number }): Area | null =>
  lookNear(bounds, p, options).area;

/** The same, with what was closed around it; among no more than `most` runs, where that is said. */
export function lookNear(
  bounds: readonly Bound[],
  p: Point,
  { gap, most = Infinity }: { gap: number; most?: number },
): Looked {
  if (bounds.length === 0) return { area: null, closings: [] };
  const all = boxOfBounds(bounds);
  for (let reach = Math.max(FIRST.px, FIRST.gaps * gap); ; reach *= WIDER) {
    const window = growBox({ minX: p.x, minY: p.y, maxX: p.x, maxY: p.y }, reach);
    const isAll = holdsBox(window, all);
    const near = reaching(bounds, window, gap);
    if (near.length > most) return { area: null, closings: [] };
    const arrangement = arrangementOf(
      near.map((b) => b.run),
      { gap },
    );
    const area = arrangement.areaAt(p);
    if (isAll || (area && holdsBox(window, boxOfOutline(area.loops[0]))))
      return { area, closings: arrangement.closings };
  }
}

/** The areas of the runs that reach into a window: those that lie wholly in it are as of all runs. */
export const arrangementWithin = (bounds: readonly Bound[], window: Box, { gap }: { gap: number }): Arrangement =>
  arrangementOf(
    reaching(bounds, window, gap).map((b) => b.run),
    { gap },
  );

const reaching = (bounds: readonly Bound[], window: Box, gap: number): Bound[] => {
  const wide = growBox(window, 2 * gap + 1);
  return bounds.filter((b) => boxesMeet(b.box, wide));
};

export const boxOfBounds = (bounds: readonly Bound[]): Box => bounds.map((b) => b.box).reduce(joinBoxes, emptyBox);
export const boxOfOutline = (outline: readonly Cubic[]): Box => outline.map(hullBox).reduce(joinBoxes);
