import { middlesOf, type Bin } from '../colour/clusters';
import { labDistance, type Lab } from '../colour/oklab';
import type { LabPicture } from '../edges/labPicture';
import { evenedPlanes } from './evenedPlanes';
import type { Regions } from './mergedRegions';

/** Areas of one colour each: which colour each pixel is of. */
export type LikeAreas = {
  readonly width: number;
  readonly height: number;
  readonly colour: Uint8Array;
  readonly colours: readonly Lab[];
  /** 1 along edges: elsewhere colours change little by little, and where one ends is a matter of chance. */
  readonly firm: Uint8Array;
};

/** What nowhere is broader than this is a border between two others, not an area, px. */
const THIN = 3;
/** So is a band no broader than this, px, so many times as long, whose colour lies between those to both its sides. */
const BAND = { broad: 16, long: 5, aside: 1.12, middle: 0.9 };
/** Borders are drawn to where the colours change in so many rounds; a neighbour that is of an area tells for it by so much. */
const ROUNDS = 10;
const TOGETHER = 0.012;

/**
 * Regions brought down to some colours, and what is too small or too thin made part of what it is most like of what lies about
 * it. Colours are the middles of sorts of regions, by their size (see `middlesOf`).
 */
export function likeAreas(picture: LabPicture, regions: Regions, count: number, smallest: number): LikeAreas {
  const { width, height } = regions;
  let map = absorbed(regions, smallest);
  const colours = middlesOf(binsOf(map), count);
  const own = colourOf(map, colours);
  map = absorbed(
    joined(map, (k) => own[k]),
    smallest,
  );
  const last = colourOf(map, colours);
  const colour = Uint8Array.from(map.label, (k) => last[k]);
  const { planes, firm } = evenedPlanes(picture);
  drawnToEdges(picture, planes, colour, colours);
  return cleared({ width, height, colour, colours, firm }, smallest);
}

const labAt = (mean: Float32Array, k: number): Lab => [mean[3 * k], mean[3 * k + 1], mean[3 * k + 2]];

const binsOf = ({ count, size, mean }: Regions): Bin[] =>
  Array.from({ length: count }, (_, k) => ({ lab: labAt(mean, k), count: size[k], strength: size[k] }));

function colourOf({ count, mean }: Regions, colours: readonly Lab[]): Uint8Array {
  return Uint8Array.from({ length: count }, (_, k) => {
    let best = 0;
    colours.forEach((c, i) => {
      if (labDistance(c, labAt(mean, k)) < labDistance(colours[best], labAt(mean, k))) best = i;
    });
    return best;
  });
}

/** Neighbouring regions of the same sort made one. */
function joined({ width, height, label, mean, count }: Regions, sort: (region: number) => number): Regions {
  const n = label.length;
  const next = new Int32Array(n).fill(-1);
  const sizes: number[] = [];
  const sums: number[] = [];
  const queue = new Int32Array(n);
  const sorts = Int32Array.from({ length: count }, (_, k) => sort(k));
  for (let start = 0; start < n; start++) {
    if (next[start] >= 0) continue;
    const own = sizes.length;
    const wanted = sorts[label[start]];
    let [head, tail] = [0, 1];
    queue[0] = start;
    next[start] = own;
    const sum = [0, 0, 0];
    while (head < tail) {
      const i = queue[head++];
      const k = label[i];
      for (let c = 0; c < 3; c++) sum[c] += mean[3 * k + c];
      const x = i % width;
      if (x > 0 && next[i - 1] < 0 && sorts[label[i - 1]] === wanted) next[(queue[tail++] = i - 1)] = own;
      if (x < width - 1 && next[i + 1] < 0 && sorts[label[i + 1]] === wanted) next[(queue[tail++] = i + 1)] = own;
      if (i >= width && next[i - width] < 0 && sorts[label[i - width]] === wanted)
        next[(queue[tail++] = i - width)] = own;
      if (i + width < n && next[i + width] < 0 && sorts[label[i + width]] === wanted)
        next[(queue[tail++] = i + width)] = own;
    }
    sizes.push(tail);
    sums.push(...sum.map((v) => v / tail));
  }
  return {
    width,
    height,
    count: sizes.length,
    label: next,
    size: Int32Array.from(sizes),
    mean: Float32Array.from(sums),
  };
}

/** What is too small, or too thin, made part of the neighbour that is most like it, the smallest first. */
function absorbed(map: Regions, smallest: number): Regions {
  const { width, height, label, count } = map;
  const parent = Int32Array.from({ length: count }, (_, k) => k);
  const size = map.size.slice();
  const mean = map.mean.slice();
  const find = (k: number): number => {
    let r = k;
    while (parent[r] !== r) r = parent[r] = parent[parent[r]];
    return r;
  };
  const beside = Array.from({ length: count }, () => new Map<number, number>());
  const breadth = breadthOf(map);
  const n = label.length;
  for (let i = 0; i < n; i++)
    for (const j of [i % width < width - 1 ? i + 1 : i, i + width < n ? i + width : i]) {
      const [a, b] = [label[i], label[j]];
      if (a === b) continue;
      beside[a].set(b, (beside[a].get(b) ?? 0) + 1);
      beside[b].set(a, (beside[b].get(a) ?? 0) + 1);
    }
  /** Whether a long band goes over from one of its neighbours to the other: the border of the two, out of focus. */
  const isBetween = (k: number): boolean => {
    if (breadth[k] > BAND.broad || size[k] < BAND.long * breadth[k] * breadth[k]) return false;
    const lengths = new Map<number, number>();
    for (const [other, length] of beside[k]) {
      const to = find(other);
      if (to !== k) lengths.set(to, (lengths.get(to) ?? 0) + length);
    }
    const [a, b] = [...lengths].sort((p, q) => q[1] - p[1]).map(([to]) => labAt(mean, to));
    if (!b) return false;
    const whole = labDistance(a, b);
    const own = labAt(mean, k);
    return (
      labDistance(a, own) + labDistance(own, b) < BAND.aside * whole &&
      Math.max(labDistance(a, own), labDistance(own, b)) < BAND.middle * whole
    );
  };
  const isLess = (k: number): boolean => size[k] < smallest || breadth[k] < THIN || isBetween(k);
  const waiting = Array.from({ length: count }, (_, k) => k)
    .filter(isLess)
    .sort((a, b) => map.size[a] - map.size[b]);
  for (const k of waiting) {
    if (find(k) !== k || !isLess(k)) continue;
    let [best, least] = [-1, Infinity];
    for (const [other, length] of beside[k]) {
      const to = find(other);
      if (to === k) continue;
      // Of two that are about as like, that along which it lies longer.
      const far = labDistance(labAt(mean, k), labAt(mean, to)) / Math.sqrt(length);
      if (far < least) [best, least] = [to, far];
    }
    if (best < 0) continue;
    parent[k] = best;
    // A thin border is of mixed colour: it does not tell what its area is like.
    const weight = size[k] < smallest ? size[k] : 0;
    for (let c = 0; c < 3; c++)
      mean[3 * best + c] = (mean[3 * best + c] * size[best] + mean[3 * k + c] * weight) / (size[best] + weight);
    size[best] += size[k];
    breadth[best] = Math.max(breadth[best], breadth[k]);
    for (const [other, length] of beside[k]) {
      const to = find(other);
      if (to !== best) {
        beside[best].set(to, (beside[best].get(to) ?? 0) + length);
        beside[to].set(best, (beside[to].get(best) ?? 0) + length);
      }
    }
  }
  const kept = Array.from({ length: count }, (_, k) => k).filter((k) => find(k) === k);
  const number = new Int32Array(count);
  kept.forEach((k, m) => (number[k] = m));
  return {
    width,
    height,
    count: kept.length,
    label: label.map((k) => number[find(k)]),
    size: Int32Array.from(kept, (k) => size[k]),
    mean: Float32Array.from(kept.flatMap((k) => [mean[3 * k], mean[3 * k + 1], mean[3 * k + 2]])),
  };
}

/** How broad each region is where it is broadest, px: twice the longest way from a pixel of it straight to what is not. */
function breadthOf({ width, label, count }: Regions): Float32Array {
  const n = label.length;
  const depth = new Uint16Array(n).fill(0xffff);
  // In steps along rows and columns, first from the upper left, then back.
  for (let i = 0; i < n; i++) {
    const x = i % width;
    const left = x > 0 && label[i - 1] === label[i] ? depth[i - 1] : 0;
    const above = i >= width && label[i - width] === label[i] ? depth[i - width] : 0;
    depth[i] = Math.min(left, above) + 1;
  }
  const broadest = new Float32Array(count);
  for (let i = n - 1; i >= 0; i--) {
    const x = i % width;
    const right = x < width - 1 && label[i + 1] === label[i] ? depth[i + 1] : 0;
    const below = i + width < n && label[i + width] === label[i] ? depth[i + width] : 0;
    depth[i] = Math.min(depth[i], Math.min(right, below) + 1);
    broadest[label[i]] = Math.max(broadest[label[i]], 2 * depth[i] - 1);
  }
  return broadest;
}

/**
 * Pixels along borders go over to the neighbouring colour that is more like them, and that most of what is about them has. Along
 * edges that is told by the pixels themselves, where colours change little by little by what is smoothed over a distance.
 */
function drawnToEdges(
  { width, height, channels }: LabPicture,
  planes: readonly Float32Array[],
  colour: Uint8Array,
  colours: readonly Lab[],
): void {
  const far = (i: number, k: number): number => {
    let sum = 0;
    for (let c = 0; c < channels; c++) {
      const d = planes[c][i] - colours[k][c];
      sum += d * d;
    }
    return Math.sqrt(sum);
  };
  for (let round = 0; round < ROUNDS; round++) {
    let changes = 0;
    const was = colour.slice();
    for (let y = 1; y < height - 1; y++)
      for (let x = 1, i = y * width + 1; x < width - 1; x++, i++) {
        const own = was[i];
        if (was[i - 1] === own && was[i + 1] === own && was[i - width] === own && was[i + width] === own) continue;
        let best = own;
        let least = Infinity;
        for (const j of [i, i - 1, i + 1, i - width, i + width]) {
          const k = was[j];
          if (j !== i && k === own) continue;
          let alike = 0;
          for (let v = -width; v <= width; v += width) for (let u = -1; u <= 1; u++) if (was[i + v + u] === k) alike++;
          const cost = far(i, k) - TOGETHER * alike;
          if (cost < least) {
            best = k;
            least = cost;
          }
        }
        if (best !== own) {
          colour[i] = best;
          changes++;
        }
      }
    if (changes === 0) break;
  }
}

/** Crumbs that drawing borders has left are made part of what lies about them. */
function cleared(areas: LikeAreas, smallest: number): LikeAreas {
  const { width, height, colour, colours } = areas;
  const flat: Regions = {
    width,
    height,
    count: colours.length,
    label: Int32Array.from(colour),
    size: new Int32Array(colours.length).fill(1),
    mean: Float32Array.from(colours.flat()),
  };
  const map = absorbed(
    joined(flat, (k) => k),
    smallest,
  );
  const own = colourOf(map, colours);
  return { ...areas, colour: Uint8Array.from(map.label, (k) => own[k]) };
}
