import { assertPoint, cross, distance, mix, point, type Point } from './point';

/** A cubic Bézier segment: start, the two control points, end. Page units. */
export type Cubic = [Point, Point, Point, Point];

/** @throws RangeError when a control point is missing or not finite. */
export function assertCubic(c: Cubic): void {
  if (!Array.isArray(c) || c.length !== 4) throw new RangeError('a cubic needs four points');
  c.forEach((p, i) => assertPoint(p, `point ${i} of the cubic`));
}

/** @throws RangeError when `t` is not a finite number. */
function assertParameter(t: number): void {
  if (!Number.isFinite(t)) throw new RangeError('the parameter t must be a finite number');
}

/**
 * The point of a cubic at `t`. `t` may lie outside 0…1: the curve is continued as a polynomial.
 * @throws RangeError for a cubic or a `t` that is not finite.
 */
export function cubicAt(c: Cubic, t: number): Point {
  assertCubic(c);
  assertParameter(t);
  return evaluate(c, t);
}

/** `cubicAt` for inner loops: nothing is checked. */
export function evaluate(c: Cubic, t: number): Point {
  const s = 1 - t;
  const a = s * s * s;
  const b = 3 * s * s * t;
  const d = 3 * s * t * t;
  const e = t * t * t;
  return point(a * c[0].x + b * c[1].x + d * c[2].x + e * c[3].x, a * c[0].y + b * c[1].y + d * c[2].y + e * c[3].y);
}

/** The first derivative with respect to `t`. */
export function derivative(c: Cubic, t: number): Point {
  const s = 1 - t;
  const a = 3 * s * s;
  const b = 6 * s * t;
  const d = 3 * t * t;
  return point(
    a * (c[1].x - c[0].x) + b * (c[2].x - c[1].x) + d * (c[3].x - c[2].x),
    a * (c[1].y - c[0].y) + b * (c[2].y - c[1].y) + d * (c[3].y - c[2].y),
  );
}

/** The second derivative with respect to `t`. */
export function secondDerivative(c: Cubic, t: number): Point {
  const s = 1 - t;
  return point(
    6 * (s * (c[2].x - 2 * c[1].x + c[0].x) + t * (c[3].x - 2 * c[2].x + c[1].x)),
    6 * (s * (c[2].y - 2 * c[1].y + c[0].y) + t * (c[3].y - 2 * c[2].y + c[1].y)),
  );
}

/**
 * The two halves of a cubic on either side of `t`, by de Casteljau's construction. They share their
 * joint exactly and keep the ends exactly.
 * @throws RangeError for a cubic or a `t` that is not finite, or a `t` outside 0…1.
 */
export function splitCubic(c: Cubic, t: number): [Cubic, Cubic] {
  assertCubic(c);
  assertParameter(t);
  if (t < 0 || t > 1) throw new RangeError('the parameter t must lie within 0 and 1');
  return splitAt(c, t);
}

/** `splitCubic` for inner loops: nothing is checked. */
export function splitAt(c: Cubic, t: number): [Cubic, Cubic] {
  const ab = mix(c[0], c[1], t);
  const bc = mix(c[1], c[2], t);
  const cd = mix(c[2], c[3], t);
  const abc = mix(ab, bc, t);
  const bcd = mix(bc, cd, t);
  const joint = mix(abc, bcd, t);
  return [
    [c[0], ab, abc, joint],
    [joint, bcd, cd, c[3]],
  ];
}

/** The piece of a cubic between two parameters, `from` below `to`. */
export function pieceOf(c: Cubic, from: number, to: number): Cubic {
  const rest = from > 0 ? splitAt(c, from)[1] : c;
  if (to >= 1) return rest;
  return splitAt(rest, (to - from) / (1 - from))[0];
}

/** The same curve travelled the other way. */
export const reversed = (c: Cubic): Cubic => [c[3], c[2], c[1], c[0]];

/** A straight segment as a cubic with evenly spread control points. */
export const straightCubic = (a: Point, b: Point): Cubic => [a, mix(a, b, 1 / 3), mix(a, b, 2 / 3), b];

/** The length of the control polygon: an upper bound of the curve's length, and its scale. */
export const polygonLength = (c: Cubic): number => distance(c[0], c[1]) + distance(c[1], c[2]) + distance(c[2], c[3]);

/**
 * What a cubic adds to the area within a closed outline of such, above 0 where it goes round from x towards y: half the
 * integral of x dy - y dx along it (Green's theorem), which for Bernstein polynomials is a sum over pairs of points.
 */
export function cubicArea([a, b, c, d]: Cubic): number {
  return (6 * cross(a, b) + 3 * cross(a, c) + cross(a, d) + 3 * cross(b, c) + 3 * cross(b, d) + 6 * cross(c, d)) / 20;
}

/** Cubics with each of their places led elsewhere. */
export const mapCubics = (cubics: readonly Cubic[], to: (p: Point) => Point): Cubic[] =>
  cubics.map(([a, b, c, d]) => [to(a), to(b), to(c), to(d)]);
