import { reversed, type Cubic } from '../geometry/cubic';
import { fitCurve } from '../geometry/fit/fitCurve';
import type { Point } from '../geometry/point';
import { connectedAreas } from '../raster/connectedAreas';
import type { Progress } from './pullInk';

/** A map of areas: what each pixel is of. Areas of the same sort that touch by a side are one. */
export type AreaMap = {
  readonly width: number;
  readonly height: number;
  readonly colour: Uint8Array;
  /** 1 where a border is where it is; elsewhere it may be evened. */
  readonly firm: Uint8Array;
};

/** An area with its borders: the outer one first, then those of what lies in it, running the other way round. */
export type Bordered = { readonly sort: number; readonly loops: Cubic[][] };

/** Steps along borders: to the right, down, to the left, up. */
const DX = [1, 0, -1, 0];
const DY = [0, 1, 0, -1];

/**
 * The areas of a map by outlines that neighbours share: each stretch of a border from where three areas meet to where three meet
 * is fitted once, and taken by both its sides, so that there is neither a slit nor an overlap. `scale`: px a pixel of the map.
 */
export function sharedBorders(
  map: AreaMap,
  scale: number,
  tolerance: number,
  progress: Progress = () => {},
): Bordered[] {
  const borders = new Borders(map);
  const arcs = borders.arcs();
  const fitted = arcs.map((arc, i) => {
    if (i % 64 === 0) progress(i / arcs.length);
    return fittedArc(arc, map, scale, tolerance);
  });
  const backwards = fitted.map((cubics) => cubics.map(reversed).reverse());
  return borders.areas().map(({ sort, loops }) => ({
    sort,
    loops: loops.map((l) => l.flatMap(({ arc, isForward }) => (isForward ? fitted[arc] : backwards[arc]))),
  }));
}

/** A stretch of a border by the corners of pixels that it runs along; closed where it meets no other. */
type Arc = { readonly corners: Int32Array; readonly closed: boolean };
type Taken = { readonly arc: number; readonly isForward: boolean };

/** Borders run between pixels, over their corners: `corner = y * (width + 1) + x`. */
class Borders {
  private readonly across: number;
  /** By corner and step: the arc that sets out there, from 1 on; below 0 where it is run backwards. */
  private readonly arcAt: Int32Array;
  private readonly list: Arc[] = [];

  constructor(private readonly map: AreaMap) {
    this.across = map.width + 1;
    this.arcAt = new Int32Array(4 * this.across * (map.height + 1));
  }

  /** What lies at a pixel; −1 outside. */
  private at(x: number, y: number): number {
    const { width, height, colour } = this.map;
    return x < 0 || y < 0 || x >= width || y >= height ? -1 : colour[y * width + x];
  }

  /** What lies to the right and to the left of a step from a corner. */
  private sides(corner: number, step: number): [number, number] {
    const x = corner % this.across;
    const y = (corner - x) / this.across;
    if (step === 0) return [this.at(x, y), this.at(x, y - 1)];
    if (step === 1) return [this.at(x - 1, y), this.at(x, y)];
    if (step === 2) return [this.at(x - 1, y - 1), this.at(x - 1, y)];
    return [this.at(x, y - 1), this.at(x - 1, y - 1)];
  }

  private isBorder(corner: number, step: number): boolean {
    const [right, left] = this.sides(corner, step);
    return right !== left;
  }

  private next = (corner: number, step: number): number => corner + DX[step] + DY[step] * this.across;

  private stepsFrom(corner: number): number[] {
    return [0, 1, 2, 3].filter((s) => this.isBorder(corner, s));
  }

  /** All stretches: between the corners where more than two borders meet, then the rings. */
  arcs(): readonly Arc[] {
    const corners = this.corners();
    for (const rings of [false, true])
      for (const corner of corners) {
        const steps = this.stepsFrom(corner);
        if (rings ? steps.length !== 2 : steps.length < 3 && !this.isCorner(corner, steps)) continue;
        for (const step of steps) if (this.arcAt[4 * corner + step] === 0) this.run(corner, step);
      }
    return this.list;
  }

  /** The corners that have a border: not all four pixels about them are of one sort. */
  private corners(): number[] {
    const { across } = this;
    const { width, height, colour } = this.map;
    const found: number[] = [];
    for (let y = 0; y <= height; y++)
      for (let x = 0; x <= width; x++) {
        const i = y * width + x;
        const isInner = x > 0 && y > 0 && x < width && y < height;
        const own = colour[i];
        if (isInner && colour[i - 1] === own && colour[i - width] === own && colour[i - width - 1] === own) continue;
        found.push(y * across + x);
      }
    return found;
  }

  /** The picture's own corners are kept. */
  private isCorner(corner: number, steps: readonly number[]): boolean {
    const x = corner % this.across;
    const y = (corner - x) / this.across;
    const { width, height } = this.map;
    return steps.length === 2 && (x === 0 || x === width) && (y === 0 || y === height);
  }

  private run(start: number, first: number): void {
    const corners = [start];
    const steps: number[] = [];
    for (let [corner, step] = [start, first]; ;) {
      steps.push(step);
      corner = this.next(corner, step);
      corners.push(corner);
      const on = this.stepsFrom(corner);
      if (corner === start || on.length !== 2 || this.isCorner(corner, on)) break;
      step = on[0] === (step + 2) % 4 ? on[1] : on[0];
    }
    const start0 = this.stepsFrom(start);
    const closed = corners.at(-1) === start && start0.length === 2 && !this.isCorner(start, start0);
    const number = this.list.push({ corners: Int32Array.from(corners), closed });
    steps.forEach((step, i) => {
      this.arcAt[4 * corners[i] + step] = number;
      this.arcAt[4 * corners[i + 1] + ((step + 2) % 4)] = -number;
    });
  }

  /** Each area by the stretches around it, the area on the right: outer outlines run clockwise where y points down. */
  areas(): { sort: number; loops: Taken[][] }[] {
    const { width, height, colour } = this.map;
    const { area } = connectedAreas(colour, width);
    const found: { sort: number; outer: Taken[] | null; holes: Taken[][] }[] = [];
    const seen = new Uint8Array(this.arcAt.length);
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++) {
        const k = area[y * width + x];
        found[k] ??= { sort: colour[y * width + x], outer: null, holes: [] };
        // Each loop has a level step to the right along the upper side of a pixel of its area, or to the left along a lower one.
        for (const [corner, step] of [
          [y * this.across + x, 0],
          [(y + 1) * this.across + x + 1, 2],
        ]) {
          if (!this.isBorder(corner, step) || seen[4 * corner + step]) continue;
          const loop = this.around(corner, step, seen);
          // The first that is met from above is the outer one.
          if (!found[k].outer) found[k].outer = loop;
          else found[k].holes.push(loop);
        }
      }
    return found.map(({ sort, outer, holes }) => ({ sort, loops: [outer!, ...holes] }));
  }

  /** The loop of the area on the right of a step: at each corner the sharpest turn to the right that goes along a border. */
  private around(start: number, first: number, seen: Uint8Array): Taken[] {
    const steps: [number, number][] = [];
    for (let [corner, step] = [start, first]; !seen[4 * corner + step];) {
      seen[4 * corner + step] = 1;
      steps.push([corner, step]);
      corner = this.next(corner, step);
      const turns = [(step + 1) % 4, step, (step + 3) % 4];
      step = turns.find((s) => this.isBorder(corner, s))!;
    }
    const numbers = steps.map(([corner, step]) => this.arcAt[4 * corner + step]);
    // From where a stretch begins.
    const begins = steps.findIndex(([corner], i) => {
      const arc = this.list[Math.abs(numbers[i]) - 1];
      return !arc.closed && corner === (numbers[i] > 0 ? arc.corners[0] : arc.corners.at(-1)!);
    });
    const order = begins > 0 ? [...numbers.slice(begins), ...numbers.slice(0, begins)] : numbers;
    const taken: Taken[] = [];
    for (let i = 0; i < order.length;) {
      const arc = Math.abs(order[i]) - 1;
      taken.push({ arc, isForward: order[i] > 0 });
      i += this.list[arc].corners.length - 1;
    }
    return taken;
  }
}

/** A stretch as curves, in px: by the middles of its steps, for its corners go up and down; its ends where they are. */
function fittedArc({ corners, closed }: Arc, map: AreaMap, scale: number, tolerance: number): Cubic[] {
  const { width, height } = map;
  const across = width + 1;
  const point = (c: number): Point => ({ x: (c % across) * scale, y: Math.floor(c / across) * scale });
  const [first, last] = [point(corners[0]), point(corners.at(-1)!)];
  const isRim = (of: (p: Point) => number, at: number): boolean => of(first) === at && of(last) === at;
  const along = [0, 1].map((k) => ((p: Point) => (k === 0 ? p.x : p.y)) as (p: Point) => number);
  const isStraight =
    corners.length === 2 ||
    (!closed &&
      along.some((of, k) =>
        [0, (k === 0 ? width : height) * scale].some((at) => isRim(of, at) && all(corners, (c) => of(point(c)) === at)),
      ));
  if (isStraight) return [[first, first, last, last]];
  const middles = Array.from({ length: corners.length - 1 }, (_, i): Point => {
    const [p, q] = [point(corners[i]), point(corners[i + 1])];
    return { x: (p.x + q.x) / 2, y: (p.y + q.y) / 2 };
  });
  if (closed) return fitCurve(evened(middles, map, scale, true), { tolerance, closed: true });
  const cubics = fitCurve(evened([first, ...middles, last], map, scale, false), { tolerance });
  cubics[0] = [first, ...cubics[0].slice(1)] as unknown as Cubic;
  cubics[cubics.length - 1] = [...cubics.at(-1)!.slice(0, 3), last] as unknown as Cubic;
  return cubics;
}

/** How often what may be evened is: each time half-way to the middle of its neighbours. */
const EVENINGS = 200;

/** Places of a border with those evened that are not firm; ends stay. */
function evened(points: readonly Point[], { width, height, firm }: AreaMap, scale: number, closed: boolean): Point[] {
  const n = points.length;
  const isLoose = points.map(({ x, y }, i) => {
    const [px, py] = [Math.min(width - 1, Math.floor(x / scale)), Math.min(height - 1, Math.floor(y / scale))];
    return firm[py * width + px] === 0 && (closed || (i > 0 && i < n - 1));
  });
  const loose = points.flatMap((_, i) => (isLoose[i] ? [i] : []));
  if (loose.length === 0) return [...points];
  const [x, y] = [Float64Array.from(points, (p) => p.x), Float64Array.from(points, (p) => p.y)];
  for (let k = 0; k < EVENINGS; k++)
    for (const i of loose) {
      const [a, b] = [(i + n - 1) % n, (i + 1) % n];
      x[i] = x[i] / 2 + (x[a] + x[b]) / 4;
      y[i] = y[i] / 2 + (y[a] + y[b]) / 4;
    }
  return points.map((_, i) => ({ x: x[i], y: y[i] }));
}

const all = (list: Int32Array, holds: (v: number) => boolean): boolean => list.every(holds);
