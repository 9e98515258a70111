import type { Cubic } from '../geometry/cubic';
import { fitCurve } from '../geometry/fit/fitCurve';
import type { Point } from '../geometry/point';
import type { GrayImage } from '../raster/grayImage';
import { placeAt, placesAlong } from '../geometry/along';
import { centred } from './centreLine';
import { followField, stepCostOf, type FollowField } from './followField';
import { inkPath } from './inkPath';
import { LiveWire, TOLERANCE } from './liveWire';
import { STEPS } from './minimalPath';
import { straightOn } from './straightOn';
import { trackedInk, type TrackedInk } from './tracked';

/** A pixel where the hand has not been is so much dearer. */
const UNGUIDED = 6;
/** The second measure: how far apart, how far aside, px of the field, and over how many places it is eased in. */
const SPACING = 2;
const SECOND_REACH = 3;
const FADE = 10;

/**
 * Follows the ink of a picture: steps across the ink are dearer than along it, so that at a crossing the way goes straight on, and
 * dearer where the hand has not been: of two lines it is the one that the pointer went along. Moved onto the middle of the stroke.
 */
export class InkFollower extends LiveWire {
  private readonly cost: (to: number, direction: number) => number;
  private readonly tracked: TrackedInk;

  constructor(
    image: GrayImage,
    private readonly field: FollowField = followField(image),
  ) {
    super(field);
    this.cost = stepCostOf(field);
    this.tracked = trackedInk(field.ink);
  }

  protected stepCost(to: number, direction: number): number {
    const own = this.cost(to, direction);
    return this.guide.near[to] ? own : own + UNGUIDED;
  }

  protected placed(pixels: readonly number[]): Point[] {
    const { width, by, ink, radius } = this.field;
    const places = pixels.map((i) => ({ x: (i % width) + 0.5, y: Math.floor(i / width) + 0.5 }));
    return straightOn(centred(places, false, ink, radius), ink, radius).map((p) => ({ x: p.x * by, y: p.y * by }));
  }

  protected override fitted(points: Point[]): Cubic[] {
    return this.steadied(super.fitted(points));
  }

  protected override middleOf(pixel: number): number {
    return uphill(this.field, pixel);
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
