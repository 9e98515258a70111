import { turn, type Vertices } from './grid';
import type { Joint } from './joints';
import type { NearPieces } from './nearPieces';
import type { Pieces } from './pieces';
import { Splits } from './splits';

/** A piece passes through each vertex that lies this near to it: a step, squared. */
const NEAR = 1;
/** What lies within so many steps of a crossing that is rounded can come to lie on its other side. */
const BESIDE = 2;
const MOST_ROUNDS = 12;
/** Pieces of one curve that follow each other lie together: so many are looked for at once. */
const TOGETHER = 4;

/** What else is to be looked for. */
export type Besides = {
  /** Hears of two pieces within `reach` of each other that do not meet. */
  readonly passing: (i: number, j: number) => void;
  /** Straight pieces more, between vertices, once all that run past each other are known. */
  readonly joints: () => readonly Joint[];
};

/**
 * Divides pieces wherever they cross or pass a vertex, so that they meet at vertices and nowhere else. Crossings are
 * rounded to the grid; what has been moved by that, or by `asked`, and might lie across something else now, is divided
 * again, until nothing is left to divide. `near` finds `pieces`; `reach` is in steps. Gives how many whole pieces there are.
 * Source: Hobby 1999, "Practical segment intersection with finite precision output" (snap rounding); Halperin and Packer
 * 2002, "Iterated snap rounding".
 */
export function roundBySnapping(
  vertices: Vertices,
  pieces: Pieces,
  near: NearPieces,
  asked: Splits,
  reach: number,
  { passing, joints }: Besides,
): number {
  const curved = pieces.length;
  new Meetings(vertices, pieces, near, asked, reach, passing).among(null);
  const added = joints().map(({ a, b, source }) => pieces.add(a, b, source, 0, 1));
  near.cover(curved);
  const wholes = pieces.length;
  let fresh = [...asked.divide(vertices, pieces), ...added];
  for (let round = 1; round < MOST_ROUNDS && fresh.length > 0; round++) {
    const splits = new Splits();
    new Meetings(vertices, pieces, near, splits, BESIDE, null).among(fresh);
    fresh = splits.divide(vertices, pieces);
  }
  return wholes;
}

/** Whether the stretches between two and two other vertices lie within `r` of each other along one axis. */
const isWithinOf = (at: readonly number[], a: number, b: number, c: number, d: number, r: number): boolean =>
  Math.min(at[c], at[d]) <= Math.max(at[a], at[b]) + r && Math.max(at[c], at[d]) >= Math.min(at[a], at[b]) - r;

/** Finds where pieces cross or pass vertices. */
class Meetings {
  /** Crossings beside which something else lies. */
  private readonly crowded = new Set<number>();

  constructor(
    private readonly v: Vertices,
    private readonly p: Pieces,
    private readonly near: NearPieces,
    private readonly splits: Splits,
    private readonly reach: number,
    private readonly passing: Besides['passing'] | null,
  ) {}

  /** Among all pieces; or of pairs of which one is of `fresh`. */
  among(fresh: readonly number[] | null): void {
    const { p } = this;
    const r = Math.max(BESIDE, this.reach);
    if (fresh) {
      const isFresh = new Uint8Array(p.length);
      for (const i of fresh) isFresh[i] = 1;
      for (const i of fresh)
        this.around(i, i + 1, r, (j) => (j > i || (j !== i && isFresh[j] === 0)) && this.meet(i, j));
    } else {
      for (let from = 0, to = 0; from < p.length; from = to) {
        for (to = from + 1; to < p.length && to - from < TOGETHER && p.source[to] === p.source[from];) to++;
        this.around(from, to, r, (j) => {
          for (let i = from; i < to && i < j; i++) if (this.isNear(i, j, r)) this.meet(i, j);
        });
      }
    }
    this.splits.moveAt(this.crowded);
  }
  /** Visits what lies within `r` steps of the box of some pieces, from one on and before another. */
  private around(from: number, to: number, r: number, visit: (piece: number) => void): void {
    const { x, y } = this.v;
    let [minX, minY, maxX, maxY] = [Infinity, Infinity, -Infinity, -Infinity];
    for (let i = from; i < to; i++)
      for (const v of [this.p.from[i], this.p.to[i]]) {
        minX = Math.min(minX, x[v]);
        minY = Math.min(minY, y[v]);
        maxX = Math.max(maxX, x[v]);
        maxY = Math.max(maxY, y[v]);
      }
    this.near.search(minX - r, minY - r, maxX + r, maxY + r, visit);
  }

  /** Whether the boxes of two pieces lie within `r` steps of each other. */
  private isNear(i: number, j: number, r: number): boolean {
    const { from, to } = this.p;
    return (
      isWithinOf(this.v.x, from[i], to[i], from[j], to[j], r) && isWithinOf(this.v.y, from[i], to[i], from[j], to[j], r)
    );
  }

  private meet(i: number, j: number): void {
    const { x, y } = this.v;
    const a = this.p.from[i];
    const b = this.p.to[i];
    const c = this.p.from[j];
    const d = this.p.to[j];
    const isApart = a !== c && a !== d && b !== c && b !== d;
    let passed = false;
    if (c !== a && c !== b && this.passes(i, a, b, c)) passed = true;
    if (d !== a && d !== b && this.passes(i, a, b, d)) passed = true;
    if (a !== c && a !== d && this.passes(j, c, d, a)) passed = true;
    if (b !== c && b !== d && this.passes(j, c, d, b)) passed = true;
    if (passed || !isApart) return;
    const g = turn(this.v, c, d, a);
    const h = turn(this.v, c, d, b);
    if (g > 0 === h > 0 || turn(this.v, a, b, c) > 0 === turn(this.v, a, b, d) > 0) {
      this.passing?.(i, j);
      return;
    }
    const s = g / (g - h);
    const before = this.v.x.length;
    const crossing = this.v.onGrid(Math.round(x[a] + s * (x[b] - x[a])), Math.round(y[a] + s * (y[b] - y[a])));
    this.splits.add(i, crossing, false);
    this.splits.add(j, crossing, false);
    if (crossing < before || this.isCrowded(crossing, i, j)) this.crowded.add(crossing);
  }

  /** Divides a piece at a vertex that lies on it, or next to it. */
  private passes(piece: number, a: number, b: number, c: number): boolean {
    const { x, y } = this.v;
    const dx = x[b] - x[a];
    const dy = y[b] - y[a];
    const ex = x[c] - x[a];
    const ey = y[c] - y[a];
    const area = dx * ey - dy * ex;
    const squared = dx * dx + dy * dy;
    if (area * area > NEAR * squared) return false;
    const along = dx * ex + dy * ey;
    if (along <= 0 || along >= squared) return false;
    this.splits.add(piece, c, area !== 0);
    return true;
  }

  /** Whether anything but two pieces lies beside their crossing. */
  private isCrowded(vertex: number, i: number, j: number): boolean {
    const { x, y } = this.v;
    let found = false;
    const [px, py] = [x[vertex], y[vertex]];
    this.near.search(px - BESIDE, py - BESIDE, px + BESIDE, py + BESIDE, (k) => {
      if (k !== i && k !== j && !found) {
        const a = this.p.from[k];
        const b = this.p.to[k];
        const area = (x[b] - x[a]) * (py - y[a]) - (y[b] - y[a]) * (px - x[a]);
        const squared = (x[b] - x[a]) ** 2 + (y[b] - y[a]) ** 2;
        found = area * area <= BESIDE * BESIDE * squared;
      }
    });
    return found;
  }
}
