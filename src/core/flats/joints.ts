import { straightCubic, type Cubic } from '../geometry/cubic';
import type { Point } from '../geometry/point';
import type { Vertices } from './grid';
import type { Pieces } from './pieces';
import { Splits } from './splits';

/** A place on a curve: at a parameter of one of them, by its number. */
export type OnCurve = { readonly curve: number; readonly t: number; readonly point: Point };

/** A straight piece more, between two vertices; `source` is its number among the curves. */
export type Joint = { readonly a: number; readonly b: number; readonly source: number };

/** Joins places of curves by straight pieces, and has the pieces that they lie on divided there. */
export class Joints {
  /** The curves, and after them those that join. */
  readonly sources: Cubic[];
  readonly list: Joint[] = [];
  readonly splits = new Splits();
  private readonly starts: Int32Array;

  constructor(
    curves: readonly Cubic[],
    private readonly vertices: Vertices,
    private readonly pieces: Pieces,
  ) {
    this.sources = [...curves];
    this.starts = new Int32Array(curves.length + 1);
    for (let i = 0; i < pieces.length; i++) this.starts[pieces.source[i] + 1]++;
    for (let k = 0; k < curves.length; k++) this.starts[k + 1] += this.starts[k];
  }

  join(from: OnCurve, to: OnCurve): void {
    const [a, b] = [this.divided(from), this.divided(to)];
    if (a !== b) this.list.push({ a, b, source: this.sources.push(straightCubic(from.point, to.point)) - 1 });
  }

  /** The vertex at a place of a curve, whose piece is to be divided there where it only passes. */
  private divided({ curve, t, point }: OnCurve): number {
    const vertex = this.vertices.at(point, true);
    const piece = this.pieceAt(curve, t);
    if (piece >= 0 && vertex !== this.pieces.from[piece] && vertex !== this.pieces.to[piece])
      this.splits.add(piece, vertex, true, t);
    return vertex;
  }

  /** The piece of a curve that a parameter lies on; -1 where it has none. */
  private pieceAt(curve: number, t: number): number {
    const [from, to] = [this.starts[curve], this.starts[curve + 1]];
    for (let i = from; i < to; i++) if (t <= this.pieces.t1[i]) return i;
    return to - 1 >= from ? to - 1 : -1;
  }
}
