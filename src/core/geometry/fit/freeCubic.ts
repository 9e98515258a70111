import { Normal } from './normal';
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

/** The same in powers of t, x's four coefficients first, from the cube down: quicker where many places are asked for. */
export type Powers = Float64Array;

export function powersOf(c: Controls, into: Powers = new Float64Array(8)): Powers {
  for (let axis = 0; axis < 2; axis++) {
    const a = c[axis];
    const b = c[2 + axis];
    const d = c[4 + axis];
    const e = c[6 + axis];
    into[4 * axis] = e - a + 3 * (b - d);
    into[4 * axis + 1] = 3 * (a - 2 * b + d);
    into[4 * axis + 2] = 3 * (b - a);
    into[4 * axis + 3] = a;
  }
  return into;
}

/**
 * One of Newton's steps from `t` towards the foot of (px, py) on a cubic, held within `least` and `most`; a smaller one,
 * or none, where it would lead further away, as it can beside a cusp.
 */
export function stepToFoot(p: Powers, px: number, py: number, t: number, least: number, most: number): number {
  const gx = ((p[0] * t + p[1]) * t + p[2]) * t + p[3] - px;
  const gy = ((p[4] * t + p[5]) * t + p[6]) * t + p[7] - py;
  const dx = (3 * p[0] * t + 2 * p[1]) * t + p[2];
  const dy = (3 * p[4] * t + 2 * p[5]) * t + p[6];
  const speed = dx * dx + dy * dy;
  const bend = speed + gx * (6 * p[0] * t + 2 * p[1]) + gy * (6 * p[4] * t + 2 * p[5]);
  // Where the curve bends away from the point, Newton's step would flee the foot: Gauss and Newton's does not.
  const step = (gx * dx + gy * dy) / (bend > 0.2 * speed ? bend : speed || 1);
  const before = gx * gx + gy * gy;
  let by = step > 0.2 ? 0.2 : step < -0.2 ? -0.2 : step;
  for (let tries = 0; tries < 3; tries++, by /= 4) {
    const next = t - by < least ? least : t - by > most ? most : t - by;
    const x = ((p[0] * next + p[1]) * next + p[2]) * next + p[3] - px;
    const y = ((p[4] * next + p[5]) * next + p[6]) * next + p[7] - py;
    if (x * x + y * y <= before) return next;
  }
  return t < least ? least : t > most ? most : t;
}

/**
 * How much the distance along the curve counts beside that across it, for a point `far` from its foot: hardly where the
 * curve is flat, fully at the tip of a cusp, where a step along the tangent would lead astray (squared distance: Wang,
 * Pottmann and Liu 2006). (dx, dy) is the derivative there, `speed` its length.
 */
export function weightAlong(p: Powers, t: number, dx: number, dy: number, speed: number, far: number): number {
  const turning = Math.abs(dx * (6 * p[4] * t + 2 * p[5]) - dy * (6 * p[0] * t + 2 * p[1])) * Math.abs(far);
  const flat = speed * speed * speed;
  return Math.sqrt(turning / (turning + flat || 1));
}
/** A smaller weight than this is not worth its sum. */
export const LEAST_WEIGHT = 0.2;

const matrix = new Float64Array(16);
const right = new Float64Array(8);

/**
 * The cubic, all four control points free, that lies nearest to the points `from` to `to` of a stroke by least squares;
 * `ts` holds their parameters from `from` on, begun by chord length and moved to their feet between the rounds
 * (Schneider 1990). No curve of one segment comes nearer than this, whatever its tangents.
 */
export function fitFree(s: Samples, from: number, to: number, ts: Float64Array, rounds: number): Controls {
  byChordLength(s, from, to, ts);
  return fitFrom(s, from, to, ts, rounds);
}

/**
 * The same, for points that come to a stop at `at` and turn back: begun with parameters that grow with the square root
 * of the way from there, as they do beside the cusp of a cubic.
 */
export function fitCusp(s: Samples, at: number, ts: Float64Array, rounds: number): Controls {
  byChordLength(s, 0, s.n - 1, ts);
  const tip = ts[at];
  const [before, after] = [Math.sqrt(tip), Math.sqrt(1 - tip)];
  for (let i = 0; i < s.n; i++) {
    const way = Math.sqrt(Math.abs(ts[i] - tip));
    ts[i] = (before + (i < at ? -way : way)) / (before + after);
  }
  return fitFrom(s, 0, s.n - 1, ts, rounds);
}

function fitFrom(s: Samples, from: number, to: number, ts: Float64Array, rounds: number): Controls {
  let c = solveFree(s, from, to, ts);
  for (let round = 1; round < rounds; round++) {
    toFeet(c, s, from, to, ts);
    c = solveFree(s, from, to, ts);
  }
  return c;
}

const powers = new Float64Array(8);

function toFeet(c: Controls, s: Samples, from: number, to: number, ts: Float64Array): void {
  powersOf(c, powers);
  for (let i = from; i <= to; i++) ts[i - from] = stepToFoot(powers, s.x[i], s.y[i], ts[i - from], 0, 1);
}

const normal = new Normal();

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
    for (let k = 0; k < 8; k++) normal.matrix[9 * k] = normal.matrix[9 * k] * (1 + 1e-4) + 1e-9;
    normal.solve();
    c = c.slice();
    for (let k = 0; k < 8; k++) c[k] += normal.right[k];
  }
  return best;
}

/** Gathers the normal equations of the distances across the curve; gives the sum of their squares. */
function gatherNormals(c: Controls, s: Samples, from: number, to: number, ts: Float64Array, stride: number): number {
  normal.clear();
  powersOf(c, powers);
  let sum = 0;
  for (let i = from; i <= to; i = i < to && i + stride > to ? to : i + stride) {
    const t = ts[i - from];
    const u = 1 - t;
    const b0 = u * u * u;
    const b1 = 3 * u * u * t;
    const b2 = 3 * u * t * t;
    const b3 = t * t * t;
    let dx = (3 * powers[0] * t + 2 * powers[1]) * t + powers[2];
    let dy = (3 * powers[4] * t + 2 * powers[5]) * t + powers[6];
    const speed = Math.sqrt(dx * dx + dy * dy) || 1;
    const gx = s.x[i] - (((powers[0] * t + powers[1]) * t + powers[2]) * t + powers[3]);
    const gy = s.y[i] - (((powers[4] * t + powers[5]) * t + powers[6]) * t + powers[7]);
    const far = (dx * gy - dy * gx) / speed;
    const weight = i === from || i === to ? 1 : weightAlong(powers, t, dx, dy, speed, far);
    dx /= speed;
    dy /= speed;
    const across = dx * gy - dy * gx;
    sum += across * across;
    normal.add(-dy * b0, dx * b0, -dy * b1, dx * b1, -dy * b2, dx * b2, -dy * b3, dx * b3, across);
    if (weight < LEAST_WEIGHT) continue;
    // At the ends, and where the curve bends sharply, the distance along it counts as well.
    dx *= weight;
    dy *= weight;
    const along = dx * gx + dy * gy;
    sum += along * along;
    normal.add(dx * b0, dy * b0, dx * b1, dy * b1, dx * b2, dy * b2, dx * b3, dy * b3, along);
  }
  return sum;
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
    const b0 = u * u * u;
    const b1 = 3 * u * u * t;
    const b2 = 3 * u * t * t;
    const b3 = t * t * t;
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
    const x = s.x[i];
    const y = s.y[i];
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
  powersOf(c, powers);
  let sum = 0;
  let max = 0;
  let over = 0;
  for (let i = from; i <= to; i++) {
    const t = ts[i - from];
    const dx = ((powers[0] * t + powers[1]) * t + powers[2]) * t + powers[3] - s.x[i];
    const dy = ((powers[4] * t + powers[5]) * t + powers[6]) * t + powers[7] - s.y[i];
    const d = dx * dx + dy * dy;
    sum += d;
    if (d > max) max = d;
    if (d > tolerance * tolerance) over++;
  }
  return { rms: Math.sqrt(sum / (to - from + 1)), max: Math.sqrt(max), over };
}
