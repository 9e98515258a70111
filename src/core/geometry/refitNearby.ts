import { powersOf, stepToFoot } from './fit/freeCubic';
import { evaluate, polygonLength, type Cubic } from './cubic';
import { nearestOnCubic } from './nearest';
import { add, distance, dot, scale, subtract, unit, type Point } from './point';

/** Rounds of least squares before the steps along the normals begin: a far guess would lead those astray. */
const WARM_ROUNDS = 3;
const ROUNDS = 7;
const SAMPLES = 16;
/** A round that leaves more of the error than this share is the last. */
const HELPS = 0.98;

/**
 * As `refitAsOne`, but only from where the joints of the chain say it should lie: right for what was one cubic before,
 * or nearly, and many times quicker. The lengths are found by least squares, the parameters of the samples by Newton's
 * steps towards their feet, in turns (Schneider 1990, "An algorithm for automatically fitting digitized curves"), then
 * by Gauss and Newton's steps on the distances along the normals, which arrive far sooner (Wang, Pottmann and Liu 2006,
 * "Fitting B-spline curves to point clouds by curvature-based squared distance minimization": tangent distance).
 */
export const refitNearby = (...chain: readonly Cubic[]): Cubic =>
  nearby(chain, settingOf(chain, SAMPLES), ROUNDS, WARM_ROUNDS);

/** As `refitNearby`, of one cubic that is to leave its start, or its end, in another direction (both lead inwards). */
export const refitTowards = (c: Cubic, directions: { towards?: Point; back?: Point }): Cubic =>
  nearby([c], { ...settingOf([c], 24), ...directions }, 10, WARM_ROUNDS);

/** What is so much nearer than it need be is near enough without a closer look, as a share of the limit. */
const CLEARLY = 0.8;
/** A fit whose places lie off by so many times the limit in the mean is never within it in the end. */
const HOPELESS = 3;

/** Whether two cubics, one after the other, can be one within `limit` of both all along, as far as `refitNearby` can tell. */
export function mergesWithin(first: Cubic, second: Cubic, limit: number): boolean {
  const setting = settingOf([first, second], SAMPLES);
  if (!setting.towards || !setting.back) return false;
  const { points } = setting;
  const hopeless = points.length * (HOPELESS * limit) ** 2;
  return jointsOf([first, second], setting).some((joint) => {
    const { cubic, ts } = fitFrom(joint, setting as Whole, ROUNDS, WARM_ROUNDS, hopeless);
    const offs = points.map((p, i) => distance(p, evaluate(cubic, ts[i])));
    const off = Math.max(...offs);
    if (off <= CLEARLY * limit) return true;
    const isNear = (p: Point): boolean => nearestOnCubic(cubic, p).distance <= limit;
    // The place that seems to lie furthest off tells most.
    return (
      off <= 2 * limit && isNear(points[offs.indexOf(off)]) && points.every((p, i) => offs[i] <= limit || isNear(p))
    );
  });
}

/** What is to be fitted: its ends, the directions there, and samples all along it. */
export type Setting = {
  start: Point;
  end: Point;
  towards: Point | null;
  back: Point | null;
  points: Point[];
  each: number;
  lengths: number[];
};
export type Whole = Setting & { towards: Point; back: Point };

export function settingOf(chain: readonly Cubic[], samples: number): Setting {
  const each = Math.max(6, Math.ceil(samples / chain.length));
  const points: Point[] = [];
  chain.forEach((c, k) => {
    for (let i = 0; i < each; i++) points.push(evaluate(c, (i + (k > 0 ? 1 : 0)) / each));
  });
  return {
    start: chain[0][0],
    end: chain.at(-1)![3],
    towards: chain.reduce<Point | null>((direction, c) => direction ?? directionAt(c, 'start'), null),
    back: chain.reduceRight<Point | null>((direction, c) => direction ?? directionAt(c, 'end'), null),
    points,
    each,
    lengths: chain.map(polygonLength),
  };
}

/** The cubic nearest to a chain that is found from where its joints should lie. */
export function nearby(chain: readonly Cubic[], setting: Setting, rounds: number, warm: number): Cubic {
  const { start, end, towards, back } = setting;
  if (!towards || !back) return [start, start, end, end];
  const fits = jointsOf(chain, setting).map((joint) => fitFrom(joint, setting as Whole, rounds, warm));
  return fits.reduce((a, b) => (b.error < a.error ? b : a)).cubic;
}

/** Where the joints may lie: by the lengths, and for two cubics by the handles beside it (exact for halves of one). */
function jointsOf([first, last]: readonly Cubic[], { lengths }: Setting): number[][] {
  const joints = [sharesOf(lengths)];
  if (lengths.length === 2) {
    const [p, q] = [distance(first[2], first[3]), distance(last[0], last[1])];
    if (p > 0 && q > 0) joints.unshift([0, p / (p + q), 1]);
  }
  return joints;
}

/** `ts` are the parameters of the points; they hold until the next fit. */
type Fit = { cubic: Cubic; error: number; ts: Float64Array };

const scratch = { n: 0, ts: new Float64Array(0), best: new Float64Array(0) };

/** Room for the parameters of so many points. */
function roomFor(n: number): typeof scratch {
  if (scratch.n !== n) Object.assign(scratch, { n, ts: new Float64Array(n), best: new Float64Array(n) });
  return scratch;
}

/** The best fit from the parameters that a joint gives. One that is still `hopeless` after the warm rounds goes no further. */
function fitFrom(joint: number[], setting: Whole, rounds: number, warm: number, hopeless = Infinity): Fit {
  const { start, end, towards, back, points, each } = setting;
  const { ts, best: bestTs } = roomFor(points.length);
  for (let i = 0; i < ts.length; i++) {
    const k = Math.floor(i / each);
    ts[i] = joint[k] + (((i % each) + (k > 0 ? 1 : 0)) / each) * (joint[k + 1] - joint[k]);
  }
  let best: Cubic | null = null;
  let least = Infinity;
  for (let round = 0; round < rounds; round++) {
    const handles: Pair =
      best && round >= warm
        ? stepAlongNormals(best, points, bestTs, towards, back)
        : handleLengths(points, ts, start, end, towards, back);
    const cubic = withHandles(start, end, towards, back, handles);
    const error = towardsFeet(cubic, points, ts);
    const helps = error < least * HELPS;
    if (!best || error < least) {
      best = cubic;
      least = error;
      bestTs.set(ts);
    }
    if (round >= warm && (least > hopeless || (!helps && round > warm))) break;
  }
  return { cubic: best!, error: least, ts: bestTs };
}

/** Moves the parameters of points one of Newton's steps nearer to their feet; the squares of their distances there. */
function towardsFeet(c: Cubic, points: readonly Point[], ts: Float64Array): number {
  const p = powersOf(controlsOf(c), powers);
  let error = 0;
  for (let i = 0; i < ts.length; i++) {
    const { x, y } = points[i];
    const t = stepToFoot(p, x, y, ts[i], 0, 1);
    const dx = ((p[0] * t + p[1]) * t + p[2]) * t + p[3] - x;
    const dy = ((p[4] * t + p[5]) * t + p[6]) * t + p[7] - y;
    ts[i] = t;
    error += dx * dx + dy * dy;
  }
  return error;
}

const controls = new Float64Array(8);
export function controlsOf(c: Cubic): Float64Array {
  for (let k = 0; k < 4; k++) {
    controls[2 * k] = c[k].x;
    controls[2 * k + 1] = c[k].y;
  }
  return controls;
}

const powers = new Float64Array(8);

export type Pair = [number, number];

/** Where pieces begin and end, as shares of their whole length. */
function sharesOf(lengths: readonly number[]): number[] {
  const total = lengths.reduce((a, b) => a + b, 0) || 1;
  let sum = 0;
  return [0, ...lengths.map((l) => (sum += l) / total)];
}

/** The cubic between two places with handles of given lengths in given directions. */
export const withHandles = (start: Point, end: Point, towards: Point, back: Point, [a, b]: [number, number]): Cubic => [
  start,
  add(start, scale(towards, a)),
  add(end, scale(back, b)),
  end,
];

/** The two handle lengths that bring the curve nearest to `points` at `ts`; never negative. */
function handleLengths(
  points: readonly Point[],
  ts: Float64Array,
  start: Point,
  end: Point,
  towards: Point,
  back: Point,
): Pair {
  let aa = 0;
  let ab = 0;
  let bb = 0;
  let ax = 0;
  let bx = 0;
  for (let i = 0; i < ts.length; i++) {
    const t = ts[i];
    const s = 1 - t;
    const w1 = 3 * s * s * t;
    const w2 = 3 * s * t * t;
    const from = s * s * s + w1;
    const to = w2 + t * t * t;
    const gx = points[i].x - start.x * from - end.x * to;
    const gy = points[i].y - start.y * from - end.y * to;
    aa += w1 * w1;
    ab += w1 * w2;
    bb += w2 * w2;
    ax += w1 * (towards.x * gx + towards.y * gy);
    bx += w2 * (back.x * gx + back.y * gy);
  }
  ab *= dot(towards, back);
  const determinant = aa * bb - ab * ab;
  const third = distance(start, end) / 3;
  if (Math.abs(determinant) < 1e-12 * aa * bb) return [third, third];
  const [a, b] = [(ax * bb - bx * ab) / determinant, (bx * aa - ax * ab) / determinant];
  if (a < 0) return [0, Math.max(0, bx / bb)];
  if (b < 0) return [Math.max(0, ax / aa), 0];
  return [a, b];
}

/** Handle lengths one step better: only the gaps at right angles to the curve count. */
function stepAlongNormals(c: Cubic, points: readonly Point[], ts: Float64Array, towards: Point, back: Point): Pair {
  const p = powersOf(controlsOf(c), powers);
  // Each by itself, here and below: a list of them would be made for each round of each of very many fits.
  let aa = 1e-9;
  let ab = 0;
  let bb = 1e-9;
  let ax = 0;
  let bx = 0;
  for (let i = 0; i < ts.length; i++) {
    const t = ts[i];
    const dx = (3 * p[0] * t + 2 * p[1]) * t + p[2];
    const dy = (3 * p[4] * t + 2 * p[5]) * t + p[6];
    const speed = Math.sqrt(dx * dx + dy * dy);
    if (speed === 0) continue;
    const nx = -dy / speed;
    const ny = dx / speed;
    const gx = points[i].x - (((p[0] * t + p[1]) * t + p[2]) * t + p[3]);
    const gy = points[i].y - (((p[4] * t + p[5]) * t + p[6]) * t + p[7]);
    const gap = nx * gx + ny * gy;
    const da = 3 * (1 - t) * (1 - t) * t * (nx * towards.x + ny * towards.y);
    const db = 3 * (1 - t) * t * t * (nx * back.x + ny * back.y);
    aa += da * da;
    ab += da * db;
    bb += db * db;
    ax += da * gap;
    bx += db * gap;
  }
  const determinant = aa * bb - ab * ab;
  const [a, b] = [dot(subtract(c[1], c[0]), towards), dot(subtract(c[2], c[3]), back)];
  if (!(determinant > 1e-12 * aa * bb)) return [a, b];
  return [Math.max(0, a + (ax * bb - bx * ab) / determinant), Math.max(0, b + (bx * aa - ax * ab) / determinant)];
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
