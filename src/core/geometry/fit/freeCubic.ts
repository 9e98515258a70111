import type { Samples } from './samples';

/** A cubic as eight numbers: x and y of its four control points. */
export type Controls = Float64Array;

/** How a curve lies to its points: root mean square and largest distance, and how many points lie further than asked. */
export type Misfit = { rms: number; max: number; over: number };

export const xAt = (c: Controls, t: number): number => {
  const s = 1 - t;
  return s * s * s * c[0] + 3 * s * s * t * c[2] + 3 * s * t * t * c[4] + t * t * t * c[6];
};
export const yAt = (c: Controls, t: number): number => {
  const s = 1 - t;
  return s * s * s * c[1] + 3 * s * s * t * c[3] + 3 * s * t * t * c[5] + t * t * t * c[7];
};

/** One of Newton's steps from `t` towards the foot of (px, py) on a cubic; not held within 0…1. */
export function stepToFoot(c: Controls, px: number, py: number, t: number): number {
  const s = 1 - t;
  const [ax, ay] = [c[2] - c[0], c[3] - c[1]];
  const [bx, by] = [c[4] - c[2], c[5] - c[3]];
  const [ex, ey] = [c[6] - c[4], c[7] - c[5]];
  const dx = 3 * (s * s * ax + 2 * s * t * bx + t * t * ex);
  const dy = 3 * (s * s * ay + 2 * s * t * by + t * t * ey);
  const ddx = 6 * (s * (bx - ax) + t * (ex - bx));
  const ddy = 6 * (s * (by - ay) + t * (ey - by));
  const gx = xAt(c, t) - px;
  const gy = yAt(c, t) - py;
  const speed = dx * dx + dy * dy;
  const bend = speed + gx * ddx + gy * ddy;
  const slope = gx * dx + gy * dy;
  // Where the curve bends away from the point, Newton's step would flee the foot: Gauss and Newton's does not.
  const step = slope / (bend > 0.2 * speed ? bend : speed || 1);
  return t - Math.max(-0.2, Math.min(0.2, step));
}

const matrix = new Float64Array(16);
const right = new Float64Array(8);

/**
 * The cubic, all four control points free, that lies nearest to the points `from` to `to` of a stroke by least squares;
 * `ts` holds their parameters from `from` on, begun by chord length and moved to their feet between the rounds
 * (Schneider 1990). No curve of one segment comes nearer than this, whatever its tangents.
 */
export function fitFree(s: Samples, from: number, to: number, ts: Float64Array, rounds: number): Controls {
  byChordLength(s, from, to, ts);
  let c = solveFree(s, from, to, ts);
  for (let round = 1; round < rounds; round++) {
    toFeet(c, s, from, to, ts);
    c = solveFree(s, from, to, ts);
  }
  return c;
}

function toFeet(c: Controls, s: Samples, from: number, to: number, ts: Float64Array): void {
  for (let i = from; i <= to; i++) ts[i - from] = Math.min(1, Math.max(0, stepToFoot(c, s.x[i], s.y[i], ts[i - from])));
}

const normal = new Float64Array(64);
const shift = new Float64Array(8);
const slope = new Float64Array(8);

/**
 * Brings a fit nearer by Gauss and Newton's steps on the distances across the curve, which finds in a few rounds what
 * the turns of `fitFree` need dozens for. Long pieces are judged by a part of their points. Stops when a round no longer
 * helps, or when it helps little and the mean square is still far above `wanted`. Changes `ts`.
 */
export function improveFree(
  start: Controls,
  s: Samples,
  from: number,
  to: number,
  ts: Float64Array,
  rounds: number,
  wanted = 0,
): Controls {
  const stride = Math.max(1, Math.floor((to - from) / 60));
  const judged = Math.floor((to - from) / stride) + 1;
  let best = start;
  let c = start;
  let error = Infinity;
  const kept = ts.slice(0, to - from + 1);
  for (let round = 0; round <= rounds; round++) {
    toFeet(c, s, from, to, ts);
    toFeet(c, s, from, to, ts);
    const sum = gatherNormals(c, s, from, to, ts, stride);
    if (sum > 0.85 * error && sum > 1.6 * wanted * judged && wanted > 0) break;
    if (sum >= error * 0.999) {
      if (sum > error) ts.set(kept);
      else best = c;
      break;
    }
    best = c;
    error = sum;
    kept.set(ts.subarray(0, to - from + 1));
    if (round === rounds) break;
    for (let k = 0; k < 8; k++) normal[9 * k] *= 1 + 1e-4;
    for (let k = 0; k < 8; k++) normal[9 * k] += 1e-9;
    solve8();
    c = Float64Array.from(c, (v, k) => v + shift[k]);
  }
  return best;
}

function gatherNormals(c: Controls, s: Samples, from: number, to: number, ts: Float64Array, stride: number): number {
  normal.fill(0);
  shift.fill(0);
  let sum = 0;
  for (let i = from; i <= to; i = i < to && i + stride > to ? to : i + stride) {
    const t = ts[i - from];
    const u = 1 - t;
    const b = [u * u * u, 3 * u * u * t, 3 * u * t * t, t * t * t];
    let dx = u * u * (c[2] - c[0]) + 2 * u * t * (c[4] - c[2]) + t * t * (c[6] - c[4]);
    let dy = u * u * (c[3] - c[1]) + 2 * u * t * (c[5] - c[3]) + t * t * (c[7] - c[5]);
    const speed = Math.hypot(dx, dy) || 1;
    dx /= speed;
    dy /= speed;
    const gx = s.x[i] - xAt(c, t);
    const gy = s.y[i] - yAt(c, t);
    for (let axis = i === from || i === to ? 0 : 1; axis < 2; axis++) {
      const [nx, ny] = axis === 1 ? [-dy, dx] : [dx, dy];
      const gap = nx * gx + ny * gy;
      sum += gap * gap;
      for (let k = 0; k < 4; k++) {
        slope[2 * k] = nx * b[k];
        slope[2 * k + 1] = ny * b[k];
      }
      for (let p = 0; p < 8; p++) {
        shift[p] += slope[p] * gap;
        for (let q = 0; q <= p; q++) normal[8 * p + q] += slope[p] * slope[q];
      }
    }
  }
  return sum;
}

/** Solves the 8 x 8 system in `normal` (lower half) for `shift`, in place. */
function solve8(): void {
  for (let i = 0; i < 8; i++) {
    for (let j = 0; j <= i; j++) {
      let sum = normal[8 * i + j];
      for (let k = 0; k < j; k++) sum -= normal[8 * i + k] * normal[8 * j + k];
      normal[8 * i + j] = i === j ? Math.sqrt(Math.max(sum, 1e-12)) : sum / normal[9 * j];
    }
  }
  for (let i = 0; i < 8; i++) {
    for (let k = 0; k < i; k++) shift[i] -= normal[8 * i + k] * shift[k];
    shift[i] /= normal[9 * i];
  }
  for (let i = 7; i >= 0; i--) {
    for (let k = i + 1; k < 8; k++) shift[i] -= normal[8 * k + i] * shift[k];
    shift[i] /= normal[9 * i];
  }
}

function byChordLength(s: Samples, from: number, to: number, ts: Float64Array): void {
  let length = 0;
  ts[0] = 0;
  for (let i = from + 1; i <= to; i++) {
    length += Math.hypot(s.x[i] - s.x[i - 1], s.y[i] - s.y[i - 1]);
    ts[i - from] = length;
  }
  for (let i = 0; i <= to - from; i++) ts[i] /= length || 1;
}

function solveFree(s: Samples, from: number, to: number, ts: Float64Array): Controls {
  matrix.fill(0);
  right.fill(0);
  for (let i = from; i <= to; i++) {
    const t = ts[i - from];
    const u = 1 - t;
    const [b0, b1, b2, b3] = [u * u * u, 3 * u * u * t, 3 * u * t * t, t * t * t];
    matrix[0] += b0 * b0;
    matrix[4] += b0 * b1;
    matrix[5] += b1 * b1;
    matrix[8] += b0 * b2;
    matrix[9] += b1 * b2;
    matrix[10] += b2 * b2;
    matrix[12] += b0 * b3;
    matrix[13] += b1 * b3;
    matrix[14] += b2 * b3;
    matrix[15] += b3 * b3;
    const [x, y] = [s.x[i], s.y[i]];
    right[0] += b0 * x;
    right[1] += b0 * y;
    right[2] += b1 * x;
    right[3] += b1 * y;
    right[4] += b2 * x;
    right[5] += b2 * y;
    right[6] += b3 * x;
    right[7] += b3 * y;
  }
  // A trace of stiffness keeps too few points from leaving the matrix singular: it draws towards even spacing.
  stiffen(s, from, to, 1e-9 * (to - from + 1));
  cholesky4();
  return right.slice();
}

function stiffen(s: Samples, from: number, to: number, weight: number): void {
  for (let k = 0; k < 4; k++) {
    matrix[5 * k] += weight;
    right[2 * k] += (weight * (s.x[from] * (3 - k) + s.x[to] * k)) / 3;
    right[2 * k + 1] += (weight * (s.y[from] * (3 - k) + s.y[to] * k)) / 3;
  }
}

/** Solves the 4 x 4 system in `matrix` (lower half) for the x's and the y's in `right`, in place. */
function cholesky4(): void {
  for (let i = 0; i < 4; i++) {
    for (let j = 0; j <= i; j++) {
      let sum = matrix[4 * i + j];
      for (let k = 0; k < j; k++) sum -= matrix[4 * i + k] * matrix[4 * j + k];
      matrix[4 * i + j] = i === j ? Math.sqrt(Math.max(sum, 1e-300)) : sum / matrix[5 * j];
    }
  }
  for (let axis = 0; axis < 2; axis++) {
    for (let i = 0; i < 4; i++) {
      let sum = right[2 * i + axis];
      for (let k = 0; k < i; k++) sum -= matrix[4 * i + k] * right[2 * k + axis];
      right[2 * i + axis] = sum / matrix[5 * i];
    }
    for (let i = 3; i >= 0; i--) {
      let sum = right[2 * i + axis];
      for (let k = i + 1; k < 4; k++) sum -= matrix[4 * k + i] * right[2 * k + axis];
      right[2 * i + axis] = sum / matrix[5 * i];
    }
  }
}

/** How the points `from` to `to` lie to a cubic at their parameters. */
export function misfitOf(
  c: Controls,
  s: Samples,
  from: number,
  to: number,
  ts: Float64Array,
  tolerance: number,
): Misfit {
  let [sum, max, over] = [0, 0, 0];
  for (let i = from; i <= to; i++) {
    const t = ts[i - from];
    const [dx, dy] = [xAt(c, t) - s.x[i], yAt(c, t) - s.y[i]];
    const d = dx * dx + dy * dy;
    sum += d;
    if (d > max) max = d;
    if (d > tolerance * tolerance) over++;
  }
  return { rms: Math.sqrt(sum / (to - from + 1)), max: Math.sqrt(max), over };
}
