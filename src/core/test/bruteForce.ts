import { evaluate, type Cubic } from '../geometry/cubic';
import { cross, distance, subtract, type Point } from '../geometry/point';

/** Slow and simple answers to hold the fast ones against: nothing here but sampling and zooming in. */

export const samples = (c: Cubic, from: number, to: number, n: number): Point[] =>
  Array.from({ length: n + 1 }, (_, i) => evaluate(c, from + ((to - from) * i) / n));

/** Arc length by chords over 2^k pieces, extrapolated to none (Richardson; the error of chords falls by 4). */
export function sampledLength(c: Cubic): number {
  const n = 2 ** 16;
  let [coarse, fine] = [0, 0];
  let [last, lastEven] = [c[0], c[0]];
  for (let i = 1; i <= n; i++) {
    const p = evaluate(c, i / n);
    fine += distance(last, p);
    last = p;
    if (i % 2 === 1) continue;
    coarse += distance(lastEven, p);
    lastEven = p;
  }
  return fine + (fine - coarse) / 3;
}

/** The least value of `f` along a curve: every local dip of 1,500 samples is zoomed into. */
export function sampledMinimum(c: Cubic, f: (p: Point) => number): number {
  const n = 1500;
  const v = samples(c, 0, 1, n).map(f);
  const lowest = Math.min(...v);
  const steepest = Math.max(...v.slice(1).map((w, i) => Math.abs(w - v[i])));
  let best = lowest;
  for (let i = 0; i <= n; i++) {
    if ((i > 0 && v[i] > v[i - 1]) || (i < n && v[i] > v[i + 1]) || v[i] > lowest + steepest) continue;
    let [from, to] = [Math.max(0, i - 1) / n, Math.min(n, i + 1) / n];
    while (to - from > 1e-13) {
      const inner = samples(c, from, to, 8).map(f);
      const k = inner.indexOf(Math.min(...inner));
      best = Math.min(best, inner[k]);
      const step = (to - from) / 8;
      [from, to] = [from + Math.max(0, k - 1) * step, from + Math.min(8, k + 1) * step];
    }
  }
  return best;
}

export const sampledDistance = (c: Cubic, p: Point): number => sampledMinimum(c, (q) => distance(q, p));

/**
 * Crossings of two polylines of `n` chords, each zoomed into until the point is known to 1e-9; and how sharp it is.
 * Places passed more than once are given once.
 */
export function sampledCrossings(a: Cubic, b: Cubic, n = 1500): { point: Point; sine: number }[] {
  const found: { point: Point; sine: number }[] = [];
  for (const first of crossingChords(a, b, { a0: 0, a1: 1, b0: 0, b1: 1 }, n)) {
    let window: Window | undefined = first;
    for (let depth = 0; window && depth < 14; depth++) {
      const [p, q, r, s] = [
        evaluate(a, window.a0),
        evaluate(a, window.a1),
        evaluate(b, window.b0),
        evaluate(b, window.b1),
      ];
      if (distance(p, q) + distance(r, s) < 1e-9) {
        const [v, w] = [subtract(q, p), subtract(s, r)];
        const size = Math.hypot(v.x, v.y) * Math.hypot(w.x, w.y);
        if (found.every((f) => distance(f.point, p) > 1e-6))
          found.push({ point: p, sine: Math.abs(cross(v, w)) / (size || 1) });
        break;
      }
      window = crossingChords(a, b, wider(window), 24)[0];
    }
  }
  return found;
}

/** A parameter interval on each curve. */
type Window = { a0: number; a1: number; b0: number; b1: number };

const wider = ({ a0, a1, b0, b1 }: Window): Window => ({
  a0: Math.max(0, a0 - (a1 - a0)),
  a1: Math.min(1, a1 + (a1 - a0)),
  b0: Math.max(0, b0 - (b1 - b0)),
  b1: Math.min(1, b1 + (b1 - b0)),
});

/** The windows of those chords, of `n` a curve, that cross. */
function crossingChords(a: Cubic, b: Cubic, { a0, a1, b0, b1 }: Window, n: number): Window[] {
  const [p, q] = [samples(a, a0, a1, n), samples(b, b0, b1, n)];
  const byX = q.slice(1).map((r, j) => ({ j, low: Math.min(r.x, q[j].x), high: Math.max(r.x, q[j].x) }));
  byX.sort((r, s) => r.low - s.low);
  const widest = Math.max(...byX.map((r) => r.high - r.low));
  const [da, db] = [(a1 - a0) / n, (b1 - b0) / n];
  const windows: Window[] = [];
  for (let i = 0; i < n && windows.length < 400; i++) {
    const [low, high] = [Math.min(p[i].x, p[i + 1].x), Math.max(p[i].x, p[i + 1].x)];
    for (let k = firstAtLeast(byX, low - widest); k < byX.length && byX[k].low <= high; k++) {
      const j = byX[k].j;
      if (!chordsCross(p[i], p[i + 1], q[j], q[j + 1])) continue;
      windows.push({ a0: a0 + i * da, a1: a0 + (i + 1) * da, b0: b0 + j * db, b1: b0 + (j + 1) * db });
    }
  }
  return windows;
}

function firstAtLeast(sorted: { low: number }[], value: number): number {
  let [from, to] = [0, sorted.length];
  while (from < to) {
    const middle = (from + to) >> 1;
    if (sorted[middle].low < value) from = middle + 1;
    else to = middle;
  }
  return from;
}

function chordsCross(p: Point, q: Point, r: Point, s: Point): boolean {
  const [pq, rs] = [subtract(q, p), subtract(s, r)];
  if (Math.max(p.y, q.y) < Math.min(r.y, s.y) || Math.max(r.y, s.y) < Math.min(p.y, q.y)) return false;
  if (Math.max(p.x, q.x) < Math.min(r.x, s.x) || Math.max(r.x, s.x) < Math.min(p.x, q.x)) return false;
  return (
    cross(pq, subtract(r, p)) * cross(pq, subtract(s, p)) <= 0 &&
    cross(rs, subtract(p, r)) * cross(rs, subtract(q, r)) <= 0
  );
}
