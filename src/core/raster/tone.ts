import { greyOf, luma, rgbaImage, type RgbaImage } from './rgba';
import { threshold } from './threshold';

/** Each of 256 values replaced by what `f` makes of it, in all three colours. */
export function mapValues(image: RgbaImage, f: (v: number) => number): RgbaImage {
  const table = Uint8ClampedArray.from({ length: 256 }, (_, v) => Math.round(f(v)));
  const result = rgbaImage(image.width, image.height);
  const [from, to] = [image.data, result.data];
  for (let i = 0; i < from.length; i += 4) {
    to[i] = table[from[i]];
    to[i + 1] = table[from[i + 1]];
    to[i + 2] = table[from[i + 2]];
    to[i + 3] = from[i + 3];
  }
  return result;
}

/** What levels make of a value: black and below 0, white and above 255, a power of the share between. */
export function levelled(v: number, black: number, white: number, middle: number): number {
  const share = Math.min(1, Math.max(0, (v - black) / Math.max(1, white - black)));
  return 255 * share ** middle;
}

export function greyed(image: RgbaImage): RgbaImage {
  return fromLuma(image, (v, to, i) => {
    to[i] = to[i + 1] = to[i + 2] = v;
  });
}

/** Dark becomes the colour, light stays white: as if the drawing had been made with a pencil of that colour. */
export function tinted(image: RgbaImage, colour: string): RgbaImage {
  const [r, g, b] = [1, 3, 5].map((k) => parseInt(colour.slice(k, k + 2), 16));
  return fromLuma(image, (v, to, i) => {
    const share = v / 255;
    to[i] = r + (255 - r) * share;
    to[i + 1] = g + (255 - g) * share;
    to[i + 2] = b + (255 - b) * share;
  });
}

function fromLuma(image: RgbaImage, set: (v: number, to: Uint8ClampedArray, i: number) => void): RgbaImage {
  const result = rgbaImage(image.width, image.height);
  const [from, to] = [image.data, result.data];
  for (let i = 0; i < from.length; i += 4) {
    set(luma(from[i], from[i + 1], from[i + 2]), to, i);
    to[i + 3] = from[i + 3];
  }
  return result;
}

export function thresholded(
  image: RgbaImage,
  { method, level, window }: { method: 'global' | 'adaptive'; level: number; window: number },
): RgbaImage {
  const side = Math.max(3, window * Math.max(image.width, image.height));
  const mask = threshold(greyOf(image), {
    method,
    level: method === 'adaptive' ? Math.min(255, level) : level,
    window: side,
  });
  const result = rgbaImage(image.width, image.height);
  for (let i = 0, j = 0; j < mask.data.length; i += 4, j++) {
    result.data[i] = result.data[i + 1] = result.data[i + 2] = mask.data[j];
    result.data[i + 3] = image.data[i + 3];
  }
  return result;
}

/** How many pixels have each luma, 0…255; what is wholly see-through does not count. */
export function toneHistogram({ data }: RgbaImage): number[] {
  const counts = new Array<number>(256).fill(0);
  for (let i = 0; i < data.length; i += 4)
    if (data[i + 3] > 0) counts[Math.round(luma(data[i], data[i + 1], data[i + 2]))]++;
  return counts;
}
