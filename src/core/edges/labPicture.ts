import type { Picture } from '../colour/picture';

/**
 * A picture in OKLab (Ottosson 2020): lightness and two opponent axes of each pixel, row by row, in `UNITS` a whole; a grey
 * picture has lightness alone.
 */
export type LabPicture = {
  readonly width: number;
  readonly height: number;
  readonly channels: 1 | 3;
  readonly values: Int16Array;
};

export const UNITS = 16384;

const ROOTS = 4096;
/** Cube roots of 0…1, looked up: there are millions to take. */
const roots = Float32Array.from({ length: ROOTS + 2 }, (_, i) => UNITS * Math.cbrt(i / ROOTS));
/** Below this roots are too steep to be looked up. */
const STEEP = 0.004;
/** Light of sRGB values (IEC 61966-2-1). */
const light = Float32Array.from({ length: 256 }, (_, v) =>
  v / 255 <= 0.04045 ? v / 255 / 12.92 : ((v / 255 + 0.055) / 1.055) ** 2.4,
);

function root(v: number): number {
  if (v < STEEP) return UNITS * Math.cbrt(v);
  const at = v * ROOTS;
  const k = at | 0;
  return roots[k] + (roots[k + 1] - roots[k]) * (at - k);
}

const known = new WeakMap<Picture, LabPicture>();

/** A picture's colours as they look; worked out once for each picture. */
export function labPictureOf(image: Picture): LabPicture {
  let made = known.get(image);
  if (!made) known.set(image, (made = 'channels' in image ? inColour(image) : inGrey(image)));
  return made;
}

function inGrey({ width, height, data }: Picture): LabPicture {
  const values = new Int16Array(width * height);
  const tones = Int16Array.from({ length: 256 }, (_, v) => Math.round(root(light[v])));
  for (let i = 0; i < values.length; i++) values[i] = tones[data[i]];
  return { width, height, channels: 1, values };
}

function inColour({ width, height, data }: Picture): LabPicture {
  const values = new Int16Array(3 * width * height);
  for (let i = 0; i < values.length; i += 3) {
    const r = light[data[i]];
    const g = light[data[i + 1]];
    const b = light[data[i + 2]];
    const l = root(0.4122214708 * r + 0.5363325363 * g + 0.0514459929 * b);
    const m = root(0.2119034982 * r + 0.6806995451 * g + 0.1073969566 * b);
    const s = root(0.0883024619 * r + 0.2817188376 * g + 0.6299787005 * b);
    values[i] = 0.2104542553 * l + 0.793617785 * m - 0.0040720468 * s;
    values[i + 1] = 1.9779984951 * l - 2.428592205 * m + 0.4505937099 * s;
    values[i + 2] = 0.0259040371 * l + 0.7827717662 * m - 0.808675766 * s;
  }
  return { width, height, channels: 3, values };
}

/** The longer side of what edges are looked for in as a whole, px. */
const LONGEST = 2000;

/** How many of a picture's px one of those stands for that edges are looked for in. */
export const fieldScale = ({ width, height }: Pick<Picture, 'width' | 'height'>): number =>
  Math.max(1, Math.round(Math.max(width, height) / LONGEST));

/** A picture made smaller, each of its pixels the mean of so many by so many. */
export function shrunkLab(picture: LabPicture, by: number): LabPicture {
  if (by <= 1) return picture;
  const { channels } = picture;
  const width = Math.max(1, Math.floor(picture.width / by));
  const height = Math.max(1, Math.floor(picture.height / by));
  const values = new Int16Array(width * height * channels);
  const from = picture.values;
  const row = picture.width * channels;
  const share = 1 / (by * by);
  for (let y = 0, to = 0; y < height; y++)
    for (let x = 0; x < width; x++)
      for (let c = 0; c < channels; c++, to++) {
        let sum = 0;
        for (let v = 0, first = y * by * row + x * by * channels + c; v < by; v++, first += row)
          for (let u = 0, at = first; u < by; u++, at += channels) sum += from[at];
        values[to] = Math.round(sum * share);
      }
  return { width, height, channels, values };
}
