import type { Vertices } from './grid';
import type { Pieces } from './pieces';

/**
 * Where pieces are to be divided: at which vertex, and at which parameter (NaN where that is to be told from the place).
 * A piece is `moved` by one that lies off it by more than the rounding of a crossing.
 */
export class Splits {
  private readonly piece: number[] = [];
  private readonly vertex: number[] = [];
  private readonly t: number[] = [];
  private readonly moved: number[] = [];

  get length(): number {
    return this.piece.length;
  }

  add(piece: number, vertex: number, moves: boolean, t = NaN): void {
    this.piece.push(piece);
    this.vertex.push(vertex);
    this.t.push(t);
    this.moved.push(moves ? 1 : 0);
  }

  /** Marks all divisions at some vertices as moving their pieces. */
  moveAt(vertices: ReadonlySet<number>): void {
    if (vertices.size === 0) return;
    for (let k = 0; k < this.vertex.length; k++) if (vertices.has(this.vertex[k])) this.moved[k] = 1;
  }

  /** Divides the pieces. Gives those parts that are of a piece that is moved. */
  divide({ x, y }: Vertices, p: Pieces): number[] {
    const fresh: number[] = [];
    const wholes = p.length;
    const start = new Int32Array(wholes + 1);
    for (const i of this.piece) start[i + 1]++;
    for (let i = 0; i < wholes; i++) start[i + 1] += start[i];
    const fill = start.slice(0, wholes);
    const order = new Int32Array(this.piece.length);
    for (let k = 0; k < order.length; k++) order[fill[this.piece[k]]++] = k;
    const share = new Float64Array(order.length);
    for (let i = 0; i < wholes; i++) {
      const first = start[i];
      const end = start[i + 1];
      if (first === end) continue;
      const a = p.from[i];
      const dx = x[p.to[i]] - x[a];
      const dy = y[p.to[i]] - y[a];
      const [t0, t1] = [p.t0[i], p.t1[i]];
      let moves = false;
      for (let n = first; n < end; n++) {
        const k = order[n];
        const v = this.vertex[k];
        const along = ((x[v] - x[a]) * dx + (y[v] - y[a]) * dy) / (dx * dx + dy * dy);
        const s = Number.isNaN(this.t[k]) ? along : (this.t[k] - t0) / (t1 - t0);
        share[k] = Math.min(1, Math.max(0, s));
        moves ||= this.moved[k] === 1;
      }
      sortBy(share, order, first, end);
      let part = i;
      for (let n = first; n < end; n++) {
        const v = this.vertex[order[n]];
        if (v === p.from[part]) continue;
        if (v === p.to[part] && this.isAll(v, order, n + 1, end)) break;
        const rest = p.cut(part, v, t0 + share[order[n]] * (t1 - t0));
        if (moves) fresh.push(part);
        part = rest;
      }
      if (moves) fresh.push(part);
    }
    return fresh;
  }

  /** Whether a stretch of divisions are all at one vertex. */
  private isAll(vertex: number, order: Int32Array, from: number, to: number): boolean {
    for (let n = from; n < to; n++) if (this.vertex[order[n]] !== vertex) return false;
    return true;
  }
}

const FEW = 24;

/** Sorts a stretch of a list by values: few are put in one after the other, which is quickest. */
function sortBy(values: Float64Array, list: Int32Array, from: number, to: number): void {
  if (to - from > FEW) {
    list.subarray(from, to).sort((m, n) => values[m] - values[n]);
    return;
  }
  for (let i = from + 1; i < to; i++) {
    const k = list[i];
    let j = i - 1;
    for (; j >= from && values[list[j]] > values[k]; j--) list[j + 1] = list[j];
    list[j + 1] = k;
  }
}
