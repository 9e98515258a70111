import { labDistance } from '../colour/oklab';
import { meanAt, type Regions } from './mergedRegions';

/** What nowhere is broader than this is a border between two others, not an area, px. */
const THIN = 3;
/** So is a band no broader than this, px, so many times as long, whose colour lies between those to both its sides. */
const BAND = { broad: 16, long: 5, aside: 1.12, middle: 0.9 };

/** Regions of which what is too small, or too thin, is made part of the neighbour that is most like it, the smallest first. */
export function absorbed(map: Regions, smallest: number): Regions {
  const merging = new Merging(map, smallest);
  const waiting = Array.from({ length: map.count }, (_, k) => k)
    .filter((k) => merging.isLess(k))
    .sort((a, b) => map.size[a] - map.size[b]);
  for (const k of waiting) if (merging.isOwn(k) && merging.isLess(k)) merging.absorb(k);
  return merging.regions();
}

/** Regions that are made part of each other, one by one. */
class Merging {
  private readonly parent: Int32Array;
  private readonly size: Int32Array;
  private readonly mean: Float32Array;
  private readonly breadth: Float32Array;
  /** How long the border of each region with each of its neighbours is, as these were at first. */
  private readonly beside: readonly Map<number, number>[];

  constructor(
    private readonly map: Regions,
    private readonly smallest: number,
  ) {
    this.parent = Int32Array.from({ length: map.count }, (_, k) => k);
    this.size = map.size.slice();
    this.mean = map.mean.slice();
    this.breadth = breadthOf(map);
    this.beside = bordersOf(map);
  }

  private find(k: number): number {
    const { parent } = this;
    while (parent[k] !== k) k = parent[k] = parent[parent[k]];
    return k;
  }

  /** Whether a region is not part of another by now. */
  isOwn = (k: number): boolean => this.parent[k] === k;

  /** Whether it is no area of its own: too small, too thin, or the border of two, out of focus. */
  isLess = (k: number): boolean => this.size[k] < this.smallest || this.breadth[k] < THIN || this.isBetween(k);

  /** The neighbours of a region as they are by now, each with the length of their border. */
  private neighbours(k: number): Map<number, number> {
    const found = new Map<number, number>();
    for (const [other, length] of this.beside[k]) {
      const to = this.find(other);
      if (to !== k) found.set(to, (found.get(to) ?? 0) + length);
    }
    return found;
  }

  /** Whether a long band goes over from one of its neighbours to the other. */
  private isBetween(k: number): boolean {
    const broad = this.breadth[k];
    if (broad > BAND.broad || this.size[k] < BAND.long * broad * broad) return false;
    const [a, b] = [...this.neighbours(k)].sort((p, q) => q[1] - p[1]).map(([to]) => meanAt(this.mean, to));
    if (!b) return false;
    const [whole, own] = [labDistance(a, b), meanAt(this.mean, k)];
    const [before, after] = [labDistance(a, own), labDistance(own, b)];
    return before + after < BAND.aside * whole && Math.max(before, after) < BAND.middle * whole;
  }

  /** Makes a region part of the neighbour that is most like it; of two that are about as like, that along which it lies longer. */
  absorb(k: number): void {
    const { size, mean } = this;
    const neighbours = this.neighbours(k);
    let [to, least] = [-1, Infinity];
    for (const [other, length] of neighbours) {
      const far = labDistance(meanAt(mean, k), meanAt(mean, other)) / Math.sqrt(length);
      if (far < least) [to, least] = [other, far];
    }
    if (to < 0) return;
    this.parent[k] = to;
    // A border is of mixed colour: it does not tell what its area is like.
    const weight = size[k] < this.smallest ? size[k] : 0;
    for (let c = 0; c < 3; c++)
      mean[3 * to + c] = (mean[3 * to + c] * size[to] + mean[3 * k + c] * weight) / (size[to] + weight);
    size[to] += size[k];
    this.breadth[to] = Math.max(this.breadth[to], this.breadth[k]);
    for (const [other, length] of neighbours) {
      if (other === to) continue;
      this.beside[to].set(other, (this.beside[to].get(other) ?? 0) + length);
      this.beside[other].set(to, (this.beside[other].get(to) ?? 0) + length);
    }
  }

  /** What is left, numbered anew. */
  regions(): Regions {
    const { map, size, mean } = this;
    const kept = Array.from({ length: map.count }, (_, k) => k).filter(this.isOwn);
    const number = new Int32Array(map.count);
    kept.forEach((k, m) => (number[k] = m));
    return {
      ...map,
      count: kept.length,
      label: map.label.map((k) => number[this.find(k)]),
      size: Int32Array.from(kept, (k) => size[k]),
      mean: Float32Array.from(kept.flatMap((k) => [...meanAt(mean, k)])),
    };
  }
}

function bordersOf({ width, label, count }: Regions): Map<number, number>[] {
  const beside = Array.from({ length: count }, () => new Map<number, number>());
  const meet = (a: number, b: number): void => {
    if (a === b) return;
    beside[a].set(b, (beside[a].get(b) ?? 0) + 1);
    beside[b].set(a, (beside[b].get(a) ?? 0) + 1);
  };
  for (let i = 0; i < label.length; i++) {
    if (i % width < width - 1) meet(label[i], label[i + 1]);
    if (i + width < label.length) meet(label[i], label[i + width]);
  }
  return beside;
}

/** How broad each region is where it is broadest, px: twice the longest way from a pixel of it, by rows and columns, to what is not. */
function breadthOf({ width, label, count }: Regions): Float32Array {
  const n = label.length;
  const depth = new Uint16Array(n);
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
