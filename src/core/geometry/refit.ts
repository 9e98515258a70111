import { powersOf, stepToFoot } from './fit/freeCubic';
import type { Cubic } from './cubic';
import { nearestOnCubic } from './nearest';
import { dot, subtract, type Point } from './point';
import { controlsOf, nearby, settingOf, withHandles, type Pair, type Whole } from './refitNearby';

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
  const near = nearby(chain, setting, ROUNDS, WARM_ROUNDS);
  if (!setting.towards || !setting.back) return near;
  const size = setting.lengths.reduce((a, b) => a + b, 0);
  const exact = (c: Cubic): number =>
    setting.points.reduce((sum, p) => sum + nearestOnCubic(c, p).distance ** 2, 0) / setting.points.length;
  const error = exact(near);
  if (error < (EXACT * size) ** 2) return near;
  const found = searched(setting as Whole, near, size);
  return exact(found) < error ? found : near;
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
  const p = powersOf(controlsOf(c), powers);
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
