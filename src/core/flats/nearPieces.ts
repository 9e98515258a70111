import Flatbush from 'flatbush';
import type { Vertices } from './grid';
import type { Pieces } from './pieces';

/** Finds pieces by where they lie on the grid, as whole ones were covered: parts of them are found by way of these. */
export class NearPieces {
  private readonly layers: { readonly index: Flatbush; readonly from: number }[] = [];

  /** Parts lie no further than `slack` steps beside the whole piece. `first`: by which part each whole one begins. */
  constructor(
    private readonly vertices: Vertices,
    private readonly pieces: Pieces,
    private readonly slack: number,
    private readonly first: Int32Array | null = null,
  ) {}

  /** Covers the pieces from a number on, each as a whole one. */
  cover(from: number): void {
    const { x, y } = this.vertices;
    const p = this.pieces;
    if (p.length === from) return;
    const index = new Flatbush(p.length - from, 16, Int32Array);
    const r = Math.ceil(this.slack);
    for (let i = from; i < p.length; i++) {
      const a = p.from[i];
      const b = p.to[i];
      index.add(Math.min(x[a], x[b]) - r, Math.min(y[a], y[b]) - r, Math.max(x[a], x[b]) + r, Math.max(y[a], y[b]) + r);
    }
    index.finish();
    this.layers.push({ index, from });
  }

  /** The same for the same pieces in order: see `Pieces.inOrder`. */
  inOrder(pieces: Pieces, first: Int32Array): NearPieces {
    const near = new NearPieces(this.vertices, pieces, this.slack, first);
    near.layers.push(...this.layers);
    return near;
  }

  /** Visits each piece whose box meets a box, in steps. */
  search(minX: number, minY: number, maxX: number, maxY: number, visit: (piece: number) => void): void {
    const { x, y } = this.vertices;
    const { from: tails, to: heads, next } = this.pieces;
    for (const { index, from } of this.layers)
      index.search(minX, minY, maxX, maxY, (k) => {
        for (let i = this.first ? this.first[from + k] : from + k; i >= 0; i = next[i]) {
          const a = tails[i];
          const b = heads[i];
          const isBeside =
            (x[a] < minX && x[b] < minX) ||
            (x[a] > maxX && x[b] > maxX) ||
            (y[a] < minY && y[b] < minY) ||
            (y[a] > maxY && y[b] > maxY);
          if (!isBeside) visit(i);
        }
        return false;
      });
  }
}
