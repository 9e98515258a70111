import type { Homography } from './homography';

/** Interleaved samples: `channels` values a pixel, row by row. */
export type Pixels = { width: number; height: number; channels: number; data: Uint8Array | Uint8ClampedArray };

/** What lies beyond the picture's edge: its edge drawn out, or a value for each channel. */
export type Beyond = 'edge' | readonly number[];

/** A map of the plane. */
export type PlaneMap = {
  /** Writes to where a place goes; NaN: to nowhere. */
  place(x: number, y: number, out: Float64Array): void;
  /** How long a step of one may become there, at most. */
  spanAt(x: number, y: number): number;
};

const MOST_SAMPLES = 8;

/**
 * A picture seen through a map that takes places of the result to places of the source. Between pixels it is
 * mixed linearly; where a result's pixel covers several of the source it is the mean of that many samples.
 */
export function warp(
  source: Pixels,
  to: { width: number; height: number },
  toSource: Homography | PlaneMap,
  beyond: Beyond,
): Pixels {
  const { channels } = source;
  const isPlane = !('place' in toSource);
  if (isPlane && channels === 4 && beyond !== 'edge' && isNowhereSmaller(toSource, to))
    return warpRgba(source, to, toSource);
  const map = isPlane ? planeMap(toSource) : toSource;
  const data = new Uint8ClampedArray(to.width * to.height * channels);
  const sum = new Float64Array(channels);
  const at = new Float64Array(2);
  for (let y = 0; y < to.height; y++) {
    for (let x = 0; x < to.width; x++) {
      const n = samplesOver(map.spanAt(x + 0.5, y + 0.5));
      sum.fill(0);
      for (let j = 0; j < n; j++) {
        const v = y + (j + 0.5) / n;
        for (let i = 0; i < n; i++) {
          const u = x + (i + 0.5) / n;
          map.place(u, v, at);
          addSample(source, at[0], at[1], beyond, sum);
        }
      }
      const i = (y * to.width + x) * channels;
      for (let k = 0; k < channels; k++) data[i + k] = sum[k] / (n * n);
    }
  }
  return { width: to.width, height: to.height, channels, data };
}

/** Whether one sample a pixel does everywhere. The scale of a plane seen from aside is extreme at its corners. */
const isNowhereSmaller = (toSource: Homography, { width, height }: { width: number; height: number }): boolean =>
  [0, 0.5, 1].every((x) => [0, 0.5, 1].every((y) => samplesOver(spanOf(toSource, x * width, y * height)) === 1));

/** The usual case written out: colours with alpha, one sample a pixel, see-through beyond the edge. */
function warpRgba(source: Pixels, to: { width: number; height: number }, toSource: Homography): Pixels {
  const [a, b, c, d, e, f, g, h] = toSource;
  const { width, height, data } = source;
  const result = new Uint8ClampedArray(to.width * to.height * 4);
  for (let y = 0; y < to.height; y++) {
    const v = y + 0.5;
    let at = y * to.width * 4;
    for (let x = 0; x < to.width; x++, at += 4) {
      const u = x + 0.5;
      const w = 1 / (g * u + h * v + 1);
      const sx = (a * u + b * v + c) * w;
      const sy = (d * u + e * v + f) * w;
      if (sx < 0 || sy < 0 || sx > width || sy > height) continue;
      const px = sx < 0.5 ? 0 : sx > width - 0.5 ? width - 1 : sx - 0.5;
      const py = sy < 0.5 ? 0 : sy > height - 0.5 ? height - 1 : sy - 0.5;
      const l = px | 0;
      const t = py | 0;
      const fx = px - l;
      const fy = py - t;
      const i = (t * width + l) * 4;
      const right = l + 1 < width ? i + 4 : i;
      const below = t + 1 < height ? width * 4 : 0;
      const w11 = fx * fy;
      const w10 = fx - w11;
      const w01 = fy - w11;
      const w00 = 1 - fx - w01;
      result[at] = data[i] * w00 + data[right] * w10 + data[i + below] * w01 + data[right + below] * w11;
      result[at + 1] =
        data[i + 1] * w00 + data[right + 1] * w10 + data[i + below + 1] * w01 + data[right + below + 1] * w11;
      result[at + 2] =
        data[i + 2] * w00 + data[right + 2] * w10 + data[i + below + 2] * w01 + data[right + below + 2] * w11;
      result[at + 3] =
        data[i + 3] * w00 + data[right + 3] * w10 + data[i + below + 3] * w01 + data[right + below + 3] * w11;
    }
  }
  return { width: to.width, height: to.height, channels: 4, data: result };
}

/** How many samples each way a pixel of the result wants: as many as pixels of the source it spans. */
const samplesOver = (span: number): number => (span > 1.25 ? Math.min(MOST_SAMPLES, Math.ceil(span - 0.25)) : 1);

function spanOf([a, b, c, d, e, f, g, h]: Homography, x: number, y: number): number {
  const w = g * x + h * y + 1;
  const [u, v] = [(a * x + b * y + c) / w, (d * x + e * y + f) / w];
  const across = Math.hypot(a - g * u, d - g * v) / Math.abs(w);
  const down = Math.hypot(b - h * u, e - h * v) / Math.abs(w);
  return Math.max(across, down);
}

const planeMap = (homography: Homography): PlaneMap => {
  const [a, b, c, d, e, f, g, h] = homography;
  return {
    place(x, y, out) {
      const w = g * x + h * y + 1;
      out[0] = (a * x + b * y + c) / w;
      out[1] = (d * x + e * y + f) / w;
    },
    spanAt: (x, y) => spanOf(homography, x, y),
  };
};

function addSample(p: Pixels, x: number, y: number, beyond: Beyond, sum: Float64Array): void {
  const { width, height, channels, data } = p;
  if (beyond !== 'edge' && !(x >= 0 && y >= 0 && x <= width && y <= height)) {
    for (let k = 0; k < channels; k++) sum[k] += beyond[k];
    return;
  }
  const px = Math.min(width - 1, Math.max(0, x - 0.5));
  const py = Math.min(height - 1, Math.max(0, y - 0.5));
  const [l, t] = [Math.floor(px), Math.floor(py)];
  const right = l + 1 < width ? channels : 0;
  const below = t + 1 < height ? width * channels : 0;
  const [fx, fy] = [px - l, py - t];
  const [w00, w10, w01, w11] = [(1 - fx) * (1 - fy), fx * (1 - fy), (1 - fx) * fy, fx * fy];
  const at = (t * width + l) * channels;
  for (let k = 0; k < channels; k++) {
    const i = at + k;
    sum[k] += data[i] * w00 + data[i + right] * w10 + data[i + below] * w01 + data[i + right + below] * w11;
  }
}
