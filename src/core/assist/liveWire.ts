import type { Cubic } from '../geometry/cubic';
import { fitCurve } from '../geometry/fit/fitCurve';
import { distance, type Point } from '../geometry/point';
import { Guide } from './guide';
import { MinimalPath } from './minimalPath';
import { endsDrawnTo } from './pencilStroke';

/** A place within this many px of what is followed is drawn onto it. */
const REACH = 12;
/** So many pixels are looked at for one place of the pointer at most. */
const BUDGET = 240_000;
/** The curves hold what was found within this, px of the picture. */
export const TOLERANCE = 1;

/** A picture made ready to be followed: 1 on what is, and how many px of the picture one of its pixels stands for. */
export type Trail = {
  readonly width: number;
  readonly height: number;
  readonly by: number;
  readonly trail: Uint8Array;
};

/**
 * Goes along a picture's ink or its edges after a hand: a live wire (Mortensen and Barrett, "Intelligent Scissors for Image
 * Composition", SIGGRAPH 1995), fitted with few cubics. What a step costs, and where between pixels what is followed lies, its kinds
 * tell. All places are px of the picture.
 */
export abstract class LiveWire {
  protected readonly guide: Guide;
  private readonly search: MinimalPath;

  constructor(private readonly on: Trail) {
    this.guide = new Guide(on.width, on.height);
    this.search = new MinimalPath(on.width, on.height, (to, direction) => this.stepCost(to, direction));
  }

  /** What a step in one of eight directions onto a pixel costs, for `MinimalPath`. */
  protected abstract stepCost(to: number, direction: number): number;

  /** A way over pixels as places that lie where what is followed does. */
  protected abstract placed(pixels: readonly number[]): readonly Point[];

  /** From a pixel on the trail to the middle of what is followed there. */
  protected middleOf(pixel: number): number {
    return pixel;
  }

  /** Few curves along places. */
  protected fitted(points: Point[]): Cubic[] {
    return fitCurve(points, { tolerance: TOLERANCE });
  }

  /**
   * The curves from `from` to where what is followed lies nearest to `to`, the first beginning at `from`. Null where they are too
   * far apart to be found at once, or as good as the same.
   */
  path(from: Point, to: Point): Cubic[] | null {
    const { by, trail } = this.on;
    const [seed, goal] = [this.nearest(from), this.nearest(to)];
    this.guide.move({ x: from.x / by, y: from.y / by }, { x: to.x / by, y: to.y / by });
    if (seed < 0 || goal < 0 || seed === goal) return null;
    this.search.from(seed);
    const pixels = this.search.to(goal, BUDGET);
    if (!pixels || pixels.length < 4) return null;
    const points = endsDrawnTo(this.placed(pixels), from, trail[goal] ? null : to, TOLERANCE);
    const distinct = points.filter((p, i) => i === 0 || distance(p, points[i - 1]) > 1e-6);
    if (distinct.length < 3) return null;
    const cubics = this.fitted(distinct);
    cubics[0] = [from, cubics[0][1], cubics[0][2], cubics[0][3]];
    return cubics;
  }

  /** Forgets where the hand has been. */
  begin(): void {
    this.guide.begin();
  }

  /** The hand came by a place on its way from `from`. */
  lead(from: Point, place: Point): void {
    const { by } = this.on;
    this.guide.move({ x: from.x / by, y: from.y / by }, { x: place.x / by, y: place.y / by });
  }

  /** The middle of what is followed near a place; the place itself where there is none. */
  middleNear(p: Point): Point {
    const i = this.nearest(p);
    return i >= 0 && this.on.trail[i] ? this.placeOf(this.middleOf(i)) : p;
  }

  /** Where a pixel's middle lies in the picture. */
  protected placeOf(pixel: number): Point {
    const { width, by } = this.on;
    return { x: ((pixel % width) + 0.5) * by, y: (Math.floor(pixel / width) + 0.5) * by };
  }

  /** The pixel to start or end at: of the trail where a place lies on it or near it; else its own; −1 outside. */
  private nearest(p: Point): number {
    const { width, height, by, trail } = this.on;
    const [cx, cy] = [Math.floor(p.x / by), Math.floor(p.y / by)];
    if (cx < 0 || cy < 0 || cx >= width || cy >= height) return -1;
    if (trail[cy * width + cx]) return cy * width + cx;
    const reach = Math.max(2, Math.round(REACH / by));
    let [best, least] = [-1, Infinity];
    for (let y = Math.max(0, cy - reach); y <= Math.min(height - 1, cy + reach); y++)
      for (let x = Math.max(0, cx - reach); x <= Math.min(width - 1, cx + reach); x++) {
        const d = Math.hypot(x - cx, y - cy);
        if (trail[y * width + x] && d < least) [best, least] = [y * width + x, d];
      }
    return best >= 0 ? this.middleOf(best) : cy * width + cx;
  }
}
