import { hullBox } from './bounds';
import { distanceToBox } from './box';
import { evaluate, type Cubic } from './cubic';
import { nearestOnCubic } from './nearest';
import type { Point } from './point';

/** How far a place lies from the nearest of some curves; endless where there is none. */
export function awayFrom(curves: readonly Cubic[], p: Point): number {
  let least = Infinity;
  for (const c of curves)
    if (distanceToBox(hullBox(c), p) < least) least = Math.min(least, nearestOnCubic(c, p).distance);
  return least;
}

/** Places are taken so many to each of the curves, as shares of its parameter. */
const PLACES = 16;

/** How far places of some curves lie from the nearest of others, at most. */
export const strayFrom = (curves: readonly Cubic[], others: readonly Cubic[]): number =>
  Math.max(
    ...curves.flatMap((c) => Array.from({ length: PLACES + 1 }, (_, i) => awayFrom(others, evaluate(c, i / PLACES)))),
  );
