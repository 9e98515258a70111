import { cubicsOf, segmentCount } from '../drawing/run';
import type { Run } from '../drawing/schema';
import { derivative, evaluate, secondDerivative, type Cubic } from '../geometry/cubic';
import { cross, dot, type Point } from '../geometry/point';

/** The curvature of a cubic, 1 by page unit, above 0 where it bends to the right; 0 where it stands still. */
export function curvatureAt(c: Cubic, t: number): number {
  const d = derivative(c, t);
  const speed = Math.hypot(d.x, d.y);
  return speed < 1e-9 ? 0 : cross(d, secondDerivative(c, t)) / speed ** 3;
}

/** One tooth of a curvature comb: a place on the line, the unit normal to its right, and the curvature. */
export type Tooth = { readonly at: Point; readonly normal: Point; readonly curvature: number };

/** The comb of a run, segment by segment, `each` teeth apart on every one. Source: Farin 2002, "Curves and surfaces for CAGD". */
export function combOf(run: Run, each: number): Tooth[][] {
  return cubicsOf(run).map((c) =>
    Array.from({ length: each + 1 }, (_, i): Tooth => {
      // At the very ends handles of no length leave no direction.
      const t = Math.min(1 - 1e-4, Math.max(1e-4, i / each));
      const d = derivative(c, t);
      const l = Math.hypot(d.x, d.y) || 1;
      return { at: evaluate(c, t), normal: { x: -d.y / l, y: d.x / l }, curvature: curvatureAt(c, t) };
    }),
  );
}

/** How a run goes through a node: by how many degrees it turns there, and its curvature before and after. */
export type Joint = { readonly node: number; readonly turn: number; readonly before: number; readonly after: number };

/** The joints between the segments of a run. */
export function jointsOf(run: Run): Joint[] {
  const list = cubicsOf(run);
  const n = segmentCount(run);
  const joints: Joint[] = [];
  for (let k = run.closed ? 0 : 1; k < n; k++) {
    const [a, b] = [list[(k - 1 + n) % n], list[k]];
    const [u, v] = [derivative(a, 1 - 1e-6), derivative(b, 1e-6)];
    const turn = (Math.abs(Math.atan2(cross(u, v), dot(u, v))) * 180) / Math.PI;
    joints.push({ node: k, turn, before: curvatureAt(a, 1 - 1e-4), after: curvatureAt(b, 1e-4) });
  }
  return joints;
}

/** A turn of more degrees than this is a break. */
export const BREAK = 1;

/**
 * By how much the bend steps at a joint: 0 where it goes over evenly, 1 where it goes from a bend to none, or changes
 * side. Bends of a radius beyond `flat` page units count as none.
 */
export function stepOf({ before, after }: Joint, flat = 5_000): number {
  const most = Math.max(Math.abs(before), Math.abs(after));
  return most < 1 / flat ? 0 : Math.min(1, Math.abs(after - before) / most);
}
