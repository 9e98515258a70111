import { inkWithRadius } from '../assist/inkRadius';
import { assertRun, type CubicRun } from '../geometry/along';
import type { Box } from '../geometry/point';
import { assertGrayImage, type GrayImage } from '../raster/grayImage';
import { eachPiece } from '../raster/mask';
import { CoverCount } from './coverCount';
import { assertReach } from '../assist/tracked';

export type Coverage = {
  /** The share of the ink's pixels that have a line on them, 0…1; 1 where there is no ink. */
  covered: number;
  /** The ink that has none: black (0) on white (255). */
  untraced: GrayImage;
};

/**
 * How much of a picture's ink has a line on it. Ink within `reach` px of a line counts, and with it the stroke that it is
 * part of, as wide as that is there.
 * @throws RangeError for a bad run or picture, or a reach that is not above 0.
 */
export function coverage(runs: CubicRun[], image: GrayImage, options: { reach: number }): Coverage {
  assertGrayImage(image);
  assertReach(options);
  runs.forEach(assertRun);
  const count = new CoverCount(inkWithRadius(image), options.reach);
  runs.forEach((run, i) => count.set(String(i), [run]));
  return { covered: count.covered, untraced: count.untraced() };
}

/** A piece of ink that has no line: its box in px, and how many pixels it has. */
export type Patch = { readonly box: Box; readonly pixels: number };

/** The pieces of untraced ink of at least `least` pixels, the largest first: rims and specks are none. */
export function patchesOf({ width, height, data }: GrayImage, least: number): Patch[] {
  const patches: Patch[] = [];
  eachPiece(
    width,
    height,
    Uint8Array.from(data, (v) => (v === 0 ? 1 : 0)),
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
