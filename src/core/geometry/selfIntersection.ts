import { assertCubic, evaluate, polygonLength, type Cubic } from './cubic';
import { add, cross, point, scale, subtract, type Point } from './point';

/**
 * Where a cubic crosses itself, or null. With the curve written a·t³ + b·t² + c·t + d, two parameters t1 ≠ t2 of one
 * point satisfy a(σ² − π) + bσ + c = 0 for σ = t1 + t2 and π = t1·t2: two linear equations, solved in closed form
 * (the double point of a cubic; Stone and DeRose 1989, "A geometric characterization of parametric cubic curves").
 * A cusp is no crossing, and neither is a straight cubic that runs back over itself. A closed cubic (end on start)
 * crosses at 0 and 1.
 * @throws RangeError for a cubic that is not finite.
 */
export function selfIntersection(c: Cubic): { t1: number; t2: number; point: Point } | null {
  assertCubic(c);
  const size = polygonLength(c);
  if (size === 0) return null;
  const origin = c[0];
  const [p1, p2, p3] = [c[1], c[2], c[3]].map((p) => scale(subtract(p, origin), 1 / size));
  const a = add(subtract(p3, scale(p2, 3)), scale(p1, 3));
  const b = subtract(scale(p2, 3), scale(p1, 6));
  const linear = scale(p1, 3);
  const ab = cross(a, b);
  if (Math.abs(ab) < 1e-13) return null;
  const sum = cross(linear, a) / ab;
  const product = sum * sum - cross(b, linear) / ab;
  const discriminant = sum * sum - 4 * product;
  if (!(discriminant > 1e-14)) return null;
  const root = Math.sqrt(discriminant);
  const near = (sum + Math.sign(sum || 1) * root) / 2;
  const far = near === 0 ? (sum - root) / 2 : product / near;
  const t1 = onto(Math.min(near, far));
  const t2 = onto(Math.max(near, far));
  if (t1 < 0 || t2 > 1) return null;
  const [q1, q2] = [evaluate(c, t1), evaluate(c, t2)];
  return { t1, t2, point: point((q1.x + q2.x) / 2, (q1.y + q2.y) / 2) };
}

/** Rounding must not push a crossing at an end of the curve off it. */
const onto = (t: number): number => (Math.abs(t) < 1e-12 ? 0 : Math.abs(t - 1) < 1e-12 ? 1 : t);
