import { bernsteinRoots } from './bernstein';
import { boxOfPoints } from './box';
import { assertCubic, evaluate, type Cubic } from './cubic';
import type { Box } from './point';

/**
 * The smallest axis-aligned box that holds a cubic: its ends, and the places where a derivative is zero.
 * @throws RangeError for a cubic that is not finite.
 */
export function cubicBounds(c: Cubic): Box {
  assertCubic(c);
  const ts = [...turningPoints(c, 'x'), ...turningPoints(c, 'y')];
  return boxOfPoints([c[0], c[3], ...ts.map((t) => evaluate(c, t))]);
}

/** Where the coordinate `axis` of a cubic turns round, in 0…1. */
export function turningPoints(c: Cubic, axis: 'x' | 'y'): number[] {
  const low = Math.min(c[0][axis], c[3][axis]);
  const high = Math.max(c[0][axis], c[3][axis]);
  const within = (v: number) => v >= low && v <= high;
  if (within(c[1][axis]) && within(c[2][axis])) {
    const steps = [c[1][axis] - c[0][axis], c[2][axis] - c[1][axis], c[3][axis] - c[2][axis]];
    if (steps.every((s) => s >= 0) || steps.every((s) => s <= 0)) return [];
  }
  return bernsteinRoots([c[1][axis] - c[0][axis], c[2][axis] - c[1][axis], c[3][axis] - c[2][axis]]);
}

/** The box of the control points: never smaller than the curve's, and cheap. */
export const hullBox = (c: Cubic): Box => ({
  minX: Math.min(c[0].x, c[1].x, c[2].x, c[3].x),
  minY: Math.min(c[0].y, c[1].y, c[2].y, c[3].y),
  maxX: Math.max(c[0].x, c[1].x, c[2].x, c[3].x),
  maxY: Math.max(c[0].y, c[1].y, c[2].y, c[3].y),
});
