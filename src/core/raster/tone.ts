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

/** Values on both sides of a level go over into each other within so many, so that the border is not jagged. */
const SOFT = 10;

/** The picture in two colours: one for what is darker than a level, one for the rest. */
export function twoToned(image: RgbaImage, c: { dark: string; light: string; level: number }): RgbaImage {
  const [dark, light] = [c.dark, c.light].map((hex) => [1, 3, 5].map((k) => parseInt(hex.slice(k, k + 2), 16)));
  return fromLuma(image, (v, to, i) => {
    const share = Math.min(1, Math.max(0, (v - c.level) / SOFT + 0.5));
    for (let k = 0; k < 3; k++) to[i + k] = dark[k] + (light[k] - dark[k]) * share;
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

/** Tones that differ by less are one, and what is lighter than the middle of all is no ink by itself; 0 to 255. */
const [FLAT, MIDDLE] = [16, 128];

/** A tone that a place in a picture means, 0 to 255. */
export type Picked = { readonly which: 'ink' | 'paper'; readonly tone: number };

/**
 * What is meant by a place in a picture, from the pixels about it. Where there is but one tone it is ink if dark, paper
 * if light; else what is `asked` for: of ink the darker quarter of the pixels, of paper the lighter one, so that a press
 * beside the middle of a thin stroke still means its ink.
 */
export function pickedTone({ data }: RgbaImage, asked: 'ink' | 'paper'): Picked {
  const tones = Array.from({ length: data.length / 4 }, (_, i) => luma(data[4 * i], data[4 * i + 1], data[4 * i + 2]));
  tones.sort((a, b) => a - b);
  const quarter = Math.max(1, Math.round(tones.length / 4));
  const mean = (list: readonly number[]): number => Math.round(list.reduce((sum, t) => sum + t, 0) / list.length);
  const [dark, light] = [mean(tones.slice(0, quarter)), mean(tones.slice(-quarter))];
  const which = light - dark >= FLAT ? asked : light < MIDDLE ? 'ink' : 'paper';
  return { which, tone: which === 'ink' ? dark : light };
}

/** Levels with their ink or their paper at a tone; the other gives way where the two would change places. */
export function levelsAt<L extends { black: number; white: number }>(
  levels: L,
  which: 'ink' | 'paper',
  tone: number,
): L {
  if (which === 'ink') {
    const black = Math.min(254, tone);
    return { ...levels, black, white: Math.max(levels.white, black + 1) };
  }
  const white = Math.max(1, tone);
  return { ...levels, white, black: Math.min(levels.black, white - 1) };
}
