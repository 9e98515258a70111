import { gaussianKernel } from './blur';
import { imageOfWords, wordsOf, type RgbaImage } from './rgba';

/*
 * Four channels of a pixel are worked on as two whole numbers of two channels each, sixteen bits apart: eight bits of
 * value leave room for weights that add up to 256, and one product does for two channels.
 */
const EVEN = 0x00ff00ff;
const ROUND = 0x00800080;

/** From this width of the kernel on, px, a picture with half the pixels each way tells as much. */
const HALVED_FROM = 1.3;
/** Smaller pictures are not halved, px: their edges would weigh too much. */
const LEAST_SIDE = 64;
/** What halving and drawing out again smooth by themselves: the variances of [1 3 3 1]/8 and of a tent of 4 px. */
const HALVING = 3 / 4 + 2 / 3;

/**
 * The picture with each colour smoothed by a Gaussian kernel of `sigma` px; see-through stays as it is. Wide kernels work
 * on a picture reduced as often as the kernel allows (Burt and Adelson 1983), so that their time does not grow.
 */
export function blurredRgba(image: RgbaImage, sigma: number): RgbaImage {
  if (sigma < 0.1) return image;
  const words = wordsOf(image);
  const result = smooth({ width: image.width, height: image.height, words }, sigma);
  for (let i = 0; i < words.length; i++) result.words[i] = (result.words[i] & 0xffffff) | (words[i] & 0xff000000);
  return imageOfWords(result);
}

type Words = { width: number; height: number; words: Uint32Array };

function smooth(image: Words, sigma: number): Words {
  if (sigma < HALVED_FROM || Math.min(image.width, image.height) < LEAST_SIDE) return convolved(image, weights(sigma));
  const rest = (sigma * sigma - HALVING) / 4;
  const half = halved(image);
  return doubled(rest < 0.01 ? half : smooth(half, Math.sqrt(rest)), image.width, image.height);
}

/** The kernel in whole 256ths, from the middle outwards. */
function weights(sigma: number): Int32Array {
  const half = Int32Array.from(gaussianKernel(sigma), (w) => Math.round(256 * w));
  half[0] = 256 - 2 * half.subarray(1).reduce((a, b) => a + b, 0);
  let reach = half.length - 1;
  while (reach > 1 && half[reach] === 0) reach--;
  return half.slice(0, reach + 1);
}

/** Keeps only as many smoothed rows at hand as the kernel is high. */
function convolved({ width, height, words }: Words, half: Int32Array): Words {
  const reach = half.length - 1;
  const count = Math.min(height, 2 * reach + 1);
  const rows = Array.from({ length: count }, () => [new Int32Array(width), new Int32Array(width)]);
  const padded = [new Int32Array(width + 2 * reach), new Int32Array(width + 2 * reach)];
  const [even, odd] = [new Int32Array(width), new Int32Array(width)];
  const result = new Uint32Array(words.length);
  let made = 0;
  for (let y = 0; y < height; y++) {
    for (; made <= Math.min(height - 1, y + reach); made++) {
      split(words, made * width, width, reach, padded[0], padded[1]);
      const row = rows[made % count];
      smoothRow(padded[0], row[0], half);
      smoothRow(padded[1], row[1], half);
    }
    even.fill(ROUND);
    odd.fill(ROUND);
    for (let k = 0; k <= reach; k++) {
      const above = rows[Math.max(0, y - k) % count];
      const below = rows[Math.min(height - 1, y + k) % count];
      // The middle row is met from both sides.
      const weight = k === 0 ? half[0] / 2 : half[k];
      addRows(even, above[0], below[0], weight);
      addRows(odd, above[1], below[1], weight);
    }
    const start = y * width;
    for (let x = 0; x < width; x++) result[start + x] = ((even[x] >>> 8) & EVEN) | (odd[x] & ~EVEN);
  }
  return { width, height, words: result };
}

/** One row parted into its even and odd channels, its end pixels going on for `reach` px on both sides. */
function split(
  words: Uint32Array,
  start: number,
  width: number,
  reach: number,
  even: Int32Array,
  odd: Int32Array,
): void {
  for (let x = 0; x < width; x++) {
    const word = words[start + x];
    even[x + reach] = word & EVEN;
    odd[x + reach] = (word >>> 8) & EVEN;
  }
  for (const row of [even, odd]) {
    row.fill(row[reach], 0, reach);
    row.fill(row[reach + width - 1], reach + width);
  }
}

function smoothRow(padded: Int32Array, to: Int32Array, half: Int32Array): void {
  const reach = half.length - 1;
  for (let x = 0; x < to.length; x++) {
    const at = x + reach;
    let sum = Math.imul(half[0], padded[at]) + ROUND;
    for (let k = 1; k <= reach; k++) sum = (sum + Math.imul(half[k], padded[at - k] + padded[at + k])) | 0;
    to[x] = (sum >>> 8) & EVEN;
  }
}

function addRows(sum: Int32Array, above: Int32Array, below: Int32Array, weight: number): void {
  for (let x = 0; x < sum.length; x++) sum[x] = (sum[x] + Math.imul(weight, above[x] + below[x])) | 0;
}

/** Half the pixels each way, by [1 3 3 1]/8. */
function halved({ width, height, words }: Words): Words {
  const [wide, high] = [Math.ceil(width / 2), Math.ceil(height / 2)];
  const result = new Uint32Array(wide * high);
  const [even, odd] = [new Int32Array(width), new Int32Array(width)];
  for (let y = 0; y < high; y++) {
    const near = 2 * y * width;
    const next = Math.min(height - 1, 2 * y + 1) * width;
    const above = Math.max(0, 2 * y - 1) * width;
    const below = Math.min(height - 1, 2 * y + 2) * width;
    for (let x = 0; x < width; x++) {
      const a = words[near + x];
      const b = words[next + x];
      const c = words[above + x];
      const d = words[below + x];
      even[x] = (3 * ((a & EVEN) + (b & EVEN)) + (c & EVEN) + (d & EVEN) + 0x00040004) >>> 3;
      odd[x] =
        (3 * (((a >>> 8) & EVEN) + ((b >>> 8) & EVEN)) + ((c >>> 8) & EVEN) + ((d >>> 8) & EVEN) + 0x00040004) >>> 3;
      even[x] &= EVEN;
      odd[x] &= EVEN;
    }
    for (let x = 0; x < wide; x++) {
      const i = 2 * x;
      const j = i + 1 < width ? i + 1 : i;
      const h = i > 0 ? i - 1 : 0;
      const k = i + 2 < width ? i + 2 : width - 1;
      const e = (3 * (even[i] + even[j]) + even[h] + even[k] + 0x00040004) >>> 3;
      const o = (3 * (odd[i] + odd[j]) + odd[h] + odd[k] + 0x00040004) >>> 3;
      result[y * wide + x] = (e & EVEN) | ((o & EVEN) << 8);
    }
  }
  return { width: wide, height: high, words: result };
}

/** Twice the pixels each way, drawn out evenly between the middles of the old ones. */
function doubled({ width, height, words }: Words, wide: number, high: number): Words {
  const result = new Uint32Array(wide * high);
  // A pixel's neighbours on both sides are met at the ends, too.
  const [even, odd] = [new Int32Array(width + 2), new Int32Array(width + 2)];
  for (let y = 0; y < high; y++) {
    const near = (y >> 1) * width;
    const far = Math.min(height - 1, Math.max(0, (y >> 1) + (y & 1 ? 1 : -1))) * width;
    for (let x = 0; x < width; x++) {
      const a = words[near + x];
      const b = words[far + x];
      even[x + 1] = 3 * (a & EVEN) + (b & EVEN);
      odd[x + 1] = 3 * ((a >>> 8) & EVEN) + ((b >>> 8) & EVEN);
    }
    for (const row of [even, odd]) {
      row[0] = row[1];
      row[width + 1] = row[width];
    }
    const start = y * wide;
    for (let x = 0; x < wide; x++) {
      const i = (x >> 1) + 1;
      const j = x & 1 ? i + 1 : i - 1;
      const e = (3 * even[i] + even[j] + 0x00080008) >>> 4;
      const o = (3 * odd[i] + odd[j] + 0x00080008) >>> 4;
      result[start + x] = (e & EVEN) | ((o & EVEN) << 8);
    }
  }
  return { width: wide, height: high, words: result };
}
