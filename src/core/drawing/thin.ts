import { placesAlong } from '../geometry/along';
import { distanceToChord } from '../geometry/chord';
import { splitCubic, type Cubic } from '../geometry/cubic';
import { turningPoints } from '../geometry/bounds';
import { fitCurve } from '../geometry/fit/fitCurve';
import { refitNearby } from '../geometry/refitNearby';
import { add, cross, distance, dot, subtract, type Point } from '../geometry/point';
import { runFromCubics } from './fromCubics';
import { cubicsOf } from './run';
import type { Run } from './schema';

export type ThinOptions = {
  /** How far the line may move, page units. */
  readonly tolerance: number;
  /** Wobbles up to about this long are smoothed away first, page units; 0 for none. */
  readonly smoothing: number;
  /** A node wherever the line is at its leftmost, rightmost, highest or lowest. */
  readonly extremes: boolean;
};

/** A turn of more than this stays a corner, in radians; where wobbles are smoothed they turn as well. */
const CORNER = 0.35;
const CORNER_AMONG_WOBBLES = 1.05;

/**
 * A run with as few nodes as hold its shape within the tolerance: it is fitted anew from corner to corner. Corners stay
 * where they are, and so do ends. The same run where that saves no node.
 * @throws RangeError for a tolerance that is not above 0, or a smoothing below 0.
 */
export function thinnedRun(run: Run, { tolerance, smoothing, extremes }: ThinOptions): Run {
  if (!(tolerance > 0) || !Number.isFinite(tolerance)) throw new RangeError('the tolerance must be a number above 0');
  if (!(smoothing >= 0) || !Number.isFinite(smoothing)) throw new RangeError('the smoothing must be 0 or more');
  // Rounded corners are a figure of their node: they would be lost.
  if (run.nodes.length < 2 || run.nodes.some((n) => n.radius)) return run;
  const cubics = cubicsOf(run);
  const { chains, isRing } = chainsOf(cubics, run.closed, smoothing > 0 ? CORNER_AMONG_WOBBLES : CORNER);
  const thinned = chains.flatMap((chain) => thinnedChain(chain, isRing, tolerance, smoothing));
  const whole = extremes ? movedToExtremes(thinned, run.closed).flatMap(cutAtExtremes) : thinned;
  if (whole.length >= cubics.length && smoothing === 0 && !extremes) return run;
  const next = runFromCubics(whole, run.closed);
  return !run.closed ? next : startingAt(next, run.nodes[0].point);
}

/** The stretches between corners; a closed run without any is one ring. */
function chainsOf(cubics: readonly Cubic[], closed: boolean, corner: number): { chains: Cubic[][]; isRing: boolean } {
  const n = cubics.length;
  const isCorner = (k: number): boolean => turnBetween(cubics[(k - 1 + n) % n], cubics[k % n]) > corner;
  const corners = cubics.flatMap((_, k) => ((k > 0 || closed) && isCorner(k) ? [k] : []));
  if (!closed) {
    const cuts = [0, ...corners, n];
    return { chains: cuts.slice(1).map((to, i) => cubics.slice(cuts[i], to)), isRing: false };
  }
  if (corners.length === 0) return { chains: [[...cubics]], isRing: true };
  const around = [...cubics.slice(corners[0]), ...cubics.slice(0, corners[0])];
  const cuts = [...corners.map((k) => k - corners[0]), n];
  return { chains: cuts.slice(1).map((to, i) => around.slice(cuts[i], to)), isRing: false };
}

function turnBetween(a: Cubic, b: Cubic): number {
  const into = directionOf(a[3], [a[2], a[1], a[0]], -1);
  const out = directionOf(b[0], [b[1], b[2], b[3]], 1);
  return into && out ? Math.abs(Math.atan2(cross(into, out), dot(into, out))) : 0;
}

function directionOf(from: Point, others: readonly Point[], sign: 1 | -1): Point | null {
  const to = others.find((p) => distance(p, from) > 1e-6);
  if (!to) return null;
  const direction = subtract(to, from);
  return { x: sign * direction.x, y: sign * direction.y };
}

/** A line is looked at each so many tolerances. */
const EACH = 0.8;
const MOST_PLACES = 6_000;

function thinnedChain(chain: Cubic[], isRing: boolean, tolerance: number, smoothing: number): Cubic[] {
  const isStraight = chain.every((c) => distance(c[0], c[1]) < 1e-9 && distance(c[2], c[3]) < 1e-9);
  if (chain.length === 1 && (isStraight || smoothing === 0)) return chain;
  const length = placesAlong({ cubics: chain, closed: false }, 1e9).length;
  const spacing = Math.max(Math.min(EACH * tolerance, length / 24), length / MOST_PLACES);
  const places = placesAlong({ cubics: chain, closed: isRing }, spacing);
  const points = Array.from({ length: places.n }, (_, i) => ({ x: places.x[i], y: places.y[i] }));
  const smooth = smoothing > 0 ? smoothed(points, smoothing / Math.max(1e-9, length / places.n) / 2, isRing) : points;
  for (const share of SHARES) {
    const free = fitCurve(smooth, { tolerance: share * tolerance, cornerAngle: 180, closed: isRing });
    const fitted = isRing ? free : anchored(free, chain[0][0], chain.at(-1)![3]);
    if (fitted.length >= chain.length && smoothing === 0) return chain;
    if (furthest(fitted, isRing ? [...smooth, smooth[0]] : smooth, spacing, tolerance) <= tolerance) return fitted;
  }
  return chain;
}

/** A fitted chain from just one place to another: a fit comes to its ends but for a thousandth. */
function anchored(cubics: readonly Cubic[], from: Point, to: Point): Cubic[] {
  const result = cubics.map((c) => [...c] as Cubic);
  const [first, last] = [result[0], result.at(-1)!];
  [first[1], first[0]] = [add(first[1], subtract(from, first[0])), from];
  [last[2], last[3]] = [add(last[2], subtract(to, last[3])), to];
  return result;
}

/** A fit lets a few of its points lie further than its tolerance: it is asked for less until all are within. */
const SHARES = [1, 0.7, 0.45, 0.25];

/** How far a chain and the points it was fitted to lie apart at most; looked for no further than it takes to be too far. */
function furthest(chain: Cubic[], points: Point[], spacing: number, enough: number): number {
  const { n, x, y } = placesAlong({ cubics: chain, closed: false }, spacing);
  const there = Array.from({ length: n }, (_, i) => ({ x: x[i], y: y[i] }));
  return Math.max(furthestFrom(there, points, enough), furthestFrom(points, there, enough));
}

function furthestFrom(from: readonly Point[], to: readonly Point[], enough: number): number {
  let [most, at] = [0, 0];
  for (const p of from) {
    // Neighbours have neighbouring feet; only where that leads astray all are asked.
    let d = distanceAround(to, p, at, 40);
    if (d.distance > enough) d = distanceAround(to, p, at, to.length);
    at = d.at;
    most = Math.max(most, d.distance);
    if (most > enough) return most;
  }
  return most;
}

function distanceAround(to: readonly Point[], p: Point, at: number, window: number): { distance: number; at: number } {
  let best = { distance: Infinity, at };
  for (let i = Math.max(1, at - window); i < Math.min(to.length, at + window + 1); i++) {
    const d = distanceToChord(p.x, p.y, to[i - 1].x, to[i - 1].y, to[i].x, to[i].y);
    if (d < best.distance) best = { distance: d, at: i };
  }
  return best;
}

/** Points each the mean of those around it, weighted by a kernel of `sigma` points; ends stay where they are. */
function smoothed(points: Point[], sigma: number, ring: boolean): Point[] {
  const reach = Math.min(Math.ceil(3 * sigma), ring ? points.length : Infinity);
  const n = points.length;
  return points.map((p, i) => {
    // Alike on both sides, so that ends are not drawn inwards.
    const most = ring ? reach : Math.min(reach, i, n - 1 - i);
    let [x, y, weight] = [p.x, p.y, 1];
    for (let d = 1; d <= most; d++) {
      const w = Math.exp(-(d * d) / (2 * sigma * sigma));
      const [a, b] = [points[(i - d + n) % n], points[(i + d) % n]];
      x += w * (a.x + b.x);
      y += w * (a.y + b.y);
      weight += 2 * w;
    }
    return { x: x / weight, y: y / weight };
  });
}

/** An extreme this near to a segment's end, as its parameter, needs no node beside the one there. */
const BY_THE_END = 0.02;

/** Smooth joints that all but lie at an extreme are moved onto it. */
function movedToExtremes(cubics: readonly Cubic[], closed: boolean): Cubic[] {
  const list = [...cubics];
  const n = list.length;
  for (let k = 0; k < (closed ? n : n - 1) && n > 1; k++) {
    const [before, after] = [list[k], list[(k + 1) % n]];
    if (turnBetween(before, after) > SMOOTH) continue;
    const ahead = extremesOf(after).find((t) => t > 1e-9 && t <= BY_THE_END);
    const behind = extremesOf(before).findLast((t) => t < 1 - 1e-9 && t >= 1 - BY_THE_END);
    if (ahead !== undefined) {
      const [piece, rest] = splitCubic(after, ahead);
      [list[k], list[(k + 1) % n]] = [refitNearby(before, piece), rest];
    } else if (behind !== undefined) {
      const [rest, piece] = splitCubic(before, behind);
      [list[k], list[(k + 1) % n]] = [rest, refitNearby(piece, after)];
    }
  }
  return list;
}

const SMOOTH = 0.01;

const extremesOf = (c: Cubic): number[] =>
  (['x', 'y'] as const).flatMap((axis) => turningPoints(c, axis)).sort((a, b) => a - b);

/** A cubic cut where it is at its leftmost, rightmost, highest or lowest; one that has these at its ends is whole. */
export function cutAtExtremes(c: Cubic): Cubic[] {
  const ts = extremesOf(c)
    .filter((t) => t > BY_THE_END && t < 1 - BY_THE_END)
    .filter((t, i, list) => i === 0 || t - list[i - 1] > BY_THE_END);
  const pieces: Cubic[] = [];
  let [rest, done] = [c, 0];
  for (const t of ts) {
    const [first, second] = splitCubic(rest, (t - done) / (1 - done));
    pieces.push(first);
    [rest, done] = [second, t];
  }
  return [...pieces, rest];
}

/** A closed run that starts at its node nearest to a place. */
function startingAt(run: Run, p: Point): Run {
  const k = run.nodes.reduce((best, n, i) => (distance(n.point, p) < distance(run.nodes[best].point, p) ? i : best), 0);
  return { ...run, nodes: [...run.nodes.slice(k), ...run.nodes.slice(0, k)] };
}
