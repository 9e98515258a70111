import { hullBox } from '../geometry/bounds';
import { boxesMeet } from '../geometry/box';
import { evaluate, type Cubic } from '../geometry/cubic';
import type { Box } from '../geometry/point';
import type { Vertices } from './grid';

/**
 * Straight pieces between vertices: each stands for the part of a curve (`source`) between two of its parameters. One that
 * is divided stays as its own first part; `next` leads from each part to the one after it, -1 after the last.
 */
export class Pieces {
  readonly from: number[] = [];
  readonly to: number[] = [];
  readonly source: number[] = [];
  readonly t0: number[] = [];
  readonly t1: number[] = [];
  readonly next: number[] = [];

  get length(): number {
    return this.from.length;
  }

  add(from: number, to: number, source: number, t0: number, t1: number): number {
    this.from.push(from);
    this.to.push(to);
    this.source.push(source);
    this.t0.push(t0);
    this.t1.push(t1);
    return this.next.push(-1) - 1;
  }

  /** Ends a piece at a vertex, at a parameter, and goes on from there to where it ended. Gives the part after. */
  cut(piece: number, vertex: number, t: number): number {
    const rest = this.add(vertex, this.to[piece], this.source[piece], t, this.t1[piece]);
    this.to[piece] = vertex;
    this.t1[piece] = t;
    this.next[rest] = this.next[piece];
    this.next[piece] = rest;
    return rest;
  }

  /** The first `count` with their parts right after them, in their order; and the number of each one's first part. */
  inOrder(count: number): { pieces: Pieces; first: Int32Array } {
    const pieces = new Pieces();
    const first = new Int32Array(count);
    for (let whole = 0; whole < count; whole++) {
      first[whole] = pieces.length;
      for (let i = whole; i >= 0; i = this.next[i]) {
        const added = pieces.add(this.from[i], this.to[i], this.source[i], this.t0[i], this.t1[i]);
        if (this.next[i] >= 0) pieces.next[added] = added + 1;
      }
    }
    return { pieces, first };
  }
}

const MOST_PIECES = 512;

/** So many pieces follow a cubic within `tolerance`: its second derivative bounds how far chords stray from it. */
function piecesOf([a, b, c, d]: Cubic, tolerance: number): number {
  const first = Math.hypot(a.x - 2 * b.x + c.x, a.y - 2 * b.y + c.y);
  const second = Math.hypot(b.x - 2 * c.x + d.x, b.y - 2 * c.y + d.y);
  const n = Math.ceil(Math.sqrt((6 * Math.max(first, second)) / (8 * tolerance)));
  return Math.max(1, Math.min(MOST_PIECES, n || 1));
}

/** Whether the box of a piece between two vertices meets a box of the page. */
function meetsBox(vertices: Vertices, from: number, to: number, box: Box): boolean {
  const [a, b] = [vertices.place(from), vertices.place(to)];
  return !(
    (a.x < box.minX && b.x < box.minX) ||
    (a.x > box.maxX && b.x > box.maxX) ||
    (a.y < box.minY && b.y < box.minY) ||
    (a.y > box.maxY && b.y > box.maxY)
  );
}

/**
 * Curves as chains of straight pieces within `tolerance` of them, cut evenly, so that a curve and the same one the other
 * way give the same; a curve that is no longer than a step of the grid gives none; with `within` only those that meet that box.
 */
export function straightPieces(
  curves: readonly Cubic[],
  vertices: Vertices,
  tolerance: number,
  within: Box | null,
): Pieces {
  const pieces = new Pieces();
  curves.forEach((c, source) => {
    if (within && !boxesMeet(hullBox(c), within)) return;
    const n = piecesOf(c, tolerance);
    let from = vertices.at(c[0], true);
    let t0 = 0;
    for (let i = 1; i <= n; i++) {
      const t1 = i / n;
      const to = i === n ? vertices.at(c[3], true) : vertices.at(evaluate(c, t1));
      if (to === from) continue;
      if (!within || meetsBox(vertices, from, to, within)) pieces.add(from, to, source, t0, t1);
      from = to;
      t0 = t1;
    }
  });
  return pieces;
}
