import type { Lab } from '../colour/oklab';
import { UNITS, type LabPicture } from '../edges/labPicture';

/** A picture divided into regions: which one each pixel is of, numbered from 0, and the mean colour of each, OKLab. */
export type Regions = {
  readonly width: number;
  readonly height: number;
  readonly count: number;
  readonly label: Int32Array;
  readonly size: Int32Array;
  /** Three figures a region. */
  readonly mean: Float32Array;
};

/** The mean colour of a region, of those of all. */
export const meanAt = (mean: Float32Array, k: number): Lab => [mean[3 * k], mean[3 * k + 1], mean[3 * k + 2]];

/** How many sorts of differences neighbours are ordered by. */
const LEVELS = 1024;
/** The range that a channel's values are taken to have: the spread of chance in a region goes by it. */
const RANGE = 0.5;

/**
 * Like neighbours merged, the most alike first, for as long as the means of two regions differ by no more than chance makes
 * them, given how large they are: what is noisy or textured comes to be one (Nock and Nielsen 2004, "Statistical region
 * merging"). The larger `complexity`, the more regions.
 */
export function mergedRegions({ width, height, channels, values }: LabPicture, complexity: number): Regions {
  const n = width * height;
  const parent = Int32Array.from({ length: n }, (_, i) => i);
  const size = new Int32Array(n).fill(1);
  const sum = new Float32Array(3 * n);
  for (let i = 0; i < n; i++) for (let c = 0; c < channels; c++) sum[3 * i + c] = values[channels * i + c] / UNITS;
  const find = (i: number): number => {
    let k = i;
    while (parent[k] !== k) k = parent[k] = parent[parent[k]];
    return k;
  };
  const chance = (RANGE * RANGE * Math.log(6 * n * n)) / (2 * complexity);
  const isAlike = (a: number, b: number): boolean => {
    let far = 0;
    for (let c = 0; c < 3; c++) far += (sum[3 * a + c] / size[a] - sum[3 * b + c] / size[b]) ** 2;
    return far <= chance * (1 / size[a] + 1 / size[b]);
  };
  for (const pair of pairsInOrder(values, channels, width, height)) {
    const i = pair >> 1;
    const [a, b] = [find(i), find(i + (pair & 1 ? width : 1))];
    if (a === b || !isAlike(a, b)) continue;
    const [to, from] = size[a] >= size[b] ? [a, b] : [b, a];
    parent[from] = to;
    size[to] += size[from];
    for (let c = 0; c < 3; c++) sum[3 * to + c] += sum[3 * from + c];
  }
  return numbered(n, width, height, find, sum);
}

/** Pairs of neighbours, those that differ least first: twice the first's place, and one more where the other lies below it. */
function pairsInOrder(values: Int16Array, channels: number, width: number, height: number): Int32Array {
  const n = width * height;
  const level = (i: number, j: number): number => {
    let far = 0;
    for (let c = 0; c < channels; c++)
      far = Math.max(far, Math.abs(values[channels * i + c] - values[channels * j + c]));
    return Math.min(LEVELS - 1, far >> 3);
  };
  const at = new Int32Array(LEVELS + 1);
  const levels = new Int16Array(2 * n).fill(-1);
  for (let i = 0; i < n; i++) {
    if (i % width < width - 1) at[(levels[2 * i] = level(i, i + 1)) + 1]++;
    if (i + width < n) at[(levels[2 * i + 1] = level(i, i + width)) + 1]++;
  }
  for (let k = 1; k <= LEVELS; k++) at[k] += at[k - 1];
  const pairs = new Int32Array(at[LEVELS]);
  for (let k = 0; k < 2 * n; k++) if (levels[k] >= 0) pairs[at[levels[k]]++] = k;
  return pairs;
}

function numbered(n: number, width: number, height: number, find: (i: number) => number, sum: Float32Array): Regions {
  const label = new Int32Array(n).fill(-1);
  const number = new Int32Array(n).fill(-1);
  const sizes: number[] = [];
  const means: number[] = [];
  for (let i = 0; i < n; i++) {
    const root = find(i);
    if (number[root] < 0) {
      number[root] = sizes.push(0) - 1;
      means.push(sum[3 * root], sum[3 * root + 1], sum[3 * root + 2]);
    }
    label[i] = number[root];
    sizes[number[root]]++;
  }
  const size = Int32Array.from(sizes);
  const mean = Float32Array.from(means, (v, k) => v / size[Math.floor(k / 3)]);
  return { width, height, count: sizes.length, label, size, mean };
}
