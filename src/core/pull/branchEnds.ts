import { evaluate } from '../geometry/cubic';
import type { Point } from '../geometry/point';
import type { Junction, Branch } from './strokeGraph';

/** An end of a branch: at its junction `a` or `b`. */
export type BranchEnd = { branch: Branch; side: 'a' | 'b' };

/** Where a way is clear of its junction: from there on its points tell of it alone. `out` leads away from the junction. */
export type ClearEnd = { at: Point; out: Point; skip: number };

/** How far from a junction a way is led astray by the ink of the others, in half-widths there. */
const ASTRAY = 1.25;
/** Ink this much wider than a way's own still has another's mixed in. */
const MIXED = 1.14;

export const pointsFrom = ({ branch, side }: BranchEnd): Point[] =>
  side === 'a' ? branch.points : [...branch.points].reverse();
export const junctionOf = ({ branch, side }: BranchEnd): Junction | null => branch[side];
export const otherEnd = ({ branch, side }: BranchEnd): BranchEnd => ({ branch, side: side === 'a' ? 'b' : 'a' });

/** Where a way comes clear of the junction at its end, and in which direction; null when it never does. */
export function clearEnd(end: BranchEnd, radiusAt: (p: Point) => number): ClearEnd | null {
  const junction = junctionOf(end);
  const points = pointsFrom(end);
  if (!junction) return points.length > 0 ? { at: points[0], out: directionFrom(points, 0), skip: 0 } : null;
  const own = end.branch.radius;
  const isAstray = (p: Point): boolean =>
    junction.discs.some((d) => Math.hypot(p.x - d.at.x, p.y - d.at.y) < ASTRAY * Math.min(d.radius, 1.6 * own));
  const limit = Math.max(points.length * 0.6, points.length - 6);
  let skip = 0;
  while (skip < limit && isAstray(points[skip])) skip++;
  while (skip < limit && radiusAt(points[skip]) > MIXED * own + 0.25) skip++;
  if (skip >= points.length) return null;
  return { at: points[skip], out: directionFrom(points, skip), skip };
}

/** How far ahead a direction is judged, px. */
const AHEAD = 26;

/** The direction of a row of points at one of them, by a parabola through those ahead (least squares); of length 1. */
function directionFrom(points: readonly Point[], start: number): Point {
  const list = points.slice(start, start + AHEAD);
  const n = list.length;
  const chord = (): Point => {
    const [p, q] = [list[0], list[n - 1]];
    const l = Math.hypot(q.x - p.x, q.y - p.y) || 1;
    return { x: (q.x - p.x) / l, y: (q.y - p.y) / l };
  };
  if (n < 10) return chord();
  // Slope at 0 of the parabola through values at 0…n−1, about the middle m: b − 2 c m.
  const m = (n - 1) / 2;
  let [s2, s4] = [0, 0];
  for (let i = 0; i < n; i++) {
    s2 += (i - m) ** 2;
    s4 += (i - m) ** 4;
  }
  const slope = (value: (p: Point) => number): number => {
    let [v0, v1, v2] = [0, 0, 0];
    list.forEach((p, i) => {
      v0 += value(p);
      v1 += (i - m) * value(p);
      v2 += (i - m) ** 2 * value(p);
    });
    const c = (n * v2 - s2 * v0) / (n * s4 - s2 * s2);
    return v1 / s2 - 2 * c * m;
  };
  const [x, y] = [slope((p) => p.x), slope((p) => p.y)];
  const l = Math.hypot(x, y);
  return l > 1e-9 ? { x: x / l, y: y / l } : chord();
}

/** By how much, in radians, a stroke would turn that came out of one end and went into the other. */
export function bendBetween(one: ClearEnd, two: ClearEnd): number {
  const v = { x: two.at.x - one.at.x, y: two.at.y - one.at.y };
  const into = { x: -one.out.x, y: -one.out.y };
  if (Math.hypot(v.x, v.y) < 3) return angle(into, two.out);
  return angle(into, v) + angle(v, two.out);
}

const angle = (a: Point, b: Point): number => Math.abs(Math.atan2(a.x * b.y - a.y * b.x, a.x * b.x + a.y * b.y));

/** Points a pixel apart on the smooth way that leads from one end into the other, without these. */
export function bridge(one: ClearEnd, two: ClearEnd): Point[] {
  const gap = Math.hypot(two.at.x - one.at.x, two.at.y - one.at.y);
  const h = gap / 3;
  return along(
    [
      one.at,
      { x: one.at.x - h * one.out.x, y: one.at.y - h * one.out.y },
      { x: two.at.x - h * two.out.x, y: two.at.y - h * two.out.y },
      two.at,
    ],
    gap,
  );
}

/** Points a pixel apart from an end on to a place, leaving in the end's own direction; the place itself is the last. */
export function leadTo(one: ClearEnd, place: Point): Point[] {
  const gap = Math.hypot(place.x - one.at.x, place.y - one.at.y);
  if (gap < 1) return [place];
  const straight = (place.x - one.at.x) * -one.out.x + (place.y - one.at.y) * -one.out.y > 0.5 * gap;
  const h = straight ? gap / 3 : 0;
  const control = { x: one.at.x - h * one.out.x, y: one.at.y - h * one.out.y };
  const before = { x: (control.x + place.x) / 2, y: (control.y + place.y) / 2 };
  return [...along([one.at, control, before, place], gap), place];
}

const along = (c: [Point, Point, Point, Point], length: number): Point[] => {
  const n = Math.max(1, Math.round(length));
  return Array.from({ length: n - 1 }, (_, i) => evaluate(c, (i + 1) / n));
};
