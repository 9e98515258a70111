import { Pieces, type Vertices } from './grid';

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

  /** Pieces divided, and which of the new ones are of a piece that is moved. */
  divided({ x, y }: Vertices, p: Pieces): { pieces: Pieces; fresh: number[] } {
    const pieces = new Pieces();
    const fresh: number[] = [];
    const start = new Int32Array(p.length + 1);
    for (const i of this.piece) start[i + 1]++;
    for (let i = 0; i < p.length; i++) start[i + 1] += start[i];
    const fill = start.slice(0, p.length);
    const order = new Int32Array(this.piece.length);
    for (let k = 0; k < order.length; k++) order[fill[this.piece[k]]++] = k;
    const share = new Float64Array(order.length);
    for (let i = 0; i < p.length; i++) {
      const a = p.from[i];
      const b = p.to[i];
      if (start[i] === start[i + 1]) {
        pieces.add(a, b, p.source[i], p.t0[i], p.t1[i]);
        continue;
      }
      const own = order.subarray(start[i], start[i + 1]);
      const dx = x[b] - x[a];
      const dy = y[b] - y[a];
      let moves = false;
      for (const k of own) {
        const v = this.vertex[k];
        const along = ((x[v] - x[a]) * dx + (y[v] - y[a]) * dy) / (dx * dx + dy * dy);
        const s = Number.isNaN(this.t[k]) ? along : (this.t[k] - p.t0[i]) / (p.t1[i] - p.t0[i]);
        share[k] = Math.min(1, Math.max(0, s));
        moves ||= this.moved[k] === 1;
      }
      if (own.length > 1) own.sort((m, n) => share[m] - share[n]);
      let from = a;
      let t = p.t0[i];
      const to = (vertex: number, at: number): void => {
        if (vertex === from) return;
        const added = pieces.add(from, vertex, p.source[i], t, at);
        if (moves) fresh.push(added);
        from = vertex;
        t = at;
      };
      for (const k of own) to(this.vertex[k], p.t0[i] + share[k] * (p.t1[i] - p.t0[i]));
      to(b, p.t1[i]);
    }
    return { pieces, fresh };
  }
}
