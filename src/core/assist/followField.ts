import { distanceField } from '../raster/distanceField';
import { reducedTo } from '../raster/edges';
import type { GrayImage } from '../raster/grayImage';
import { fillHoles } from '../raster/mask';
import { inkOf, type Ink } from './inkMask';
import { MOST_COST, STEPS } from './minimalPath';

/** A picture made ready to be followed: what a step onto each pixel costs, and which way the ink runs there. */
export type FollowField = {
  readonly width: number;
  readonly height: number;
  /** How many px of the picture one of the field's stands for. */
  readonly by: number;
  /** The ink with its half-widths, for the middle of strokes. */
  readonly ink: Ink;
  readonly radius: Float32Array;
  /** 1 where there is something to follow. */
  readonly trail: Uint8Array;
  readonly base: Uint16Array;
  /** The direction of the trail in sixteenths of half a turn; `NO_WAY` where it has none. */
  readonly way: Uint8Array;
};

export const WAYS = 16;
export const NO_WAY = 255;
/** The longer side of what is searched, px. */
const LONGEST = 2000;

export const ON_TRAIL = 8;
const OFF_TRAIL = 400;
/** What is added at the rim of a stroke: the way keeps to its middle, and does not cut its curves short. */
const OFF_MIDDLE = 140;
/** From this share of the way from rim to middle on, a pixel is in the middle: thin strokes have no more of it. */
const MIDDLE = 0.8;
/** Steps across the way that a trail runs cost this many times more. */
const ACROSS = 5;
/** What the eight directions alone make of a way between them. */
const ASKEW = 0.1;

/** Makes a picture ready: once for each picture; the long work is here. */
export function followField(image: GrayImage): FollowField {
  const { image: small, by } = reducedTo(image, LONGEST);
  const { width, height } = small;
  const ink = withGaps(inkOf(small));
  const radius = distanceField(ink.mask, width, height);
  const base = new Uint16Array(width * height);
  const way = new Uint8Array(width * height).fill(NO_WAY);
  const middle = nearnessToMiddle(ink, radius);
  const faint = Math.max(1, 0.6 * ink.rim);
  for (let i = 0; i < base.length; i++) {
    if (ink.mask[i]) {
      const off = Math.max(0, MIDDLE - middle[i]);
      base[i] = ON_TRAIL + Math.round(OFF_MIDDLE * off * off);
    } else base[i] = OFF_TRAIL - Math.round(0.7 * OFF_TRAIL * Math.min(1, ink.dark[i] / faint));
  }
  alongInk(ink, radius, way);
  return { width, height, by, ink, radius, trail: ink.mask, base, way };
}

/**
 * How near each pixel of the ink is to the middle of its stroke: its distance from the rim, by that of the place it
 * comes to uphill. Uphill goes across the stroke, where the distance grows by nearly a pixel a pixel; along it, less.
 */
function nearnessToMiddle({ mask, width, height }: Ink, radius: Float32Array): Float32Array {
  const top = new Float32Array(radius.length);
  const ink: number[] = [];
  for (let i = 0; i < mask.length; i++) if (mask[i]) ink.push(i);
  ink.sort((p, q) => radius[q] - radius[p]);
  for (const i of ink) {
    const x = i % width;
    const y = (i - x) / width;
    let [best, uphill] = [-1, STEEP];
    for (const [dx, dy] of STEPS) {
      if (x + dx < 0 || y + dy < 0 || x + dx >= width || y + dy >= height) continue;
      const j = i + dy * width + dx;
      const grows = (radius[j] - radius[i]) / Math.hypot(dx, dy);
      if (grows > uphill) [best, uphill] = [j, grows];
    }
    top[i] = best < 0 ? radius[i] : top[best];
  }
  return top.map((m, i) => (m > 0 ? radius[i] / m : 0));
}

/** By how much a pixel the distance from the rim must grow to lead across a stroke, not along it. */
const STEEP = 0.6;

/** Ink paler than this share of what lies to both its sides is between strokes, not in one. */
const GAP = 0.62;
const NEARBY = 5;

/** Ink told apart where strokes lie so near each other that what is between them is darkened as well. */
function withGaps(ink: Ink): Ink {
  const { width, height, dark } = ink;
  const mask = ink.mask.slice();
  const darkest = (i: number, step: number): number => {
    let most = 0;
    for (let k = 1; k <= NEARBY; k++) most = Math.max(most, dark[i + k * step]);
    return most;
  };
  for (let y = NEARBY; y < height - NEARBY; y++) {
    for (let x = NEARBY; x < width - NEARBY; x++) {
      const i = y * width + x;
      if (!mask[i]) continue;
      const clear = dark[i] / GAP;
      const isBetween = (step: number): boolean => darkest(i, step) > clear && darkest(i, -step) > clear;
      if (isBetween(1) || isBetween(width) || isBetween(width + 1) || isBetween(width - 1)) mask[i] = 0;
    }
  }
  fillHoles(mask, width, height, 12);
  return { ...ink, mask };
}

/** The way ink runs, by the spread of the ink around each of its pixels; none where it spreads in all directions. */
function alongInk({ mask, width, height }: Ink, radius: Float32Array, way: Uint8Array): void {
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      if (!mask[i]) continue;
      const reach = Math.min(16, Math.ceil(1.5 * radius[i]) + 4);
      const step = reach > 8 ? 2 : 1;
      let [n, sx, sy, xx, xy, yy] = [0, 0, 0, 0, 0, 0];
      for (let dy = -reach; dy <= reach; dy += step) {
        const v = y + dy;
        if (v < 0 || v >= height) continue;
        for (let dx = -reach; dx <= reach; dx += step) {
          const u = x + dx;
          if (u < 0 || u >= width || dx * dx + dy * dy > reach * reach || !mask[v * width + u]) continue;
          n++;
          sx += dx;
          sy += dy;
          xx += dx * dx;
          xy += dx * dy;
          yy += dy * dy;
        }
      }
      if (n < 6) continue;
      const [a, b, c] = [xx / n - (sx / n) ** 2, xy / n - (sx * sy) / (n * n), yy / n - (sy / n) ** 2];
      const spread = Math.hypot(a - c, 2 * b);
      if (spread < 0.55 * (a + c)) continue;
      way[i] = wayOf(0.5 * Math.atan2(2 * b, a - c));
    }
  }
}

export const wayOf = (angle: number): number => ((Math.round((angle / Math.PI) * WAYS) % WAYS) + WAYS) % WAYS;

/** How much dearer a step in each of eight directions is for each way a trail may run; long steps by their length. */
const factors = Array.from({ length: WAYS + 1 }, (_, w) =>
  STEPS.map(([x, y]) => {
    const length = Math.hypot(x, y);
    if (w === WAYS) return length;
    const angle = (w * Math.PI) / WAYS;
    const along = Math.abs((x * Math.cos(angle) + y * Math.sin(angle)) / length);
    return length * (1 + ACROSS * Math.max(0, 1 - along - ASKEW));
  }),
);

/** What a step costs, for `MinimalPath`. */
export function stepCostOf({
  base,
  way,
}: Pick<FollowField, 'base' | 'way'>): (to: number, direction: number) => number {
  return (to, direction) => {
    const w = way[to];
    return Math.min(MOST_COST, Math.round(base[to] * factors[w === NO_WAY ? WAYS : w][direction]));
  };
}
