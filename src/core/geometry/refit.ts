import { derivative, evaluate, polygonLength, secondDerivative, type Cubic } from './cubic';
import { add, distance, dot, scale, subtract, unit, type Point } from './point';

const SAMPLES = 24;
const ROUNDS = 30;

/**
 * One cubic in place of two that follow each other, as near to them as its two handle lengths allow: the directions
 * at the far ends are kept, the lengths are found by least squares, the parameters of the samples by Newton's steps
 * towards their feet, in turns (Schneider 1990, "An algorithm for automatically fitting digitized curves").
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
  let ts = points.map((_, i) =>
    i < SAMPLES ? ((i / SAMPLES) * l) / (l + m) : (l + ((i - SAMPLES + 1) / SAMPLES) * m) / (l + m),
  );
  let best: { cubic: Cubic; error: number } | null = null;
  for (let round = 0; round < ROUNDS; round++) {
    const cubic = withHandles(start, end, towards, back, handleLengths(points, ts, start, end, towards, back));
    ts = ts.map((t, i) => foot(cubic, points[i], t));
    const error = points.reduce((sum, p, i) => sum + distance(p, evaluate(cubic, ts[i])) ** 2, 0);
    if (!best || error < best.error) best = { cubic, error };
  }
  return best!.cubic;
}

const withHandles = (start: Point, end: Point, towards: Point, back: Point, [a, b]: [number, number]): Cubic => [
  start,
  add(start, scale(towards, a)),
  add(end, scale(back, b)),
  end,
];

/** The two handle lengths that bring the curve nearest to `points` at `ts`; never negative. */
function handleLengths(points: Point[], ts: number[], start: Point, end: Point, towards: Point, back: Point): [number, number] {
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
