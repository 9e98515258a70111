import type { Places } from '../geometry/along';
import { smoothed } from '../geometry/smoothed';
import { bestWay } from '../geometry/viterbi';
import { Across, STEP, type Changes, type EdgeScale } from './across';
import { noiseFloor } from './floor';
import type { LabPicture } from './labPicture';

/** An edge is looked for at this scale, px, ... */
const SEEN: EdgeScale = { across: 2, along: 8 };
/** ... then placed at the finest of these that tells it for sure, and at which it is as clear as at the broadest, nearly. */
const PLACED: readonly EdgeScale[] = [
  { across: 1, along: 3 },
  { across: 2, along: 4 },
  { across: 4, along: 10 },
];
const SURE = 6;
const AS_CLEAR = 0.68;
/** Of two edges that are as clear the nearer is meant: how much dearer one is that lies the whole reach away. */
const AWAY = 0.35;
/** It is placed within so many px of where it was seen. */
const NEAR = 3;

/** So many times what is usual in the picture, or about the line, is perhaps an edge; so many times, for sure. */
const LEAST = 2.7;
const CLEAR = 15;
/** So many steps to either side of an edge's top are of the same. */
const BESIDE = 8;
/** What is usual is told within so many px aside of a line, and so many to either side along it. */
const ASIDE = 16;
const AROUND = 40;
/** Texture is another so many px on. */
const LAG = 24;
/** What goes on so many steps to both sides is shading. */
const SHADING = 14;
/** Below this share of all values: of chance alone, that is this much below their median; an edge is above it. */
const LOWER = { share: 0.35, by: 1.49 };
/** The square of what is usual of one channel is this much, on the mean. */
const MEAN_SQUARE = 2.2;
/** What it costs when the colours to both sides become others from place to place. */
const OTHER = 1.5;
/** The colours of an edge are those of so many places to either side. */
const TOGETHER = 6;
/** Offsets are evened along the line; those of soft edges jitter more, and have no sharp corners. */
const EVEN = [6, 2, 1];
const EVENER = [6, 5, 4, 3, 2, 1];

/**
 * Where an edge runs along a line: for each place how far across it lies, px to the right of the way; NaN where there is none
 * within reach. Changes in all channels of OKLab count by how much they stand out of the picture's own noise and texture, and
 * of what lies about the line; of all ways that keep their colours to both sides the clearest and nearest is taken
 * (Di Zenzo 1986: gradients of several channels; Mortensen and Barrett 1995: edges keep their sides). Then it is placed between pixels, at the
 * finest scale that is reliable (Elder and Zucker 1998). Null where there is none at all. An edge of which it is known that it
 * `isThere` need not stand out of what lies about it.
 */
export function edgeWay(picture: LabPicture, places: Places, reach: number, isThere = false): Float64Array | null {
  const across = new Across(picture, places, isThere ? reach + 1 : Math.max(reach, ASIDE), SEEN.across);
  const seen = toNoise(across.changes(SEEN), noiseFloor(picture, SEEN), isThere ? null : places);
  const cells = 2 * Math.floor(reach / STEP) + 1;
  const shift = (seen.width - cells) / 2;
  const scores = new Float32Array(places.n * cells);
  for (let i = 0; i < places.n; i++) {
    const row = seen.ratio.subarray(i * seen.width, (i + 1) * seen.width);
    for (let c = 0; c < cells; c++) scores[i * cells + c] = clearness(row, shift + c);
  }
  const rows = bestWay({ width: cells, values: scores, away: AWAY }, places.n, places.closed, (i, before, at) => {
    const last = i > 0 ? i - 1 : places.n - 1;
    const k = seen.cosine(last * seen.width + shift + before, i * seen.width + shift + at);
    return OTHER * (1 - k) * (1 - k);
  });
  if (!rows.some((k) => k >= 0)) return null;
  const rough = Float64Array.from(rows, (k) => (k < 0 ? NaN : (k - (cells - 1) / 2) * STEP));
  return placed(picture, places, smoothed(rough, EVEN, places.closed));
}

/** How clear an edge is at a place of a row, 0…1; less beside its top than on it, below 0 where there is none. */
function clearness(row: Float32Array, k: number): number {
  const ratio = row[k];
  if (ratio < LEAST) return -1;
  let top = ratio;
  for (let j = Math.max(0, k - BESIDE); j <= Math.min(row.length - 1, k + BESIDE); j++) top = Math.max(top, row[j]);
  return Math.min(1, Math.log(ratio / LEAST) / Math.log(CLEAR / LEAST)) * (ratio / top) ** 2;
}

/** Changes as multiples of what is usual, channel by channel: vectors, and how large they are. */
type Told = {
  readonly width: number;
  readonly channels: number;
  readonly values: Float32Array;
  readonly ratio: Float32Array;
  cosine(a: number, b: number): number;
};

function toNoise({ n, width, channels, values }: Changes, floor: Float32Array, places: Places | null): Told {
  const told = places ? withoutSlopes({ n, width, channels, values }) : values.slice();
  const ratio = new Float32Array(n * width);
  const usual = places ? usualAlong({ n, width, channels, values: told }, places) : null;
  for (let i = 0; i < n; i++)
    for (let k = 0; k < width; k++) {
      const at = i * width + k;
      let sum = 0;
      for (let c = 0; c < channels; c++) {
        const v = (told[at * channels + c] /= Math.max(floor[c], usual ? usual[i * channels + c] : 0));
        sum += v * v;
      }
      ratio[at] = Math.sqrt(Math.max(0, sum - MEAN_SQUARE * (channels - 1)));
    }
  const cosine = (a: number, b: number): number => {
    let [ab, aa, bb] = [0, 0, 0];
    for (let c = 0; c < channels; c++) {
      const [p, q] = [told[a * channels + c], told[b * channels + c]];
      ab += p * q;
      aa += p * p;
      bb += q * q;
    }
    return ab / Math.sqrt(aa * bb + 1e-12);
  };
  return { width, channels, values: told, ratio, cosine };
}

/** Changes without what goes on beyond an edge to both its sides: a colour that changes evenly over a distance is shading. */
function withoutSlopes({ n, width, channels, values }: Changes): Float32Array {
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
function usualAlong({ n, width, channels, values }: Changes, { closed, length }: Places): Float32Array {
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

/** An edge that has been seen, placed between pixels. */
function placed(picture: LabPicture, places: Places, rough: Float64Array): Float64Array {
  const { n, closed } = places;
  const about = rough.map((o) => (Number.isNaN(o) ? 0 : o));
  const across = new Across(picture, places, NEAR, PLACED.at(-1)!.across, about);
  const told = PLACED.map((scale) => {
    const changes = across.changes(scale);
    return { changes, told: toNoise(changes, noiseFloor(picture, scale), null) };
  });
  const width = told[0].told.width;
  const middle = (width - 1) / 2;
  const largest = (of: (at: number) => number, i: number): number => {
    let most = 0;
    for (let k = middle - 3; k <= middle + 3; k++) most = Math.max(most, of(i * width + k));
    return most;
  };
  const size = ({ values, channels }: Changes, at: number): number => {
    let sum = 0;
    for (let c = 0; c < channels; c++) sum += values[at * channels + c] ** 2;
    return Math.sqrt(sum);
  };
  const scale = Int8Array.from({ length: n }, (_, i) => {
    const broadest = largest((at) => size(told.at(-1)!.changes, at), i);
    const k = told.findIndex(
      ({ changes, told: t }) =>
        largest((at) => t.ratio[at], i) >= SURE && largest((at) => size(changes, at), i) >= AS_CLEAR * broadest,
    );
    return k < 0 ? told.length - 1 : k;
  });
  const steady = medians(scale, TOGETHER, closed);
  const { channels } = told[0].told;
  const sides = new Float32Array(n * channels);
  for (let i = 0; i < n; i++)
    if (!Number.isNaN(rough[i])) {
      const t = told[steady[i]].told;
      let best = i * width + middle;
      for (let k = middle - 2; k <= middle + 2; k++) if (t.ratio[i * width + k] > t.ratio[best]) best = i * width + k;
      for (let c = 0; c < channels; c++) sides[i * channels + c] = t.values[best * channels + c];
    }
  const offset = rough.map((o, i) => {
    if (Number.isNaN(o)) return NaN;
    const t = told[steady[i]].told;
    const side = new Float32Array(channels);
    for (let d = -TOGETHER; d <= TOGETHER; d++) {
      const j = closed ? (i + d + n) % n : i + d;
      if (j < 0 || j >= n) continue;
      for (let c = 0; c < channels; c++) side[c] += sides[j * channels + c];
    }
    const along = (k: number): number => {
      let sum = 0;
      for (let c = 0; c < channels; c++) sum += side[c] * t.values[(i * width + k) * channels + c];
      return sum;
    };
    let best = middle;
    let most = along(middle);
    // Uphill from where it was seen.
    for (;;) {
      const next = [best - 1, best + 1].find((k) => k >= 0 && k < width && along(k) > most);
      if (next === undefined) break;
      best = next;
      most = along(best);
    }
    if (best === 0 || best === width - 1) return o;
    const [a, b] = [along(best - 1), along(best + 1)];
    const curve = a - 2 * most + b;
    return o + (best - middle + (curve < 0 ? (0.5 * (a - b)) / curve : 0)) * STEP;
  });
  const [even, evener] = [smoothed(offset, EVEN, closed), smoothed(offset, EVENER, closed)];
  return even.map((o, i) => (steady[i] === PLACED.length - 1 ? evener[i] : o));
}

/** Of each figure and some to either side the middle one. */
function medians(list: Int8Array, reach: number, closed: boolean): Int8Array {
  const n = list.length;
  return list.map((_, i) => {
    const near: number[] = [];
    for (let d = -reach; d <= reach; d++) {
      const j = closed ? (i + d + n) % n : i + d;
      if (j >= 0 && j < n) near.push(list[j]);
    }
    return near.sort((a, b) => a - b)[near.length >> 1];
  });
}
