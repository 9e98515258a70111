import { fitFree, misfitOf, powersOf, stepToFoot, xAt, yAt, type Controls, type Misfit } from './freeCubic';
import type { Samples } from './samples';

/**
 * A chain of cubics over a stroke's samples. Node `k` lies between segments `k − 1` and `k`; a closed chain has as many
 * nodes as segments, an open one one more. Directions are those of travel, as angles; at a smooth node the way in and
 * the way out are the same one. Segment `k` serves the points from `cuts[k]` up to, not including, `cuts[k + 1]`
 * (indices of a closed stroke are taken round).
 */
export type Spline = {
  readonly closed: boolean;
  readonly corner: boolean[];
  readonly x: number[];
  readonly y: number[];
  readonly wayIn: number[];
  readonly wayOut: number[];
  readonly lengthIn: number[];
  readonly lengthOut: number[];
  readonly cuts: number[];
  /** The parameter of each point on its segment. */
  readonly ts: Float64Array;
};

export const segmentsOf = (sp: Spline): number => sp.cuts.length - 1;
export const endNode = (sp: Spline, k: number): number => (k + 1) % sp.x.length;

export function controlsOf(sp: Spline, k: number): Controls {
  const e = endNode(sp, k);
  const c = new Float64Array(8);
  c[0] = sp.x[k];
  c[1] = sp.y[k];
  c[2] = sp.x[k] + sp.lengthOut[k] * Math.cos(sp.wayOut[k]);
  c[3] = sp.y[k] + sp.lengthOut[k] * Math.sin(sp.wayOut[k]);
  c[4] = sp.x[e] - sp.lengthIn[e] * Math.cos(sp.wayIn[e]);
  c[5] = sp.y[e] - sp.lengthIn[e] * Math.sin(sp.wayIn[e]);
  c[6] = sp.x[e];
  c[7] = sp.y[e];
  return c;
}

/** A chain begun from cubics that are fitted to each piece on its own; where they meet, the mean of the two is taken. */
export function splineFrom(s: Samples, cuts: readonly number[], corner: readonly boolean[], closed: boolean): Spline {
  const segments = cuts.length - 1;
  const nodes = closed ? segments : segments + 1;
  const row = (): number[] => new Array<number>(nodes).fill(0);
  const sp: Spline = {
    closed,
    corner: [...corner],
    x: row(),
    y: row(),
    wayIn: row(),
    wayOut: row(),
    lengthIn: row(),
    lengthOut: row(),
    cuts: [...cuts],
    ts: new Float64Array(s.n),
  };
  const ends = Array.from({ length: segments }, (_, k) => {
    const piece = pieceOf(s, cuts[k], cuts[k + 1]);
    const ts = new Float64Array(piece.n);
    const c = fitFree(piece, 0, piece.n - 1, ts, 4);
    for (let i = cuts[k]; i < cuts[k + 1]; i++) sp.ts[i % s.n] = ts[i - cuts[k]];
    return c;
  });
  for (let node = 0; node < nodes; node++) {
    const before = node > 0 ? ends[node - 1] : closed ? ends[segments - 1] : null;
    const after = node < segments ? ends[node] : null;
    const i = cuts[node] % s.n;
    const at = [
      [s.x[i], s.y[i]],
      ...(before ? [[before[6], before[7]]] : []),
      ...(after ? [[after[0], after[1]]] : []),
    ].slice(before || after ? 1 : 0);
    sp.x[node] = at.reduce((sum, p) => sum + p[0], 0) / at.length;
    sp.y[node] = at.reduce((sum, p) => sum + p[1], 0) / at.length;
    const into = before && endDirection(before, true);
    const out = after && endDirection(after, false);
    if (into) sp.lengthIn[node] = into.length;
    if (out) sp.lengthOut[node] = out.length;
    sp.wayIn[node] = into?.angle ?? out?.angle ?? 0;
    sp.wayOut[node] = out?.angle ?? into?.angle ?? 0;
    if (!sp.corner[node]) joinWays(sp, node);
  }
  return sp;
}

/** Gives a node one direction in place of two: their mean. */
export function joinWays(sp: Spline, node: number): void {
  const [a, b] = [sp.wayIn[node], sp.wayOut[node]];
  sp.wayIn[node] = sp.wayOut[node] = Math.atan2(Math.sin(a) + Math.sin(b), Math.cos(a) + Math.cos(b));
}

/**
 * How a chain turns at a node as seen from `reach` away on either side, in radians, and its mean direction there; null
 * where it ends nearer than that.
 */
export function turnAcross(sp: Spline, node: number, reach: number): { turn: number; heading: number } | null {
  const before = awayFrom(sp, node, -1, reach);
  const after = awayFrom(sp, node, 1, reach);
  if (!before || !after) return null;
  const [into, out] = [
    [sp.x[node] - before[0], sp.y[node] - before[1]],
    [after[0] - sp.x[node], after[1] - sp.y[node]],
  ];
  const turn = Math.abs(Math.atan2(into[0] * out[1] - into[1] * out[0], into[0] * out[0] + into[1] * out[1]));
  return { turn, heading: Math.atan2(after[1] - before[1], after[0] - before[0]) };
}

/** The place on the segment before or after a node that is `reach` away from the node for the first time. */
function awayFrom(sp: Spline, node: number, sign: 1 | -1, reach: number): [number, number] | null {
  const count = segmentsOf(sp);
  const k = sign > 0 ? node : (node - 1 + count) % count;
  const c = controlsOf(sp, k);
  for (let i = 1; i <= 100; i++) {
    const t = sign > 0 ? i / 100 : 1 - i / 100;
    const [x, y] = [xAt(c, t), yAt(c, t)];
    if (Math.hypot(x - sp.x[node], y - sp.y[node]) >= reach) return [x, y];
  }
  return null;
}

/** Gives a node one direction, and handles that run a third of the way to its neighbours. */
export function leadAlong(sp: Spline, node: number, heading: number): void {
  const count = sp.x.length;
  const third = (other: number): number => Math.hypot(sp.x[other] - sp.x[node], sp.y[other] - sp.y[node]) / 3;
  sp.wayIn[node] = sp.wayOut[node] = heading;
  sp.lengthIn[node] = third((node - 1 + count) % count);
  sp.lengthOut[node] = third((node + 1) % count);
}

/** The points of a piece, both ends included, taken round where the stroke is closed. */
export function pieceOf(s: Samples, from: number, to: number): Samples {
  if (to < s.n) return { n: to - from + 1, x: s.x.subarray(from, to + 1), y: s.y.subarray(from, to + 1) };
  const at = (a: Float64Array) => Float64Array.from({ length: to - from + 1 }, (_, i) => a[(from + i) % s.n]);
  return { n: to - from + 1, x: at(s.x), y: at(s.y) };
}

/** The direction of travel at an end of a cubic, and how long the handle there is. */
function endDirection(c: Controls, atEnd: boolean): { angle: number; length: number } {
  const [x, y] = atEnd ? [c[6] - c[4], c[7] - c[5]] : [c[2] - c[0], c[3] - c[1]];
  const chord = Math.hypot(c[6] - c[0], c[7] - c[1]);
  const length = Math.hypot(x, y);
  // A handle of hardly any length has no direction to speak of: the next control point tells it.
  if (length > 0.02 * chord) return { angle: Math.atan2(y, x), length };
  const [fx, fy] = atEnd ? [c[6] - c[2], c[7] - c[3]] : [c[4] - c[0], c[5] - c[1]];
  return { angle: Math.atan2(fy, fx), length: Math.max(length, 0.02 * chord) };
}

/**
 * Moves each point's parameter to its foot, and points past a smooth node over to the neighbouring segment; only of
 * segments in `active`, where that is given.
 */
export function project(sp: Spline, s: Samples, steps: number, active?: readonly boolean[]): void {
  const count = segmentsOf(sp);
  const isActive = (k: number): boolean => !active || active[k];
  for (let k = 0; k < count; k++) {
    if (!isActive(k)) continue;
    const p = powersOf(controlsOf(sp, k));
    for (let j = sp.cuts[k]; j < sp.cuts[k + 1]; j++) {
      const i = j < s.n ? j : j - s.n;
      let t = sp.ts[i];
      for (let step = 0; step < steps; step++) t = stepToFoot(p, s.x[i], s.y[i], t, -0.1, 1.1);
      sp.ts[i] = t;
    }
  }
  for (let k = sp.closed ? 0 : 1; k < count; k++)
    if (isActive(k) && isActive((k - 1 + count) % count)) moveCut(sp, s, k);
  for (let i = 0; i < s.n; i++) sp.ts[i] = Math.min(1, Math.max(0, sp.ts[i]));
  if (!sp.closed) [sp.ts[0], sp.ts[s.n - 1]] = [0, 1];
}

/** Points at the end of a segment whose feet lie beyond it belong to the next one, and the other way round. */
function moveCut(sp: Spline, s: Samples, k: number): void {
  const count = segmentsOf(sp);
  const shift = (by: number): void => {
    sp.cuts[k] += by;
    if (k === 0) sp.cuts[count] += by;
  };
  // A closed chain's first cut is also its last, a whole turn on; indices stay at zero or above.
  const at = (j: number): number => ((j % s.n) + s.n) % s.n;
  const start = k === 0 ? sp.cuts[count - 1] - s.n : sp.cuts[k - 1];
  const end = sp.cuts[k + 1];
  if (count === 1) return;
  const reach = Math.max(2, (end - start) >> 3);
  for (let n = 0; n < reach && sp.cuts[k] - start > 5 && sp.ts[at(sp.cuts[k] - 1)] > 1 && sp.cuts[k] > 0; n++) {
    shift(-1);
    sp.ts[at(sp.cuts[k])] = 0;
  }
  for (let n = 0; n < reach && end - sp.cuts[k] > 5 && sp.ts[at(sp.cuts[k])] < 0; n++) {
    sp.ts[at(sp.cuts[k])] = 1;
    shift(1);
  }
}

/** How the points of a segment lie to it. */
export function misfitAt(sp: Spline, s: Samples, k: number, tolerance: number): Misfit {
  const piece = pieceOf(s, sp.cuts[k], Math.max(sp.cuts[k], sp.cuts[k + 1] - 1));
  const ts = Float64Array.from(piece.x, (_, i) => sp.ts[(sp.cuts[k] + i) % s.n]);
  return misfitOf(controlsOf(sp, k), piece, 0, piece.n - 1, ts, tolerance);
}

/** Whether a segment strays from the way between two neighbouring points by more than one and a half `tolerance`. */
export function bulges(sp: Spline, s: Samples, k: number, tolerance: number): boolean {
  const c = controlsOf(sp, k);
  const [from, to] = [sp.cuts[k], sp.cuts[k + 1]];
  for (let j = from === 0 ? 0 : from - 1; j < to && j + 1 < s.n + (sp.closed ? from + 1 : 0); j++) {
    const [a, b] = [j % s.n, (j + 1) % s.n];
    const [ta, tb] = [j < from ? 0 : sp.ts[a], j + 1 < to ? sp.ts[b] : 1];
    const [dx, dy] = [s.x[b] - s.x[a], s.y[b] - s.y[a]];
    const heading = dx * dx + dy * dy;
    for (const share of [0.25, 0.5, 0.75]) {
      const t = ta + (tb - ta) * share;
      const [px, py] = [xAt(c, t) - s.x[a], yAt(c, t) - s.y[a]];
      const u = heading > 0 ? Math.min(1, Math.max(0, (px * dx + py * dy) / heading)) : 0;
      if (Math.hypot(px - u * dx, py - u * dy) > 1.5 * tolerance) return true;
    }
  }
  return false;
}

/** Cuts a segment in two at the point in the middle of those it serves. The curve stays as it was. */
export function splitSegment(sp: Spline, s: Samples, k: number): void {
  const c = controlsOf(sp, k);
  const cut = (sp.cuts[k] + sp.cuts[k + 1]) >> 1;
  const t = Math.min(0.95, Math.max(0.05, sp.ts[cut % s.n]));
  const mix = (a: number, b: number): number => a + (b - a) * t;
  const along = (i: number): number => mix(c[i], c[i + 2]);
  const [abx, aby, bcx, bcy, cdx, cdy] = [along(0), along(1), along(2), along(3), along(4), along(5)];
  const [lx, ly, rx, ry] = [mix(abx, bcx), mix(aby, bcy), mix(bcx, cdx), mix(bcy, cdy)];
  const heading = Math.atan2(ry - ly, rx - lx);
  const e = endNode(sp, k);
  sp.lengthOut[k] *= t;
  sp.lengthIn[e] *= 1 - t;
  const [x, y] = [mix(lx, rx), mix(ly, ry)];
  const insert = <T>(row: T[], value: T): void => void row.splice(k + 1, 0, value);
  insert(sp.x, x);
  insert(sp.y, y);
  insert(sp.wayIn, heading);
  insert(sp.wayOut, heading);
  insert(sp.lengthIn, Math.hypot(x - lx, y - ly));
  insert(sp.lengthOut, Math.hypot(rx - x, ry - y));
  insert(sp.corner, false);
  insert(sp.cuts, cut);
  for (let j = sp.cuts[k]; j < sp.cuts[k + 2]; j++) {
    const i = j % s.n;
    sp.ts[i] = j < cut ? Math.min(1, sp.ts[i] / t) : Math.max(0, (sp.ts[i] - t) / (1 - t));
  }
}

/** Takes a node away: `controls` is the curve of the two segments beside it, `ts` the parameters of their points on it. */
export function removeNode(sp: Spline, s: Samples, node: number, controls: Controls, ts: Float64Array): void {
  const [from, to] = [sp.cuts[node - 1], sp.cuts[node + 1]];
  for (let j = from; j < to; j++) sp.ts[j % s.n] = ts[j - from];
  for (const name of ['x', 'y', 'wayIn', 'wayOut', 'lengthIn', 'lengthOut', 'corner', 'cuts'] as const)
    sp[name].splice(node, 1);
  const [start, end] = [node - 1, endNode(sp, node - 1)];
  const out = endDirection(controls, false);
  const into = endDirection(controls, true);
  sp.lengthOut[start] = out.length;
  sp.lengthIn[end] = into.length;
  if (sp.corner[start]) sp.wayOut[start] = out.angle;
  if (sp.corner[end]) sp.wayIn[end] = into.angle;
}

/** A copy that can be changed by itself. */
export const copyOf = (sp: Spline): Spline => ({
  closed: sp.closed,
  corner: [...sp.corner],
  x: [...sp.x],
  y: [...sp.y],
  wayIn: [...sp.wayIn],
  wayOut: [...sp.wayOut],
  lengthIn: [...sp.lengthIn],
  lengthOut: [...sp.lengthOut],
  cuts: [...sp.cuts],
  ts: sp.ts.slice(),
});
