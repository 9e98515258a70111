import { labOf } from './oklab';
import { assertColourImage, type ColourImage } from '../raster/colourImage';
import { assertGrayImage, type GrayImage } from '../raster/grayImage';
import { luma } from '../raster/rgba';

/** A picture in grey or in colour. */
export type Picture = GrayImage | ColourImage;

const isColour = (image: Picture): image is ColourImage => 'channels' in image;

/** @throws RangeError for a picture that is none. */
export function assertPicture(image: Picture): void {
  if (image && isColour(image)) assertColourImage(image);
  else assertGrayImage(image);
}

/** A picture in grey, for its ink. */
export function inGrey(image: Picture): GrayImage {
  if (!isColour(image)) return image;
  const { width, height, data } = image;
  return {
    width,
    height,
    data: Uint8Array.from({ length: width * height }, (_, i) =>
      Math.round(luma(data[3 * i], data[3 * i + 1], data[3 * i + 2])),
    ),
  };
}

/** Colours are looked at in so many pixels at most to find along what they differ. */
const SAMPLES = 40_000;
/** The greys that are used: in these what lies half-way looks half-way by its logarithm as well, nearly. */
const RANGE = { from: 112, over: 128 };
/** Differences of neighbours tell more of outlines than those of far places. */
const BESIDE = 3;

/**
 * A picture in the grey in which its outlines are told apart best: colours by where they lie along the direction in OKLab
 * (Ottosson 2020) in which neighbours differ most (principal components: Pearson 1901, of differences over a few pixels), so
 * that things of the same lightness and another hue are apart.
 */
export function forEdges(image: Picture): GrayImage {
  if (!isColour(image)) return image;
  const { width, height, data } = image;
  const n = width * height;
  const labs = new Float32Array(3 * n);
  const known = new Map<number, readonly [number, number, number]>();
  for (let i = 0; i < n; i++) {
    // Colours are told apart finely enough in steps of four.
    const key = ((data[3 * i] >> 2) << 12) | ((data[3 * i + 1] >> 2) << 6) | (data[3 * i + 2] >> 2);
    let lab = known.get(key);
    if (!lab) known.set(key, (lab = labOf(data[3 * i], data[3 * i + 1], data[3 * i + 2])));
    labs.set(lab, 3 * i);
  }
  const axis = mainAxis(labs, width, height);
  const along = new Float32Array(n);
  let [least, most] = [Infinity, -Infinity];
  for (let i = 0; i < n; i++) {
    const v = axis[0] * labs[3 * i] + axis[1] * labs[3 * i + 1] + axis[2] * labs[3 * i + 2];
    along[i] = v;
    if (v < least) least = v;
    if (v > most) most = v;
  }
  const grey = new Uint8Array(n);
  for (let i = 0; i < n; i++)
    grey[i] = Math.round(RANGE.from + (RANGE.over * (along[i] - least)) / Math.max(1e-6, most - least));
  return { width, height, data: grey };
}

/** The direction in which neighbours differ most, of length 1, lighter rather than darker. */
function mainAxis(labs: Float32Array, width: number, height: number): [number, number, number] {
  const m = [0, 0, 0, 0, 0, 0];
  const stride = Math.max(1, Math.floor(Math.sqrt((width * height) / SAMPLES)));
  for (let y = 0; y + BESIDE < height; y += stride)
    for (let x = 0; x + BESIDE < width; x += stride)
      for (const step of [BESIDE, BESIDE * width]) {
        const i = 3 * (y * width + x);
        const d = [0, 1, 2].map((c) => labs[i + 3 * step + c] - labs[i + c]);
        // What differs much counts, noise hardly.
        const weight = d[0] ** 2 + d[1] ** 2 + d[2] ** 2;
        m[0] += weight * d[0] * d[0];
        m[1] += weight * d[0] * d[1];
        m[2] += weight * d[0] * d[2];
        m[3] += weight * d[1] * d[1];
        m[4] += weight * d[1] * d[2];
        m[5] += weight * d[2] * d[2];
      }
  let v: [number, number, number] = [1, 0.1, 0.1];
  for (let k = 0; k < 60; k++) {
    const next: [number, number, number] = [
      m[0] * v[0] + m[1] * v[1] + m[2] * v[2],
      m[1] * v[0] + m[3] * v[1] + m[4] * v[2],
      m[2] * v[0] + m[4] * v[1] + m[5] * v[2],
    ];
    const long = Math.hypot(...next);
    if (long < 1e-18) break;
    v = [next[0] / long, next[1] / long, next[2] / long];
  }
  return v[0] < 0 ? [-v[0], -v[1], -v[2]] : v;
}
