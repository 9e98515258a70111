import type Flatbush from 'flatbush';
import type { Joint } from './joints';
import { indexOf, turn, type Pieces, type Vertices } from './grid';
import { Splits } from './splits';

/** A piece passes through each vertex that lies this near to it: a step, squared. */
const NEAR = 1;
/** What lies within so many steps of a crossing that is rounded can come to lie on its other side. */
const BESIDE = 2;
const MOST_ROUNDS = 12;

/** What else is to be looked for. */
export type Besides = {
  /** Hears of two pieces within `reach` of each other that do not meet. */
  readonly passing: (i: number, j: number) => void;
  /** Straight pieces more, between vertices, once all that run past each other are known. */
  readonly joints: () => readonly Joint[];
};

/**
 * Pieces divided wherever they cross or pass a vertex, so that they meet at vertices and nowhere else. Crossings are
 * rounded to the grid; what has been moved by that, or by `asked`, and might lie across something else now, is divided
 * again, until nothing is left to divide. `index` finds `pieces`; `reach` is in steps.
 * Source: Hobby 1999, "Practical segment intersection with finite precision output" (snap rounding); Halperin and Packer
 * 2002, "Iterated snap rounding".
 */
export function snapRounded(
  vertices: Vertices,
  pieces: Pieces,
  index: Flatbush,
  asked: Splits,
  reach: number,
  { passing, joints }: Besides,
): Pieces {
  let splits = asked;
  new Meetings(vertices, pieces, index, splits, reach, passing).among(null);
  const more = joints();
  let now = pieces;
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const { pieces: next, fresh } = splits.divided(vertices, now);
    now = next;
    if (round === 0) for (const { a, b, source } of more) fresh.push(now.add(a, b, source, 0, 1));
    if (fresh.length === 0) break;
    splits = new Splits();
    new Meetings(vertices, now, indexOf(vertices, now)!, splits, BESIDE, null).among(fresh);
  }
  return now;
}

/** Finds where pieces cross or pass vertices. */
class Meetings {
  /** Crossings beside which something else lies. */
  private readonly crowded = new Set<number>();

  constructor(
    private readonly v: Vertices,
    private readonly p: Pieces,
    private readonly index: Flatbush,
    private readonly splits: Splits,
    private readonly reach: number,
    private readonly passing: Besides['passing'] | null,
  ) {}

  /** Among all pieces; or of pairs of which one is of `fresh`. */
  among(fresh: readonly number[] | null): void {
    const { p, index } = this;
    const { x, y } = this.v;
    const r = Math.max(BESIDE, this.reach);
    const isFresh = fresh ? new Uint8Array(p.length) : null;
    if (fresh) for (const i of fresh) isFresh![i] = 1;
    const count = fresh ? fresh.length : p.length;
    for (let k = 0; k < count; k++) {
      const i = fresh ? fresh[k] : k;
      const a = p.from[i];
      const b = p.to[i];
      const minX = Math.min(x[a], x[b]) - r;
      const minY = Math.min(y[a], y[b]) - r;
      const maxX = Math.max(x[a], x[b]) + r;
      const maxY = Math.max(y[a], y[b]) + r;
      index.search(minX, minY, maxX, maxY, (j) => {
        if (j > i || (isFresh && j !== i && isFresh[j] === 0)) this.meet(i, j);
        return false;
      });
    }
    this.splits.moveAt(this.crowded);
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
    this.index.search(px - BESIDE, py - BESIDE, px + BESIDE, py + BESIDE, (k) => {
      if (k !== i && k !== j && !found) {
        const a = this.p.from[k];
        const b = this.p.to[k];
        const area = (x[b] - x[a]) * (py - y[a]) - (y[b] - y[a]) * (px - x[a]);
        const squared = (x[b] - x[a]) ** 2 + (y[b] - y[a]) ** 2;
        found = area * area <= BESIDE * BESIDE * squared;
      }
      return false;
    });
    return found;
  }
}
