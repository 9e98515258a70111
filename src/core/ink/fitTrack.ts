import { straightCubic, type Cubic } from '../geometry/cubic';

/** A place that a curve goes through, and its direction there (of length 1). */
export type Waypoint = { x: number; y: number; dx: number; dy: number };

/** Places that coincide with the one before are left out. */
export const withoutRepeats = <T extends Waypoint>(track: readonly T[]): T[] =>
  track.filter((q, i) => i === 0 || Math.hypot(q.x - track[i - 1].x, q.y - track[i - 1].y) > 1e-9);

/** No cubic turns further than this, radians. */
const WIDEST = 1.9;
const ROUNDS = 8;

/**
 * Few cubics through places of a curve that is known exactly, with its directions, joined smoothly: each as long as
 * keeps every place within `tolerance`. The two handle lengths by least squares, the parameters by Newton's steps, in
 * turns (Schneider 1990, "An algorithm for automatically fitting digitized curves"); longer and longer pieces are tried
 * by doubling, then halving.
 */
export function fitTrack(track: readonly Waypoint[], tolerance: number): Cubic[] {
  const cubics: Cubic[] = [];
  const turned = turnsOf(track);
  let from = 0;
  let guess = track.length;
  while (from < track.length - 1) {
    const last = furthest(turned, from);
    let [good, bad]: [number, number] = [from + 1, last + 1];
    let best = fitOne(track, from, from + 1, tolerance);
    let next = Math.min(last, from + guess);
    while (good < bad - 1) {
      if (next <= good) next = good + 1;
      const tried = fitOne(track, from, next, tolerance);
      if (tried) [good, best] = [next, tried];
      else bad = next;
      next = bad > last ? Math.min(last, from + 2 * (good - from)) : (good + bad) >> 1;
    }
    cubics.push(best ?? between(track[from], track[good]));
    guess = good - from;
    from = good;
  }
  return cubics;
}

/** How far the direction has turned up to each place, both ways counted. */
function turnsOf(track: readonly Waypoint[]): Float64Array {
  const turned = new Float64Array(track.length);
  for (let i = 1; i < track.length; i++) {
    const [a, b] = [track[i - 1], track[i]];
    turned[i] = turned[i - 1] + Math.abs(Math.atan2(a.dx * b.dy - a.dy * b.dx, a.dx * b.dx + a.dy * b.dy));
  }
  return turned;
}

function furthest(turned: Float64Array, from: number): number {
  let last = from + 1;
  while (last + 1 < turned.length && turned[last + 1] - turned[from] <= WIDEST) last++;
  return last;
}

/** The cubic between two places that lie close together: its handles are a third of the way. */
export function between(a: Waypoint, b: Waypoint): Cubic {
  const third = Math.hypot(b.x - a.x, b.y - a.y) / 3;
  return [
    { x: a.x, y: a.y },
    { x: a.x + a.dx * third, y: a.y + a.dy * third },
    { x: b.x - b.dx * third, y: b.y - b.dy * third },
    { x: b.x, y: b.y },
  ];
}

/** One cubic for a piece of the track; null where none lies within the tolerance. */
function fitOne(track: readonly Waypoint[], from: number, to: number, tolerance: number): Cubic | null {
  const [a, b] = [track[from], track[to]];
  const chord = Math.hypot(b.x - a.x, b.y - a.y);
  if (chord === 0) return null;
  if (to === from + 1) return between(a, b);
  const n = to - from - 1;
  const ts = parametersOf(track, from, to);
  const isStraight =
    Math.abs((b.x - a.x) * a.dy - (b.y - a.y) * a.dx) < 1e-7 * chord && a.dx * b.dx + a.dy * b.dy > 1 - 1e-12;
  if (isStraight && within(track, from, to, a, b, chord, tolerance))
    return straightCubic({ x: a.x, y: a.y }, { x: b.x, y: b.y });
  let off = Infinity;
  for (let round = 0; round < ROUNDS; round++) {
    const [h, k] = handles(track, from, to, ts);
    if (!(h > 0 && k > 0) || h + k > 4 * chord) return null;
    const c: Cubic = [
      { x: a.x, y: a.y },
      { x: a.x + a.dx * h, y: a.y + a.dy * h },
      { x: b.x - b.dx * k, y: b.y - b.dy * k },
      { x: b.x, y: b.y },
    ];
    const was = off;
    off = reparameterized(c, track, from, n, ts);
    if (off <= tolerance) return c;
    // What comes closer this slowly does not get there.
    if (off > 60 * tolerance || (round > 2 && off > 0.92 * was)) return null;
  }
  return null;
}

const within = (
  track: readonly Waypoint[],
  from: number,
  to: number,
  a: Waypoint,
  b: Waypoint,
  chord: number,
  tolerance: number,
): boolean => {
  for (let i = from + 1; i < to; i++)
    if (Math.abs((track[i].x - a.x) * (b.y - a.y) - (track[i].y - a.y) * (b.x - a.x)) > tolerance * chord) return false;
  return true;
};

function parametersOf(track: readonly Waypoint[], from: number, to: number): Float64Array {
  const ts = new Float64Array(to - from - 1);
  let travelled = 0;
  for (let i = from + 1; i <= to; i++) {
    travelled += Math.hypot(track[i].x - track[i - 1].x, track[i].y - track[i - 1].y);
    if (i < to) ts[i - from - 1] = travelled;
  }
  for (let i = 0; i < ts.length; i++) ts[i] /= travelled;
  return ts;
}

/** The two handle lengths of least squares. */
function handles(track: readonly Waypoint[], from: number, to: number, ts: Float64Array): [number, number] {
  const [a, b] = [track[from], track[to]];
  const across = -(a.dx * b.dx + a.dy * b.dy);
  let [aa, ab, bb, ax, bx] = [0, 0, 0, 0, 0];
  for (let i = 0; i < ts.length; i++) {
    const t = ts[i];
    const s = 1 - t;
    const [w1, w2] = [3 * s * s * t, 3 * s * t * t];
    const [f, g] = [s * s * s + w1, w2 + t * t * t];
    const q = track[from + 1 + i];
    const [x, y] = [q.x - f * a.x - g * b.x, q.y - f * a.y - g * b.y];
    aa += w1 * w1;
    ab += w1 * w2 * across;
    bb += w2 * w2;
    ax += w1 * (a.dx * x + a.dy * y);
    bx -= w2 * (b.dx * x + b.dy * y);
  }
  const determinant = aa * bb - ab * ab;
  const third = Math.hypot(b.x - a.x, b.y - a.y) / 3;
  if (Math.abs(determinant) < 1e-9 * aa * bb) return [third, third];
  return [(ax * bb - bx * ab) / determinant, (bx * aa - ax * ab) / determinant];
}

/** Moves the parameters to the feet of the places; the largest distance that is left. */
function reparameterized(c: Cubic, track: readonly Waypoint[], from: number, n: number, ts: Float64Array): number {
  const [p0, p1, p2, p3] = c;
  const [cx1, cx2, cx3] = [3 * (p1.x - p0.x), 3 * (p2.x - 2 * p1.x + p0.x), p3.x - 3 * p2.x + 3 * p1.x - p0.x];
  const [cy1, cy2, cy3] = [3 * (p1.y - p0.y), 3 * (p2.y - 2 * p1.y + p0.y), p3.y - 3 * p2.y + 3 * p1.y - p0.y];
  let worst = 0;
  for (let i = 0; i < n; i++) {
    const q = track[from + 1 + i];
    let t = ts[i];
    for (let step = 0; step < 2; step++) {
      const x = p0.x + t * (cx1 + t * (cx2 + t * cx3)) - q.x;
      const y = p0.y + t * (cy1 + t * (cy2 + t * cy3)) - q.y;
      const [vx, vy] = [cx1 + t * (2 * cx2 + 3 * t * cx3), cy1 + t * (2 * cy2 + 3 * t * cy3)];
      const [wx, wy] = [2 * cx2 + 6 * t * cx3, 2 * cy2 + 6 * t * cy3];
      const bend = vx * vx + vy * vy + x * wx + y * wy;
      if (bend > 0) t = Math.min(1, Math.max(0, t - (x * vx + y * vy) / bend));
    }
    ts[i] = t;
    const x = p0.x + t * (cx1 + t * (cx2 + t * cx3)) - q.x;
    const y = p0.y + t * (cy1 + t * (cy2 + t * cy3)) - q.y;
    worst = Math.max(worst, x * x + y * y);
  }
  return Math.sqrt(worst);
}
