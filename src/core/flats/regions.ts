import type { CubicRun } from '../geometry/along';
import { hullBox } from '../geometry/bounds';
import { boxesMeet, boxHolds, emptyBox, growBox, holdsBox, joinBoxes } from '../geometry/box';
import type { Cubic } from '../geometry/cubic';
import { assertPoint, type Box, type Point } from '../geometry/point';
import { arrangementOf, assertRuns, type Area, type Arrangement, type Closing } from './arrangement';

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
  assertRuns(runs, options.gap);
  const bounds = runs.map((run) => ({ run, box: boxOfOutline(run.cubics) }));
  return areaNear(bounds, p, options)?.loops ?? null;
}

/** The first look around a place reaches so far, px, or so many times the gap. */
const FIRST = { px: 20, gaps: 6 };
const WIDER = 2.5;

/** A run that bounds areas, and the box that it lies in. */
export type Bound = { readonly run: CubicRun; readonly box: Box };

/** What was found about a place: its area, and what was led to what around it. */
export type Looked = { readonly area: Area | null; readonly closings: readonly Closing[] };

/** The area at a place, looked for among the runs near it, then further out until it lies in what was looked at. */
export const areaNear = (bounds: readonly Bound[], p: Point, { gap }: { gap: number }): Area | null =>
  new NearAreas(bounds, gap).at(p).area;

/** Finds areas about places. What was looked at last is kept: it answers for all places of which it tells enough. */
export class NearAreas {
  private readonly all: Box;
  private last: { window: Box; isAll: boolean; arrangement: Arrangement } | null = null;

  constructor(
    private readonly bounds: readonly Bound[],
    private readonly gap: number,
  ) {
    this.all = boxOfBounds(bounds);
  }

  /** The area at a place, and what was closed around it; looked for among no more than `most` runs, where that is said. */
  at(p: Point, most = Infinity): Looked {
    const known = this.last && told(this.last, p);
    if (known) return known;
    if (this.bounds.length === 0) return { area: null, closings: [] };
    for (let reach = Math.max(FIRST.px, FIRST.gaps * this.gap); ; reach *= WIDER) {
      const window = growBox({ minX: p.x, minY: p.y, maxX: p.x, maxY: p.y }, reach);
      if (this.bounds.filter((b) => boxesMeet(b.box, window)).length > most) return { area: null, closings: [] };
      const arrangement = arrangementWithin(this.bounds, window, { gap: this.gap });
      this.last = { window, isAll: holdsBox(window, this.all), arrangement };
      const found = told(this.last, p);
      if (found) return found;
    }
  }
}

/** What an arrangement of all that reaches into a window tells of a place; null where that may not be all. */
function told(
  { window, isAll, arrangement }: { window: Box; isAll: boolean; arrangement: Arrangement },
  p: Point,
): Looked | null {
  const area = arrangement.areaAt(p);
  const isEnough = isAll || (area && boxHolds(window, p) && holdsBox(window, boxOfOutline(area.loops[0])));
  return isEnough ? { area, closings: arrangement.closings } : null;
}

/** The areas of what reaches into a window: those that lie wholly in it are as of all runs. */
export function arrangementWithin(bounds: readonly Bound[], window: Box, { gap }: { gap: number }): Arrangement {
  const within = growBox(window, 2 * gap + 1);
  const near = bounds.filter((b) => boxesMeet(b.box, within)).map((b) => b.run);
  return arrangementOf(near, { gap, within });
}

export const boxOfBounds = (bounds: readonly Bound[]): Box => bounds.map((b) => b.box).reduce(joinBoxes, emptyBox);
export const boxOfOutline = (outline: readonly Cubic[]): Box => outline.map(hullBox).reduce(joinBoxes);
