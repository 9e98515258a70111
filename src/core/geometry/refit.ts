import { powersOf, stepToFoot } from './fit/freeCubic';
import { derivative, evaluate, polygonLength, secondDerivative, type Cubic } from './cubic';
import { nearestOnCubic } from './nearest';
import { add, distance, dot, scale, subtract, unit, type Point } from './point';

const SAMPLES = 24;
const ROUNDS = 40;
const WARM_ROUNDS = 6;

/**
 * One cubic in place of several that follow each other, as near to them as its two handle lengths allow, in the mean
 * square; the directions at the far ends are kept. First from where it should lie (`refitNearby`); where that is not
 * all but exact, from the best of a grid of lengths as well, and then by a pattern search (Hooke and Jeeves 1961): the
 * distances have several valleys. Straight neighbours give a straight cubic.
 */
export function refitAsOne(...chain: readonly Cubic[]): Cubic {
  const setting = settingOf(chain, 2 * SAMPLES);
  const near = nearby(chain, setting, ROUNDS);
  if (!setting.towards || !setting.back) return near;
  const size = setting.lengths.reduce((a, b) => a + b, 0);
  const exact = (c: Cubic): number =>
    setting.points.reduce((sum, p) => sum + nearestOnCubic(c, p).distance ** 2, 0) / setting.points.length;
  const error = exact(near);
  if (error < (EXACT * size) ** 2) return near;
  const found = searched(setting as Whole, near, size);
  return exact(found) < error ? found : near;
}

/**
 * As `refitAsOne`, but only from where the joints of the chain say it should lie: right for what was one cubic before,
 * or nearly, and many times quicker. The lengths are found by least squares, the parameters of the samples by Newton's
 * steps towards their feet, in turns (Schneider 1990, "An algorithm for automatically fitting digitized curves"), then
 * by Gauss and Newton's steps on the distances along the normals, which arrive far sooner (Wang, Pottmann and Liu 2006,
 * "Fitting B-spline curves to point clouds by curvature-based squared distance minimization": tangent distance).
 */
export const refitNearby = (...chain: readonly Cubic[]): Cubic => nearby(chain, settingOf(chain, SAMPLES), 10);

/** What is to be fitted: its ends, the directions there, and samples all along it. */
type Setting = {
  start: Point;
  end: Point;
  towards: Point | null;
  back: Point | null;
  points: Point[];
  each: number;
  lengths: number[];
};
type Whole = Setting & { towards: Point; back: Point };

function settingOf(chain: readonly Cubic[], samples: number): Setting {
  const each = Math.max(6, Math.ceil(samples / chain.length));
  return {
    start: chain[0][0],
    end: chain.at(-1)![3],
    towards: chain.reduce<Point | null>((direction, c) => direction ?? directionAt(c, 'start'), null),
    back: chain.reduceRight<Point | null>((direction, c) => direction ?? directionAt(c, 'end'), null),
    points: chain.flatMap((c, k) => Array.from({ length: each }, (_, i) => evaluate(c, (i + (k > 0 ? 1 : 0)) / each))),
    each,
    lengths: chain.map(polygonLength),
  };
}

function nearby(
  chain: readonly Cubic[],
  { start, end, towards, back, points, each, lengths }: Setting,
  rounds: number,
): Cubic {
  if (!towards || !back) return [start, start, end, end];
  const [first, last] = [chain[0], chain.at(-1)!];
  const joints = [sharesOf(lengths)];
  if (chain.length === 2) {
    // Where the joint lies: by the handles on either side of it as well (exact for the halves of one cubic).
    const [p, q] = [distance(first[2], first[3]), distance(last[0], last[1])];
    if (p > 0 && q > 0) joints.unshift([0, p / (p + q), 1]);
  }
  const fits = joints.map((joint) => {
    let ts = points.map((_, i) => {
      const k = Math.floor(i / each);
      return joint[k] + (((i % each) + (k > 0 ? 1 : 0)) / each) * (joint[k + 1] - joint[k]);
    });
    let best: Fit | null = null;
    for (let round = 0; round < rounds; round++) {
      const handles: [number, number] =
        best && round >= WARM_ROUNDS
          ? stepAlongNormals(best.cubic, points, best.ts, towards, back)
          : handleLengths(points, ts, start, end, towards, back);
      const cubic = withHandles(start, end, towards, back, handles);
      ts = ts.map((t, i) => foot(cubic, points[i], t));
      const error = points.reduce((sum, x, i) => sum + distance(x, evaluate(cubic, ts[i])) ** 2, 0);
      if (!best || error < best.error) best = { cubic, error, ts };
      else if (round > WARM_ROUNDS) break;
    }
    return best!;
  });
  return fits.reduce((a, b) => (b.error < a.error ? b : a)).cubic;
}

const GRID = 9;
/** The longest handle that is tried, in lengths of the chain. */
const LONGEST = 1.6;
/** A fit this near, in lengths of the chain, need not be searched for. */
const EXACT = 2e-4;

/** The best pair of lengths from the valleys of a grid and from what is known, by a pattern search in each. */
function searched({ start, end, towards, back, points }: Whole, near: Cubic, size: number): Cubic {
  const cubicOf = ([a, b]: Pair): Cubic => withHandles(start, end, towards, back, [a, b]);
  const error = (pair: Pair): number => meanSquare(cubicOf(pair), points);
  const known: Pair = [dot(subtract(near[1], near[0]), towards), dot(subtract(near[2], near[3]), back)];
  const begun = { pair: known, error: error(known) };
  const step = (LONGEST * size) / (GRID - 1);
  const grid = Array.from({ length: GRID * GRID }, (_, i): { pair: Pair; error: number } => {
    const pair: Pair = [(i % GRID) * step, Math.floor(i / GRID) * step];
    return { pair, error: error(pair) };
  });
  const isValley = (i: number): boolean =>
    NEIGHBOURS.every(([dx, dy]) => {
      const [x, y] = [(i % GRID) + dx, Math.floor(i / GRID) + dy];
      return x < 0 || y < 0 || x >= GRID || y >= GRID || grid[y * GRID + x].error >= grid[i].error;
    });
  const valleys = grid.filter((_, i) => isValley(i)).sort((a, b) => a.error - b.error);
  const least = size * 1e-3;
  const bests = [downhill(begun, step / 16, least, error)];
  for (const from of valleys.slice(0, 2)) bests.push(downhill(from, step / 2, least, error));
  const best = bests.reduce((a, b) => (b.error < a.error ? b : a));
  return cubicOf(downhill(best, least / 2, least / 10, error).pair);
}

type Pair = [number, number];
const NEIGHBOURS: readonly Pair[] = [
  [1, 0],
  [-1, 0],
  [0, 1],
  [0, -1],
  [1, 1],
  [-1, -1],
  [1, -1],
  [-1, 1],
];

function downhill(from: { pair: Pair; error: number }, step: number, least: number, error: (pair: Pair) => number) {
  let best = from;
  for (let s = step; s > least; s /= 2) {
    for (let moved = true; moved;) {
      moved = false;
      for (const [dx, dy] of NEIGHBOURS) {
        const pair: Pair = [Math.max(0, best.pair[0] + dx * s), Math.max(0, best.pair[1] + dy * s)];
        const e = error(pair);
        if (e < best.error * (1 - 1e-6)) [best, moved] = [{ pair, error: e }, true];
      }
    }
  }
  return best;
}

const STRIDE = 32;
const strideX = new Float64Array(STRIDE + 1);
const strideY = new Float64Array(STRIDE + 1);

/** The mean of the squared distances of points from a cubic: the nearest of its strides, then two steps to the foot. */
function meanSquare(c: Cubic, points: readonly Point[]): number {
  const p = powersOf(Float64Array.of(c[0].x, c[0].y, c[1].x, c[1].y, c[2].x, c[2].y, c[3].x, c[3].y), powers);
  for (let i = 0; i <= STRIDE; i++) {
    const t = i / STRIDE;
    strideX[i] = ((p[0] * t + p[1]) * t + p[2]) * t + p[3];
    strideY[i] = ((p[4] * t + p[5]) * t + p[6]) * t + p[7];
  }
  let sum = 0;
  for (const { x, y } of points) {
    let [least, at] = [Infinity, 0];
    for (let i = 0; i <= STRIDE; i++) {
      const dx = strideX[i] - x;
      const dy = strideY[i] - y;
      const d = dx * dx + dy * dy;
      if (d < least) {
        least = d;
        at = i;
      }
    }
    const near = stepToFoot(p, x, y, at / STRIDE, 0, 1);
    const t = stepToFoot(p, x, y, near, 0, 1);
    const qx = ((p[0] * t + p[1]) * t + p[2]) * t + p[3] - x;
    const qy = ((p[4] * t + p[5]) * t + p[6]) * t + p[7] - y;
    sum += Math.min(least, qx * qx + qy * qy);
  }
  return sum / points.length;
}

const powers = new Float64Array(8);

/** Where pieces begin and end, as shares of their whole length. */
function sharesOf(lengths: readonly number[]): number[] {
  const total = lengths.reduce((a, b) => a + b, 0) || 1;
  let sum = 0;
  return [0, ...lengths.map((l) => (sum += l) / total)];
}

type Fit = { cubic: Cubic; error: number; ts: number[] };

const withHandles = (start: Point, end: Point, towards: Point, back: Point, [a, b]: [number, number]): Cubic => [
  start,
  add(start, scale(towards, a)),
  add(end, scale(back, b)),
  end,
];

/** The two handle lengths that bring the curve nearest to `points` at `ts`; never negative. */
function handleLengths(
  points: Point[],
  ts: number[],
  start: Point,
  end: Point,
  towards: Point,
  back: Point,
): [number, number] {
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

/** Handle lengths one step better: only the gaps at right angles to the curve count. */
function stepAlongNormals(c: Cubic, points: Point[], ts: number[], towards: Point, back: Point): [number, number] {
  let [aa, ab, bb, ax, bx] = [1e-9, 0, 1e-9, 0, 0];
  points.forEach((p, i) => {
    const t = ts[i];
    const along = unit(derivative(c, t));
    if (!along) return;
    const normal = { x: -along.y, y: along.x };
    const gap = dot(normal, subtract(p, evaluate(c, t)));
    const da = 3 * (1 - t) * (1 - t) * t * dot(normal, towards);
    const db = 3 * (1 - t) * t * t * dot(normal, back);
    aa += da * da;
    ab += da * db;
    bb += db * db;
    ax += da * gap;
    bx += db * gap;
  });
  const determinant = aa * bb - ab * ab;
  const [a, b] = [dot(subtract(c[1], c[0]), towards), dot(subtract(c[2], c[3]), back)];
  if (!(determinant > 1e-12 * aa * bb)) return [a, b];
  return [Math.max(0, a + (ax * bb - bx * ab) / determinant), Math.max(0, b + (bx * aa - ax * ab) / determinant)];
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
