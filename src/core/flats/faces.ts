import { HALF, type Vertices } from './grid';
import type { NearPieces } from './nearPieces';
import type { Pieces } from './pieces';

/**
 * A half-edge is a piece in one of its two directions: 2i is piece i as it is, 2i + 1 the other way. What lies to the left
 * of it (y up; to the right on the page) is its face.
 */
export type HalfEdge = number;

/** A closed walk: a stretch of a list of half-edges, from one place on and before another. */
export type Walk = { readonly edges: ArrayLike<HalfEdge>; readonly from: number; readonly to: number };

/** With twice the area within, above 0 where it goes round a face, below where round what is none. */
type Loop = Walk & { readonly doubled: number };

/** A bounded face: the walk around it, and those around what lies within it. */
export type Face = { readonly outer: Walk; readonly holes: Walk[] };

/** A place's face is looked for within so much of all, then so many times as far. */
const NEAR = 1 / 64;
const WIDER = 8;

/** The faces of pieces that meet at vertices only, each bounded one once. */
export class Faces {
  readonly list: Face[] = [];
  private readonly loops: Loop[];
  private readonly loopOf: Int32Array;
  /** The face of each loop; -1 for the outside. */
  private readonly faceOf: Int32Array;
  /** 1 for each piece that bounds something. */
  private readonly bounds: Uint8Array;

  constructor(
    private readonly vertices: Vertices,
    private readonly pieces: Pieces,
    private readonly near: NearPieces,
  ) {
    const bounds = withoutTwins(vertices, pieces);
    const sides = walksOf(pieces, nextOf(vertices, pieces, bounds));
    // A piece with the same face to both its sides bounds nothing.
    for (let i = 0; i < pieces.length; i++) if (sides[2 * i] === sides[2 * i + 1]) bounds[i] = 0;
    const { loops, loopOf } = loopsOf(vertices, pieces, bounds);
    [this.loops, this.loopOf, this.bounds] = [loops, loopOf, bounds];
    this.faceOf = new Int32Array(loops.length).fill(-1);
    loops.forEach((l, i) => {
      if (l.doubled <= 0) return;
      this.faceOf[i] = this.list.length;
      this.list.push({ outer: l, holes: [] });
    });
    this.nest();
  }

  /** The number of the face that holds a place of the grid; -1 for the outside. */
  at(x: number, y: number): number {
    return this.faceLeftOf(x, y);
  }

  /** Each walk around what is none belongs to the face that lies to the left of its leftmost vertex. */
  private nest(): void {
    const { x, y } = this.vertices;
    const outsides = this.loops.flatMap((l, loop) => {
      if (l.doubled > 0) return [];
      let first = -1;
      for (let k = l.from; k < l.to; k++) {
        const v = tailOf(this.pieces, l.edges[k]);
        if (first < 0 || x[v] < x[first] || (x[v] === x[first] && y[v] < y[first])) first = v;
      }
      return [{ loop, first }];
    });
    outsides.sort((a, b) => x[a.first] - x[b.first]);
    for (const { loop, first } of outsides) {
      const face = this.faceLeftOf(x[first], y[first]);
      this.faceOf[loop] = face;
      if (face >= 0) this.list[face].holes.push(this.loops[loop]);
    }
  }

  /** The face beside a place, along a ray to the left; -1 for the outside. */
  private faceLeftOf(px: number, py: number): number {
    // What it meets first is looked for nearby, and further off only where nothing is.
    for (let wide = 2 * HALF * NEAR; ; wide *= WIDER) {
      const first = this.meets(px, py, wide);
      if (first && first.at >= px - wide) return this.faceOf[this.loopOf[first.edge]];
      if (wide > 2 * HALF) return -1;
    }
  }

  /** What a ray to the left meets first, of what is no further off than so many steps, and some beyond. */
  private meets(px: number, py: number, wide: number): { at: number; edge: HalfEdge } | null {
    const { x, y } = this.vertices;
    let best: { at: number; slope: number; edge: HalfEdge } | null = null;
    this.near.search(px - wide, py, px, py, (i) => {
      if (this.bounds[i] === 0) return;
      const a = this.pieces.from[i];
      const b = this.pieces.to[i];
      const low = y[a] < y[b] ? a : b;
      const high = low === a ? b : a;
      // Half open: a vertex on the ray counts with what lies above it only.
      if (y[low] > py || y[high] <= py) return;
      const slope = (x[high] - x[low]) / (y[high] - y[low]);
      const at = x[low] + (py - y[low]) * slope;
      if (at >= px) return;
      if (!best || at > best.at || (at === best.at && slope > best.slope))
        best = { at, slope, edge: high === a ? 2 * i : 2 * i + 1 };
    });
    return best;
  }
}

export const tailOf = (p: Pieces, h: HalfEdge): number => (h & 1 ? p.to[h >> 1] : p.from[h >> 1]);
export const headOf = (p: Pieces, h: HalfEdge): number => (h & 1 ? p.from[h >> 1] : p.to[h >> 1]);

/** The number of the closed walk that each half-edge is on; -1 for those that are on none. */
function walksOf(p: Pieces, next: Int32Array): Int32Array {
  const walk = new Int32Array(2 * p.length).fill(-1);
  let count = 0;
  for (let start = 0; start < next.length; start++) {
    if (walk[start] >= 0 || next[start] < 0) continue;
    for (let h = start; walk[h] < 0; h = next[h]) walk[h] = count;
    count++;
  }
  return walk;
}

/** All closed walks along the pieces that are `kept`, each turning as far left as it can. */
function loopsOf(v: Vertices, p: Pieces, kept: Uint8Array): { loops: Loop[]; loopOf: Int32Array } {
  const next = nextOf(v, p, kept);
  const loopOf = new Int32Array(2 * p.length).fill(-1);
  const loops: Loop[] = [];
  const edges = new Int32Array(2 * p.length);
  let to = 0;
  for (let start = 0; start < next.length; start++) {
    if (loopOf[start] >= 0 || next[start] < 0) continue;
    const from = to;
    let doubled = 0;
    for (let h = start; loopOf[h] < 0; h = next[h]) {
      loopOf[h] = loops.length;
      edges[to++] = h;
      const a = tailOf(p, h);
      const b = headOf(p, h);
      doubled += v.x[a] * v.y[b] - v.x[b] * v.y[a];
    }
    loops.push({ edges, from, to, doubled });
  }
  return { loops, loopOf };
}

/** The half-edges that leave each vertex, one after the other: those of vertex k from `start[k]` on. */
function leaving(v: Vertices, p: Pieces, kept: Uint8Array | null): { start: Int32Array; out: Int32Array } {
  const n = v.x.length;
  const start = new Int32Array(n + 1);
  for (let i = 0; i < p.length; i++) {
    if (kept && !kept[i]) continue;
    start[p.from[i] + 1]++;
    start[p.to[i] + 1]++;
  }
  for (let k = 0; k < n; k++) start[k + 1] += start[k];
  const fill = start.slice(0, n);
  const out = new Int32Array(start[n]);
  for (let i = 0; i < p.length; i++) {
    if (kept && !kept[i]) continue;
    out[fill[p.from[i]]++] = 2 * i;
    out[fill[p.to[i]]++] = 2 * i + 1;
  }
  return { start, out };
}

/** 1 for each piece, but of those between the same two vertices for the first only. */
function withoutTwins(v: Vertices, p: Pieces): Uint8Array {
  const kept = new Uint8Array(p.length).fill(1);
  const { start, out } = leaving(v, p, null);
  for (let k = 0; k < v.x.length; k++) {
    for (let i = start[k] + 1; i < start[k + 1]; i++) {
      const head = headOf(p, out[i]);
      for (let j = start[k]; j < i; j++) if (headOf(p, out[j]) === head) kept[out[i] >> 1] = 0;
    }
  }
  return kept;
}

/** After each half-edge the one that goes on around the same face; -1 for those that are not kept. */
function nextOf(v: Vertices, p: Pieces, kept: Uint8Array): Int32Array {
  const { start, out } = leaving(v, p, kept);
  const next = new Int32Array(2 * p.length).fill(-1);
  for (let k = 0; k < v.x.length; k++) {
    const from = start[k];
    const to = start[k + 1];
    if (to - from > 2) sortAround(v, p, k, out, from, to);
    // Arriving along the twin of one that leaves, the walk goes on along the one before it.
    for (let i = from; i < to; i++) next[out[i] ^ 1] = out[i === from ? to - 1 : i - 1];
  }
  return next;
}

/** Sorts the half-edges that leave a vertex by their angle, exactly. */
function sortAround(v: Vertices, p: Pieces, vertex: number, out: Int32Array, from: number, to: number): void {
  const dx = (h: HalfEdge): number => v.x[headOf(p, h)] - v.x[vertex];
  const dy = (h: HalfEdge): number => v.y[headOf(p, h)] - v.y[vertex];
  const half = (h: HalfEdge): number => (dy(h) > 0 || (dy(h) === 0 && dx(h) > 0) ? 0 : 1);
  out.subarray(from, to).sort((a, b) => half(a) - half(b) || dy(a) * dx(b) - dx(a) * dy(b));
}
