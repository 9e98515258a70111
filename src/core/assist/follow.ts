import type { Cubic } from '../geometry/cubic';
import { fitCurve } from '../geometry/fit/fitCurve';
import { distance, type Point } from '../geometry/point';
import type { GrayImage } from '../raster/grayImage';
import { placeAt, placesAlong } from '../geometry/along';
import { centred } from './centreLine';
import { followField, stepCostOf, type FollowField } from './followField';
import { inkPath } from './inkPath';
import { MinimalPath, STEPS } from './minimalPath';
import { straightOn } from './straightOn';
import { Guide, UNGUIDED } from './guide';
import { endsDrawnTo } from './pencilStroke';
import { trackedInk, type TrackedInk } from './tracked';

/** A place within this many px of ink is drawn onto it. */
export const REACH = 12;
/** So many pixels are looked at for one place of the pointer at most; what was found is kept for the next. */
export const BUDGET = 240_000;
/** The curves hold the ink's middle within this, px of the picture. */
const TOLERANCE = 1;
/** The second measure: how far apart, how far aside, px of the field, and over how many places it is eased in. */
const SPACING = 2;
const SECOND_REACH = 3;
const FADE = 10;

/** What goes along a picture's ink or its edges after a hand. All places are px of the picture. */
export interface Following {
  /** The curves from one place to what is followed nearest to another; null where that is too far, or as good as the same. */
  path(from: Point, to: Point): Cubic[] | null;
  /** Forgets where the hand has been. */
  begin(): void;
  /** The hand came by a place on its way from `from`. */
  lead(from: Point, by: Point): void;
  /** The middle of what is followed near a place; the place itself where there is none. */
  middleNear(p: Point): Point;
}

/**
 * Follows the ink of a picture from one place to another: a live wire (Mortensen and Barrett,
 * "Intelligent Scissors for Image Composition", SIGGRAPH 1995), with steps across the ink dearer than along it, so that
 * at a crossing the way goes straight on, and dearer where the hand has not been: of two lines it is the one that the
 * pointer went along. Moved onto the middle of the stroke and fitted with few cubics.
 */
export class InkFollower implements Following {
  private readonly field: FollowField;
  private readonly search: MinimalPath;
  private readonly guide: Guide;
  private readonly tracked: TrackedInk;

  constructor(image: GrayImage) {
    this.field = followField(image);
    const { width, height } = this.field;
    this.guide = new Guide(width, height);
    this.tracked = trackedInk(this.field.ink);
    const [cost, { near }] = [stepCostOf(this.field), this.guide];
    this.search = new MinimalPath(width, height, (to, d) => (near[to] ? cost(to, d) : cost(to, d) + UNGUIDED));
  }

  /**
   * The curves from `from` to where the ink is nearest to `to`, in the picture's px, the first beginning at `from`. Null
   * where they are too far apart to be found at once, or as good as the same.
   */
  path(from: Point, to: Point): Cubic[] | null {
    const { by } = this.field;
    const [seed, goal] = [this.nearest(from), this.nearest(to)];
    this.guide.move({ x: from.x / by, y: from.y / by }, { x: to.x / by, y: to.y / by });
    if (seed < 0 || goal < 0 || seed === goal) return null;
    this.search.from(seed);
    const pixels = this.search.to(goal, BUDGET);
    if (!pixels || pixels.length < 4) return null;
    const { width, ink, radius } = this.field;
    const places = pixels.map((i) => ({ x: (i % width) + 0.5, y: Math.floor(i / width) + 0.5 }));
    const middle = straightOn(centred(places, false, ink, radius), ink, radius).map((p) => ({
      x: p.x * by,
      y: p.y * by,
    }));
    const points = endsDrawnTo(middle, from, this.field.trail[goal] ? null : to, TOLERANCE);
    const distinct = points.filter((p, i) => i === 0 || distance(p, points[i - 1]) > 1e-6);
    if (distinct.length < 3) return null;
    const cubics = this.steadied(fitCurve(distinct, { tolerance: TOLERANCE }));
    cubics[0] = [from, cubics[0][1], cubics[0][2], cubics[0][3]];
    return cubics;
  }

  /** Forgets where the hand has been. */
  begin(): void {
    this.guide.begin();
  }

  /** The hand came by a place on its way from `from`, px of the picture. */
  lead(from: Point, by: Point): void {
    const k = this.field.by;
    this.guide.move({ x: from.x / k, y: from.y / k }, { x: by.x / k, y: by.y / k });
  }

  /**
   * The curves with a second opinion: the stroke beneath is traced by what lies across them all along, which does not lean
   * to a stroke that joins at a small angle as the nearest rim does. The mean of the two is truer than either. Ends stay.
   */
  private steadied(cubics: Cubic[]): Cubic[] {
    const { by } = this.field;
    const small = cubics.map((c) => c.map((p) => ({ x: p.x / by, y: p.y / by })) as Cubic);
    const places = placesAlong({ cubics: small, closed: false }, SPACING);
    const path = places.n > 2 ? inkPath(this.tracked, places, SECOND_REACH) : null;
    if (!path) return cubics;
    const points = Array.from(path.offset, (o, i) => {
      const fromEnd = Math.min(1, Math.min(i, places.n - 1 - i) / FADE);
      const p = placeAt(places, i, Number.isNaN(o) ? 0 : (o * fromEnd) / 2);
      return { x: p.x * by, y: p.y * by };
    });
    return fitCurve(points, { tolerance: TOLERANCE });
  }

  /** The place on the ink nearest to `p`, px of the picture; `p` itself where none is near. */
  onto(p: Point): Point {
    const i = this.nearest(p);
    const { width, by, trail } = this.field;
    return i >= 0 && trail[i] ? { x: ((i % width) + 0.5) * by, y: (Math.floor(i / width) + 0.5) * by } : p;
  }

  /** The middle of the ink that a place lies on or near; the place itself where there is none. Px of the picture. */
  middleNear(p: Point): Point {
    const { width, height, by, trail, radius } = this.field;
    const i = this.nearest(p);
    if (i < 0 || !trail[i]) return p;
    const k = uphill({ width, height, radius }, i);
    return { x: ((k % width) + 0.5) * by, y: (Math.floor(k / width) + 0.5) * by };
  }

  /** The pixel to start or end at: uphill from a place on the trail, the nearest of the trail, or that place; −1 outside. */
  private nearest(p: Point): number {
    const { width, height, by, trail, radius } = this.field;
    const [cx, cy] = [Math.floor(p.x / by), Math.floor(p.y / by)];
    if (cx < 0 || cy < 0 || cx >= width || cy >= height) return -1;
    if (trail[cy * width + cx]) return cy * width + cx;
    const reach = Math.max(2, Math.round(REACH / by));
    let [best, least] = [-1, Infinity];
    for (let y = Math.max(0, cy - reach); y <= Math.min(height - 1, cy + reach); y++) {
      for (let x = Math.max(0, cx - reach); x <= Math.min(width - 1, cx + reach); x++) {
        const d = Math.hypot(x - cx, y - cy);
        if (trail[y * width + x] && d < least) [best, least] = [y * width + x, d];
      }
    }
    return best >= 0 ? uphill({ width, height, radius }, best) : cy * width + cx;
  }
}

/** From a pixel of a stroke to its middle: a few steps to where it is further from the rim. */
function uphill({ width, height, radius }: Pick<FollowField, 'width' | 'height' | 'radius'>, from: number): number {
  let at = from;
  for (let k = 0; k < 6; k++) {
    const x = at % width;
    const y = (at - x) / width;
    let [best, most] = [at, 0.3];
    for (const [dx, dy] of STEPS) {
      if (x + dx < 0 || y + dy < 0 || x + dx >= width || y + dy >= height) continue;
      const j = at + dy * width + dx;
      const grows = (radius[j] - radius[at]) / Math.hypot(dx, dy);
      if (grows > most) [best, most] = [j, grows];
    }
    if (best === at) break;
    at = best;
  }
  return at;
}
