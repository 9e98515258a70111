import type { Point } from '../geometry/point';

/**
 * A way between two junctions of a skeleton, or to a free end (null). Points run from junction `a` to junction `b`;
 * `radius` is half the width of its ink, the median along it.
 */
export type Branch = { points: Point[]; radius: number; a: Junction | null; b: Junction | null };

/** Where branches meet: the places, with half the width of the ink there. Ways that end in a tip together end at `tip`. */
export type Junction = { discs: { at: Point; radius: number }[]; tip: Point | null };

/** A skeleton as branches and the junctions between them; branches without junctions that come back to their start are rings. */
export type StrokeGraph = { branches: Branch[]; rings: Point[][] };

/**
 * Reads a skeleton of one pixel's width as a graph. Points are the middles of pixels. `radius` is the distance field of
 * the ink. Pixels that touch and have three or more neighbours make one junction.
 */
export function strokeGraph(skeleton: Uint8Array, radius: Float32Array, width: number, height: number): StrokeGraph {
  const around = (i: number): number[] => {
    const [x, y] = [i % width, Math.floor(i / width)];
    const list: number[] = [];
    for (let dy = -1; dy <= 1; dy++) {
      for (let dx = -1; dx <= 1; dx++) {
        const [u, v] = [x + dx, y + dy];
        if ((dx !== 0 || dy !== 0) && u >= 0 && v >= 0 && u < width && v < height && skeleton[v * width + u])
          list.push(v * width + u);
      }
    }
    return list;
  };
  const middle = (i: number): Point => ({ x: (i % width) + 0.5, y: Math.floor(i / width) + 0.5 });
  const pixels: number[] = [];
  for (let i = 0; i < skeleton.length; i++) if (skeleton[i]) pixels.push(i);
  const degree = new Map(pixels.map((i) => [i, around(i).length]));

  const junctionAt = new Map<number, Junction>();
  for (const start of pixels) {
    if (degree.get(start)! < 3 || junctionAt.has(start)) continue;
    const cluster = [start];
    const junction: Junction = { discs: [], tip: null };
    junctionAt.set(start, junction);
    for (let k = 0; k < cluster.length; k++) {
      for (const j of around(cluster[k])) {
        if (degree.get(j)! < 3 || junctionAt.has(j)) continue;
        junctionAt.set(j, junction);
        cluster.push(j);
      }
    }
    const middles = cluster.map(middle);
    const at = {
      x: middles.reduce((sum, p) => sum + p.x, 0) / middles.length,
      y: middles.reduce((sum, p) => sum + p.y, 0) / middles.length,
    };
    junction.discs.push({ at, radius: Math.max(...cluster.map((i) => radius[i])) });
  }

  const medianOf = (path: readonly number[]): number => {
    const sorted = path.map((i) => radius[i]).sort((a, b) => a - b);
    return sorted[sorted.length >> 1] ?? 1;
  };
  const walked = new Set<number>();
  const branches: Branch[] = [];
  /** Follows the pixels from `first`, coming from `from`, to the next junction or end. */
  const follow = (from: number, first: number): { path: number[]; end: Junction | null } => {
    const path: number[] = [];
    let [last, at] = [from, first];
    for (;;) {
      const junction = junctionAt.get(at);
      if (junction) return { path, end: junction };
      walked.add(at);
      path.push(at);
      // Beside the junction it comes from, a way may touch several of its pixels: those do not end it.
      const own = path.length === 1 && from >= 0 ? junctionAt.get(from) : undefined;
      const next = around(at).filter((j) => j !== last && !walked.has(j) && !(own && junctionAt.get(j) === own));
      const onward = next.find((j) => junctionAt.has(j)) ?? next[0];
      if (onward === undefined) return { path, end: null };
      [last, at] = [at, onward];
    }
  };
  for (const [start, junction] of junctionAt) {
    for (const first of around(start)) {
      if (junctionAt.has(first) || walked.has(first)) continue;
      const { path, end } = follow(start, first);
      branches.push({ points: path.map(middle), radius: medianOf(path), a: junction, b: end });
    }
  }
  for (const start of pixels) {
    if (walked.has(start) || junctionAt.has(start) || degree.get(start)! > 1) continue;
    const { path } = follow(-1, start);
    branches.push({ points: path.map(middle), radius: medianOf(path), a: null, b: null });
  }
  const rings: Point[][] = [];
  for (const start of pixels) {
    if (walked.has(start) || junctionAt.has(start)) continue;
    rings.push(follow(-1, start).path.map(middle));
  }
  return { branches, rings };
}

export const polylineLength = (points: readonly Point[]): number =>
  points.reduce((sum, p, i) => (i === 0 ? 0 : sum + Math.hypot(p.x - points[i - 1].x, p.y - points[i - 1].y)), 0);
