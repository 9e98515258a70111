import type { Cubic } from '../geometry/cubic';
import type { Point } from '../geometry/point';

/** So many steps of the grid to half the extent: products of two differences stay whole numbers below 2^53. */
export const HALF = 2 ** 23;

/**
 * Places on a whole-numbered grid about some curves, each once: the finest on which a turn to the left or right, told
 * from differences of coordinates, is exact in doubles.
 */
export class Vertices {
  /** On the grid. */
  readonly x: number[] = [];
  readonly y: number[] = [];
  /** Page units a step, and across all. */
  readonly step: number;
  readonly extent: number;
  private readonly centre: Point;
  /** Places of the page that vertices stand for exactly. */
  private readonly exact = new Map<number, Point>();
  /** Vertices by their places, hashed: one more than the vertex, 0 for none. */
  private table = new Int32Array(1024);

  constructor(curves: readonly Cubic[]) {
    let [minX, minY, maxX, maxY] = [Infinity, Infinity, -Infinity, -Infinity];
    for (const c of curves)
      for (const p of c) {
        minX = Math.min(minX, p.x);
        minY = Math.min(minY, p.y);
        maxX = Math.max(maxX, p.x);
        maxY = Math.max(maxY, p.y);
      }
    this.extent = Math.max(maxX - minX, maxY - minY) || 1;
    this.centre = { x: (minX + maxX) / 2, y: (minY + maxY) / 2 };
    this.step = 2 ** Math.ceil(Math.log2(this.extent / 2 / HALF));
  }

  gridX = (x: number): number => (x - this.centre.x) / this.step;
  gridY = (y: number): number => (y - this.centre.y) / this.step;

  /** The vertex at a place of the page, rounded to the grid. With `exactly` it stands for that place. */
  at(p: Point, exactly = false): number {
    const id = this.onGrid(Math.round(this.gridX(p.x)), Math.round(this.gridY(p.y)));
    if (exactly && !this.exact.has(id)) this.exact.set(id, p);
    return id;
  }

  /** The vertex at a place of the grid. */
  onGrid(x: number, y: number): number {
    const mask = this.table.length - 1;
    let k = hash(x, y) & mask;
    for (; this.table[k] > 0; k = (k + 1) & mask) {
      const id = this.table[k] - 1;
      if (this.x[id] === x && this.y[id] === y) return id;
    }
    const id = this.x.push(x) - 1;
    this.y.push(y);
    this.table[k] = id + 1;
    if (2 * this.x.length > this.table.length) this.grow();
    return id;
  }

  /** Where a vertex lies on the page. */
  place(id: number): Point {
    return (
      this.exact.get(id) ?? {
        x: this.x[id] * this.step + this.centre.x,
        y: this.y[id] * this.step + this.centre.y,
      }
    );
  }

  private grow(): void {
    const table = new Int32Array(4 * this.table.length);
    const mask = table.length - 1;
    for (let id = 0; id < this.x.length; id++) {
      let k = hash(this.x[id], this.y[id]) & mask;
      while (table[k] > 0) k = (k + 1) & mask;
      table[k] = id + 1;
    }
    this.table = table;
  }
}

/** Twice the area of a triangle of vertices: above 0 for a turn from x towards y. Exact. */
export const turn = ({ x, y }: Pick<Vertices, 'x' | 'y'>, a: number, b: number, c: number): number =>
  (x[b] - x[a]) * (y[c] - y[a]) - (y[b] - y[a]) * (x[c] - x[a]);

/** Spreads places evenly: multiplied by large odd numbers, and the upper bits brought down. */
function hash(x: number, y: number): number {
  const h = Math.imul(x, 0x9e3779b1) ^ Math.imul(y, 0x85ebca6b);
  return h ^ (h >>> 15);
}
