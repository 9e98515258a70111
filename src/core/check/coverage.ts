import { inkOf, type Ink } from '../assist/inkMask';
import { assertRun, placesAlong, type CubicRun } from '../geometry/along';
import type { Box } from '../geometry/point';
import { distanceField } from '../raster/distanceField';
import { assertGrayImage, grayImage, type GrayImage } from '../raster/grayImage';
import { eachPiece } from '../raster/mask';
import { assertReach } from './distance';

export type Coverage = {
  /** The share of the ink's pixels that have a line on them, 0…1; 1 where there is no ink. */
  covered: number;
  /** The ink that has none: black (0) on white (255). */
  untraced: GrayImage;
};

const inks = new WeakMap<GrayImage, { ink: Ink; radius: Float32Array }>();

/** The ink of a picture and how far each of its pixels is from the paper, told once for each picture. */
export function inkWithRadius(image: GrayImage): { ink: Ink; radius: Float32Array } {
  let known = inks.get(image);
  if (!known) {
    const ink = inkOf(image);
    inks.set(image, (known = { ink, radius: distanceField(ink.mask, image.width, image.height) }));
  }
  return known;
}

/**
 * How much of a picture's ink has a line on it. Ink within `reach` px of a line counts, and with it the stroke that it is
 * part of, as wide as that is there.
 * @throws RangeError for a bad run or picture, or a reach that is not above 0.
 */
export function coverage(runs: CubicRun[], image: GrayImage, options: { reach: number }): Coverage {
  assertGrayImage(image);
  assertReach(options);
  runs.forEach(assertRun);
  const { ink, radius } = inkWithRadius(image);
  const { mask, width, height } = ink;
  const near = new Uint8Array(mask.length);
  for (const run of runs) markNear(near, width, height, run, options.reach);
  const traced = near.map((v, i) => (v && mask[i] ? 1 : 0));
  for (let i = 0; i < traced.length; i++) {
    // A disc as large as the ink around its middle is all ink: of one stroke.
    if (near[i] && mask[i] && radius[i] > 1.5)
      markDisc(traced, width, height, (i % width) + 0.5, ((i / width) | 0) + 0.5, radius[i]);
  }
  const untraced = grayImage(width, height);
  let [all, covered] = [0, 0];
  for (let i = 0; i < mask.length; i++) {
    const isOpen = mask[i] && !traced[i];
    untraced.data[i] = isOpen ? 0 : 255;
    all += mask[i];
    if (mask[i] && traced[i]) covered++;
  }
  return { covered: all === 0 ? 1 : covered / all, untraced };
}

function markNear(near: Uint8Array, width: number, height: number, run: CubicRun, reach: number): void {
  const { n, x, y } = placesAlong(run, Math.min(1, reach / 2));
  for (let i = 0; i < n; i++) markDisc(near, width, height, x[i], y[i], reach);
}

/** Marks the pixels whose centres lie within a disc. */
function markDisc(mask: Uint8Array, width: number, height: number, x: number, y: number, r: number): void {
  const top = Math.max(0, Math.ceil(y - r - 0.5));
  const bottom = Math.min(height - 1, Math.floor(y + r - 0.5));
  for (let v = top; v <= bottom; v++) {
    const dy = v + 0.5 - y;
    const half = Math.sqrt(Math.max(0, r * r - dy * dy));
    const left = Math.max(0, Math.ceil(x - half - 0.5));
    const right = Math.min(width - 1, Math.floor(x + half - 0.5));
    if (left <= right) mask.fill(1, v * width + left, v * width + right + 1);
  }
}

/** A piece of ink that has no line: its box in px, and how many pixels it has. */
export type Patch = { readonly box: Box; readonly pixels: number };

/** The pieces of untraced ink of at least `least` pixels, the largest first: rims and specks are none. */
export function patchesOf({ width, height, data }: GrayImage, least: number): Patch[] {
  const patches: Patch[] = [];
  eachPiece(
    width,
    height,
    (i) => data[i] === 0,
    8,
    (pixels) => {
      if (pixels.length < least) return;
      const box = { minX: width, minY: height, maxX: 0, maxY: 0 };
      for (const i of pixels) {
        const [x, y] = [i % width, Math.floor(i / width)];
        box.minX = Math.min(box.minX, x);
        box.minY = Math.min(box.minY, y);
        box.maxX = Math.max(box.maxX, x + 1);
        box.maxY = Math.max(box.maxY, y + 1);
      }
      patches.push({ box, pixels: pixels.length });
    },
  );
  return patches.sort((a, b) => b.pixels - a.pixels);
}

/** The share of the ink within a box (px) that has a line; null where there is no ink. */
export function coverageWithin(image: GrayImage, untraced: GrayImage, box: Box): number | null {
  const { mask, width, height } = inkWithRadius(image).ink;
  let [all, open] = [0, 0];
  for (let y = Math.max(0, Math.floor(box.minY)); y < Math.min(height, Math.ceil(box.maxY)); y++) {
    for (let x = Math.max(0, Math.floor(box.minX)); x < Math.min(width, Math.ceil(box.maxX)); x++) {
      const i = y * width + x;
      all += mask[i];
      if (untraced.data[i] === 0) open++;
    }
  }
  return all === 0 ? null : 1 - open / all;
}
