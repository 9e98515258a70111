import { derivative, evaluate, polygonLength, secondDerivative, type Cubic } from './cubic';
import { add, distance, dot, scale, subtract, unit, type Point } from './point';

const SAMPLES = 24;
const ROUNDS = 40;
const WARM_ROUNDS = 6;

/**
 * One cubic in place of two that follow each other, as near to them as its two handle lengths allow: the directions
 * at the far ends are kept, the lengths are found by least squares, the parameters of the samples by Newton's steps
 * towards their feet, in turns (Schneider 1990, "An algorithm for automatically fitting digitized curves"), then by
 * Gauss and Newton's steps on the distances along the normals, which arrive far sooner (Wang, Pottmann and Liu 2006,
 * "Fitting B-spline curves to point clouds by curvature-based squared distance minimization": tangent distance).
 * Straight neighbours give a straight cubic.
 */
export function refitAsOne(first: Cubic, second: Cubic): Cubic {
  const [start, end] = [first[0], second[3]];
  const towards = directionAt(first, 'start');
  const back = directionAt(second, 'end');
  if (!towards || !back) return [start, start, end, end];
  const points = [first, second].flatMap((c, k) =>
    Array.from({ length: SAMPLES }, (_, i) => evaluate(c, (i + k) / SAMPLES)),
  );
  const [l, m] = [polygonLength(first), polygonLength(second)];
  const [p, q] = [distance(first[2], first[3]), distance(second[0], second[1])];
  // Where the joint lies: by the handles on either side of it (exact for the halves of one cubic), and by length.
  const joints = [...(p > 0 && q > 0 ? [p / (p + q)] : []), l / (l + m)];
  const fits = joints.map((joint) => {
    let ts = points.map((_, i) =>
      i < SAMPLES ? (i / SAMPLES) * joint : joint + ((i - SAMPLES + 1) / SAMPLES) * (1 - joint),
    );
    let best: Fit | null = null;
    for (let round = 0; round < ROUNDS; round++) {
      const lengths: [number, number] =
        best && round >= WARM_ROUNDS
          ? stepAlongNormals(best.cubic, points, best.ts, towards, back)
          : handleLengths(points, ts, start, end, towards, back);
      const cubic = withHandles(start, end, towards, back, lengths);
      ts = ts.map((t, i) => foot(cubic, points[i], t));
      const error = points.reduce((sum, x, i) => sum + distance(x, evaluate(cubic, ts[i])) ** 2, 0);
      if (!best || error < best.error) best = { cubic, error, ts };
      else if (round > WARM_ROUNDS) break;
    }
    return best!;
  });
  return fits.reduce((a, b) => (b.error < a.error ? b : a)).cubic;
}

type Fit = { cubic: Cubic; error: number; ts: number[] };

const withHandles = (start: Point, end: Point, towards: Point, back: Point, [a, b]: [number, number]): Cubic => [
  start,
  add(start, scale(towards, a)),
  add(end, scale(back, b)),
  end,
];

/** The two handle lengths that bring the curve nearest to `points` at `ts`; never negative. */
function handleLengths(
  points: Point[],
  ts: number[],
  start: Point,
  end: Point,
  towards: Point,
  back: Point,
): [number, number] {
  let [aa, ab, bb, ax, bx] = [0, 0, 0, 0, 0];
  points.forEach((p, i) => {
    const t = ts[i];
    const s = 1 - t;
    const [w1, w2] = [3 * s * s * t, 3 * s * t * t];
    const fixed = add(scale(start, s * s * s + w1), scale(end, w2 + t * t * t));
    const gap = subtract(p, fixed);
    aa += w1 * w1;
    ab += w1 * w2 * dot(towards, back);
    bb += w2 * w2;
    ax += w1 * dot(towards, gap);
    bx += w2 * dot(back, gap);
  });
  const determinant = aa * bb - ab * ab;
  const third = distance(start, end) / 3;
  if (Math.abs(determinant) < 1e-12 * aa * bb) return [third, third];
  const [a, b] = [(ax * bb - bx * ab) / determinant, (bx * aa - ax * ab) / determinant];
  if (a < 0) return [0, Math.max(0, bx / bb)];
  if (b < 0) return [Math.max(0, ax / aa), 0];
  return [a, b];
}

/** Handle lengths one step better: only the gaps at right angles to the curve count. */
function stepAlongNormals(c: Cubic, points: Point[], ts: number[], towards: Point, back: Point): [number, number] {
  let [aa, ab, bb, ax, bx] = [1e-9, 0, 1e-9, 0, 0];
  points.forEach((p, i) => {
    const t = ts[i];
    const along = unit(derivative(c, t));
    if (!along) return;
    const normal = { x: -along.y, y: along.x };
    const gap = dot(normal, subtract(p, evaluate(c, t)));
    const da = 3 * (1 - t) * (1 - t) * t * dot(normal, towards);
    const db = 3 * (1 - t) * t * t * dot(normal, back);
    aa += da * da;
    ab += da * db;
    bb += db * db;
    ax += da * gap;
    bx += db * gap;
  });
  const determinant = aa * bb - ab * ab;
  const [a, b] = [dot(subtract(c[1], c[0]), towards), dot(subtract(c[2], c[3]), back)];
  if (!(determinant > 1e-12 * aa * bb)) return [a, b];
  return [Math.max(0, a + (ax * bb - bx * ab) / determinant), Math.max(0, b + (bx * aa - ax * ab) / determinant)];
}

function foot(c: Cubic, p: Point, t: number): number {
  const offset = subtract(evaluate(c, t), p);
  const speed = derivative(c, t);
  const bend = dot(speed, speed) + dot(offset, secondDerivative(c, t));
  const step = bend > 0 ? dot(offset, speed) / bend : 0;
  return Math.min(1, Math.max(0, t - step));
}

/** The direction in which a cubic leaves an end, from the first control point that lies apart from it. */
function directionAt(c: Cubic, end: 'start' | 'end'): Point | null {
  const [from, ...others] = end === 'start' ? c : [c[3], c[2], c[1], c[0]];
  for (const p of others) {
    const direction = unit(subtract(p, from));
    if (direction) return direction;
  }
  return null;
}
