import type { Point } from '../point';

/** The points of a stroke as two rows of coordinates, none equal to the one before it. */
export type Samples = { readonly n: number; readonly x: Float64Array; readonly y: Float64Array };

/** Fewer points than this are eked out along the straight ways between them, so that a cubic is determined. */
const FEWEST = 8;

/** Points without repeats; few points are eked out. A closed stroke's last point is dropped when it repeats the first. */
export function samplesOf(points: readonly Point[], closed: boolean): Samples {
  const kept: Point[] = [];
  for (const p of points) {
    const last = kept.at(-1);
    if (!last || last.x !== p.x || last.y !== p.y) kept.push(p);
  }
  if (closed && kept.length > 1 && kept[0].x === kept.at(-1)!.x && kept[0].y === kept.at(-1)!.y) kept.pop();
  const list = kept.length > 1 && kept.length < FEWEST ? ekedOut(kept, closed) : kept;
  return { n: list.length, x: Float64Array.from(list, (p) => p.x), y: Float64Array.from(list, (p) => p.y) };
}

function ekedOut(points: Point[], closed: boolean): Point[] {
  const ways = closed ? points.length : points.length - 1;
  const pieces = Math.ceil((FEWEST - 1) / ways) + 2;
  const result: Point[] = [];
  for (let i = 0; i < ways; i++) {
    const [a, b] = [points[i], points[(i + 1) % points.length]];
    for (let k = 0; k < pieces; k++)
      result.push({ x: a.x + ((b.x - a.x) * k) / pieces, y: a.y + ((b.y - a.y) * k) / pieces });
  }
  if (!closed) result.push(points.at(-1)!);
  return result;
}

/** Samples turned so that they begin at `start`; for closed strokes. */
export function turnedTo(s: Samples, start: number): Samples {
  const turn = (a: Float64Array) => Float64Array.from(a, (_, i) => a[(i + start) % s.n]);
  return { n: s.n, x: turn(s.x), y: turn(s.y) };
}

const HALF = 3;
const WEIGHTS = [-2, 3, 6, 7, 6, 3, -2].map((w) => w / 21);
/** What is left of a point's variance beside a smoothed value that it is part of. */
const LEFT = 1 - 7 / 21;
/** Of the squares, the smaller ones that are counted, and their mean for a normal variate of variance 1. */
const COUNTED = 0.85;
const MEAN_OF_COUNTED = 0.5207;

/**
 * How far the points lie about a smooth course, as the standard deviation across the direction of travel: what a local
 * parabola leaves of them (Savitzky and Golay 1964, seven points), by the mean of the smaller ones, which corners do
 * not disturb.
 */
export function noiseOf({ n, x, y }: Samples): number {
  if (n < 2 * HALF + 5) return 0;
  const squares = new Float64Array(n - 2 * HALF);
  for (let i = HALF; i < n - HALF; i++) {
    let [sx, sy, dx, dy] = [0, 0, 0, 0];
    for (let k = -HALF; k <= HALF; k++) {
      const w = WEIGHTS[k + HALF];
      sx += w * x[i + k];
      sy += w * y[i + k];
      dx += k * x[i + k];
      dy += k * y[i + k];
    }
    const l = Math.hypot(dx, dy) || 1;
    const across = ((x[i] - sx) * -dy + (y[i] - sy) * dx) / l;
    squares[i - HALF] = across * across;
  }
  squares.sort();
  const counted = Math.max(1, Math.floor(COUNTED * squares.length));
  const mean = squares.subarray(0, counted).reduce((a, b) => a + b, 0) / counted;
  return Math.sqrt(mean / MEAN_OF_COUNTED / LEFT);
}
