import type { Places } from '../geometry/along';
import type { Changes } from './across';

/** The square of a figure of chance is this much on the mean, where its size's median is 1. */
export const MEAN_SQUARE = 2.2;
/** What is usual is told within so many px to either side along a line. */
const AROUND = 40;
/** Texture is another so many px on. */
const LAG = 24;
/** What goes on so many steps to both sides is shading. */
const SHADING = 20;
/** Below this share of all values: of chance alone, that is this much below their median; an edge is above it. */
const LOWER = { share: 0.35, by: 1.49 };

/** Changes of colour as multiples of what chance makes, channel by channel: vectors, and how large each is. */
export type SignalToNoise = {
  readonly width: number;
  readonly channels: number;
  readonly values: Float32Array;
  readonly ratio: Float32Array;
};

/** Changes measured by the picture's noise, a figure a channel; with `places`, by the texture about these too. */
export function signalToNoise(changes: Changes, floor: Float32Array, places: Places | null): SignalToNoise {
  const { n, width, channels } = changes;
  const values = places ? withoutShading(changes) : changes.values.slice();
  const usual = places ? textureAlong({ n, width, channels, values }, places) : null;
  const ratio = new Float32Array(n * width);
  for (let i = 0; i < n; i++)
    for (let k = 0; k < width; k++) {
      const at = i * width + k;
      let sum = 0;
      for (let c = 0; c < channels; c++) {
        const v = (values[at * channels + c] /= Math.max(floor[c], usual ? usual[i * channels + c] : 0));
        sum += v * v;
      }
      ratio[at] = Math.sqrt(Math.max(0, sum - MEAN_SQUARE * (channels - 1)));
    }
  return { width, channels, values, ratio };
}

/** How alike the colours of two changes are: the cosine of the angle between them. */
export function likeness({ channels, values }: SignalToNoise, a: number, b: number): number {
  let [ab, aa, bb] = [0, 0, 0];
  for (let c = 0; c < channels; c++) {
    const [p, q] = [values[a * channels + c], values[b * channels + c]];
    ab += p * q;
    aa += p * p;
    bb += q * q;
  }
  return ab / Math.sqrt(aa * bb + 1e-12);
}

/** Changes without what goes on beyond an edge to both its sides: a colour that changes evenly over a distance is shading. */
function withoutShading({ n, width, channels, values }: Changes): Float32Array {
  const result = values.slice();
  const [row, by] = [width * channels, SHADING * channels];
  for (let i = 0; i < n; i++)
    for (let k = 0; k < row; k++) {
      const c = k % channels;
      const v = values[i * row + k];
      const before = values[i * row + (k >= by ? k - by : c)];
      const after = values[i * row + (k + by < row ? k + by : row - channels + c)];
      if (v > 0) result[i * row + k] = v - Math.max(0, Math.min(v, before, after));
      else result[i * row + k] = v - Math.min(0, Math.max(v, before, after));
    }
  return result;
}

/**
 * What is usual about each place, a channel: how much changes differ along the line. Of texture there is as much beside the line
 * as on it; shading, and an edge, are alike all along.
 */
function textureAlong({ n, width, channels, values }: Changes, { closed, length }: Places): Float32Array {
  const usual = new Float32Array(n * channels);
  const step = length / Math.max(1, n);
  const around = Math.max(1, Math.round(AROUND / step));
  const block = Math.max(1, around >> 2);
  const lag = Math.max(1, Math.round(LAG / step));
  const skip = Math.max(1, Math.round(5 / step));
  const list = new Float32Array(Math.ceil((2 * around + 1) / skip) * Math.ceil(width / 3));
  for (let from = 0; from < n; from += block) {
    for (let c = 0; c < channels; c++) {
      let m = 0;
      for (let d = -around; d <= around; d += skip) {
        const i = closed ? (((from + d) % n) + n) % n : from + d;
        if (i < 0 || i >= n) continue;
        const j = closed ? (i + lag) % n : i + lag < n ? i + lag : Math.max(0, i - lag);
        for (let k = 0; k < width; k += 3)
          list[m++] = Math.abs(values[(i * width + k) * channels + c] - values[(j * width + k) * channels + c]);
      }
      const v = (LOWER.by / Math.SQRT2) * list.subarray(0, m).sort()[Math.floor(LOWER.share * m)];
      for (let i = from; i < Math.min(n, from + block); i++) usual[i * channels + c] = v;
    }
  }
  return usual;
}
