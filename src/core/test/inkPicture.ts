import type { Cubic, GrayImage } from '..';
import { grayImage } from '../raster/grayImage';
import { walk } from './strokes';

/** A stroke to be drawn, px: of even width, or of one that changes with the share of its length. */
export type Inked = { cubics: readonly Cubic[]; width: number | ((at: number) => number) };

const FINE = 4;

/** Strokes with round ends in dark ink on light paper, smoothed at their rims as a scanner would. */
export function inkPicture(width: number, height: number, strokes: readonly Inked[]): GrayImage {
  const fine = new Uint8Array(width * FINE * height * FINE);
  for (const { cubics, width: w } of strokes) {
    const places = walk(cubics, 0.3);
    places.forEach(({ x, y }, i) => {
      const r = ((typeof w === 'number' ? w : w(i / (places.length - 1))) / 2) * FINE;
      disc(fine, width * FINE, height * FINE, x * FINE, y * FINE, r);
    });
  }
  const image = grayImage(width, height);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      let sum = 0;
      for (let v = 0; v < FINE; v++)
        for (let u = 0; u < FINE; u++) sum += fine[(y * FINE + v) * width * FINE + x * FINE + u];
      image.data[y * width + x] = Math.round(248 - (225 * sum) / (FINE * FINE));
    }
  }
  return image;
}

function disc(mask: Uint8Array, width: number, height: number, x: number, y: number, r: number): void {
  for (let v = Math.max(0, Math.floor(y - r)); v <= Math.min(height - 1, y + r); v++) {
    for (let u = Math.max(0, Math.floor(x - r)); u <= Math.min(width - 1, x + r); u++)
      if ((u + 0.5 - x) ** 2 + (v + 0.5 - y) ** 2 <= r * r) mask[v * width + u] = 1;
  }
}
