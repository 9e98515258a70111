import { fitFree, improveFree, misfitOf } from './freeCubic';
import { pieceOf } from './spline';
import type { Samples } from './samples';
import type { Standard } from './standard';

/** A turn this share of the asked one is looked at more closely: its true size shows once both sides are fitted. */
const SUSPECT = 0.6;

/**
 * Where a stroke may have a corner: places at which the directions before and after, each from a straight fit over a
 * short reach, differ most, and where no smooth curve would do. `angle` in degrees. Gives indices, rising.
 */
export function suspectedCorners(s: Samples, closed: boolean, angle: number, standard: Standard): number[] {
  const spacing = medianSpacing(s);
  const reach = Math.max(3 * standard.tolerance, 8 * standard.noise, 5 * spacing);
  const turns = turnsOf(s, closed, reach);
  const least = (SUSPECT * angle * Math.PI) / 180;
  const peaks: number[] = [];
  for (let i = 0; i < s.n; i++) if (turns[i] >= least && isPeak(turns, i, s, closed, reach)) peaks.push(i);
  return peaks
    .filter((i) => !isSmoothAround(s, i, closed, reach, standard))
    .map((i) => tipNear(s, i, closed, reach))
    .sort((a, b) => a - b)
    .filter((i, k, list) => i !== list[k - 1]);
}

/** The point close by that sticks out furthest: where the way from one side of the corner to the other is longest. */
function tipNear(s: Samples, i: number, closed: boolean, reach: number): number {
  const around = stretchAround(s, i, closed, reach);
  const last = around.n - 1;
  let best = { at: i, detour: 0 };
  for (let j = indexBehind(s, i, closed, reach / 2); j <= indexAhead(s, i, closed, reach / 2); j++) {
    const at = (j + s.n) % s.n;
    const [x, y] = [s.x[at], s.y[at]];
    const detour = Math.hypot(x - around.x[0], y - around.y[0]) + Math.hypot(x - around.x[last], y - around.y[last]);
    if (detour > best.detour) best = { at, detour };
  }
  return best.at;
}

export function medianSpacing(s: Samples): number {
  const gaps = Float64Array.from({ length: s.n - 1 }, (_, i) => Math.hypot(s.x[i + 1] - s.x[i], s.y[i + 1] - s.y[i]));
  return gaps.sort()[gaps.length >> 1] || 1;
}

/** By how much the direction turns at each point, in radians; 0 where a side is too short to tell. */
function turnsOf(s: Samples, closed: boolean, reach: number): Float64Array {
  const turns = new Float64Array(s.n);
  for (let i = 0; i < s.n; i++) {
    const before = directionFrom(s, i, -1, closed, reach);
    const after = directionFrom(s, i, 1, closed, reach);
    if (before === null || after === null) continue;
    const turn = Math.abs(after - before - Math.PI) % (2 * Math.PI);
    turns[i] = Math.min(turn, 2 * Math.PI - turn);
  }
  return turns;
}

/** The direction in which the stroke leaves point `i`, one way or the other: the long axis of the points in reach. */
function directionFrom(s: Samples, i: number, sign: 1 | -1, closed: boolean, reach: number): number | null {
  let [n, sx, sy, sxx, sxy, syy, length] = [0, 0, 0, 0, 0, 0, 0];
  let last = i;
  for (let j = i; ; j += sign) {
    if (closed ? Math.abs(j - i) >= s.n : j < 0 || j >= s.n) break;
    const at = ((j % s.n) + s.n) % s.n;
    length += Math.hypot(s.x[at] - s.x[last], s.y[at] - s.y[last]);
    if (length > reach && n >= 3) break;
    const [x, y] = [s.x[at] - s.x[i], s.y[at] - s.y[i]];
    n++;
    sx += x;
    sy += y;
    sxx += x * x;
    sxy += x * y;
    syy += y * y;
    last = at;
  }
  if (n < 3 || length < 0.9 * reach) return null;
  const [cxx, cxy, cyy] = [sxx - (sx * sx) / n, sxy - (sx * sy) / n, syy - (sy * sy) / n];
  const axis = 0.5 * Math.atan2(2 * cxy, cxx - cyy);
  const forward = Math.cos(axis) * sx + Math.sin(axis) * sy >= 0;
  return forward ? axis : axis + Math.PI;
}

function isPeak(turns: Float64Array, i: number, s: Samples, closed: boolean, reach: number): boolean {
  for (const detour of [1, -1]) {
    let length = 0;
    for (let j = i + detour; ; j += detour) {
      if (closed ? Math.abs(j - i) >= s.n : j < 0 || j >= s.n) break;
      const [at, from] = [(j + s.n) % s.n, (j - detour + s.n) % s.n];
      length += Math.hypot(s.x[at] - s.x[from], s.y[at] - s.y[from]);
      if (length > reach) break;
      if (turns[at] > turns[i] || (turns[at] === turns[i] && detour < 0)) return false;
    }
  }
  return true;
}

/** Whether the stroke is smooth around `i` for all its turning: one cubic without a sharp bend serves the points there. */
function isSmoothAround(s: Samples, i: number, closed: boolean, reach: number, standard: Standard): boolean {
  const close = stretchAround(s, i, closed, 2 * reach);
  const ts = new Float64Array(s.n + 1);
  const c = improveFree(fitFree(close, 0, close.n - 1, ts, 4), close, 0, close.n - 1, ts, 6);
  const { rms } = misfitOf(c, close, 0, close.n - 1, ts, standard.tolerance);
  const stray = 1 + 2 * Math.sqrt(2 / close.n);
  const fits = rms ** 2 <= standard.noise ** 2 * stray + (0.06 * standard.tolerance) ** 2;
  return fits && !turnsSharply(c, 0.6 * reach);
}

/** The points within `reach` along the stroke on either side of `i`. */
function stretchAround(s: Samples, i: number, closed: boolean, reach: number): Samples {
  const [from, to] = [indexBehind(s, i, closed, reach), indexAhead(s, i, closed, reach)];
  const start = (from + s.n) % s.n;
  return pieceOf(s, start, start + to - from);
}

const indexBehind = (s: Samples, i: number, closed: boolean, reach: number): number =>
  walkFrom(s, i, -1, closed, reach);
const indexAhead = (s: Samples, i: number, closed: boolean, reach: number): number => walkFrom(s, i, 1, closed, reach);

/** The index that is `reach` along the stroke from `i`; not taken round, and at most half a closed stroke away. */
function walkFrom(s: Samples, i: number, sign: 1 | -1, closed: boolean, reach: number): number {
  let j = i;
  for (let length = 0; length < reach; j += sign) {
    const isOver = closed ? Math.abs(j - i) >= s.n / 2 - 1 : sign > 0 ? j >= s.n - 1 : j <= 0;
    if (isOver) break;
    const [a, b] = [(j + s.n) % s.n, (j + sign + s.n) % s.n];
    length += Math.hypot(s.x[a] - s.x[b], s.y[a] - s.y[b]);
  }
  return j;
}

/** Whether a cubic has a bend of a smaller radius than `least`: a curve that mimics a corner. */
function turnsSharply(c: Float64Array, least: number): boolean {
  for (let t = 0.2; t <= 0.8; t += 0.02) {
    const u = 1 - t;
    const d = (k: number): number =>
      3 * (u * u * (c[2 + k] - c[k]) + 2 * u * t * (c[4 + k] - c[2 + k]) + t * t * (c[6 + k] - c[4 + k]));
    const dd = (k: number): number =>
      6 * (u * (c[4 + k] - 2 * c[2 + k] + c[k]) + t * (c[6 + k] - 2 * c[4 + k] + c[2 + k]));
    const [dx, dy] = [d(0), d(1)];
    const curl = Math.abs(dx * dd(1) - dy * dd(0));
    if (Math.hypot(dx, dy) ** 3 < least * curl) return true;
  }
  return false;
}
