import { runFromCubics } from '../drawing/fromCubics';
import { outlineBox, polygonOf } from '../drawing/outline';
import type { Run } from '../drawing/schema';
import type { Area } from '../flats/arrangement';
import type { Point } from '../geometry/point';

/** The runs of an area's outline. */
export const runsOfArea = ({ loops }: Area): Run[] => loops.map((l) => runFromCubics(l, true));

/** The outline of an area, and a place in it; what of it lies outside of its lines' bodies, where that is known. */
export type PlacedArea = { readonly runs: readonly Run[]; readonly at: Point; readonly inner?: readonly Run[] };

/** An area with a place well within it. */
export function placedArea(area: Area): PlacedArea {
  const runs = runsOfArea(area);
  return { runs, at: placeIn(runs) };
}

const ROWS = 12;

/** A place well within an outline: the middle of the longest stretch of some level lines through it. */
export function placeIn(runs: readonly Run[]): Point {
  const { minX, minY, maxX, maxY } = outlineBox({ runs });
  const sides = runs.flatMap((run) => polygonOf(run).map((a, i, all) => [a, all[(i + 1) % all.length]] as const));
  let best = { x: (minX + maxX) / 2, y: (minY + maxY) / 2, long: -1 };
  for (let k = 0; k < ROWS; k++) {
    const y = minY + ((k + 0.5) / ROWS) * (maxY - minY);
    const xs = sides
      .flatMap(([a, b]) => (a.y > y !== b.y > y ? [a.x + ((y - a.y) / (b.y - a.y)) * (b.x - a.x)] : []))
      .sort((a, b) => a - b);
    // Broad stretches near the middle of the height are the better.
    const even = Math.min(k + 0.5, ROWS - k - 0.5) / ROWS;
    for (let i = 0; i + 1 < xs.length; i += 2) {
      const long = Math.min(xs[i + 1] - xs[i], 2 * even * (maxY - minY));
      if (long > best.long) best = { x: (xs[i] + xs[i + 1]) / 2, y, long };
    }
  }
  return { x: best.x, y: best.y };
}
