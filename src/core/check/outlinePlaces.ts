import type { Picture } from '../colour/picture';
import { placeAt, placesAlong } from '../geometry/along';
import { straightCubic, type Cubic } from '../geometry/cubic';
import type { Point } from '../geometry/point';
import { follow } from '../assist/followWay';
import { distanceFromInk } from './distance';

/** An edge is there when so much of what was followed lies on one, within so many px. */
const ON_EDGE = 0.6;
const NEAR = 3;

/**
 * `count` places, evenly along the edge that a hand went along (picture px); where there is none to follow, along the way of the
 * hand itself. @throws RangeError for a bad picture, fewer than two places of the hand, or one that is not finite.
 */
export function outlinePlaces(image: Picture, way: Point[], count: number): Point[] {
  const cubics = followed(image, way) ?? way.slice(1).map((p, i) => straightCubic(way[i], p));
  const { length } = placesAlong({ cubics, closed: false }, Infinity);
  const places = placesAlong({ cubics, closed: false }, length / (count - 1) || 1);
  return Array.from({ length: places.n }, (_, i) => placeAt(places, i));
}

function followed(image: Picture, way: Point[]): Cubic[] | null {
  try {
    const cubics = follow(image, way, { target: 'edge' });
    const { samples } = distanceFromInk({ cubics, closed: false }, image, { reach: NEAR, target: 'edge' });
    return samples.filter((s) => s.distance !== null).length > ON_EDGE * samples.length ? cubics : null;
  } catch (error) {
    if (error instanceof RangeError && /^nothing leads|within the picture/.test(error.message)) return null;
    throw error;
  }
}
