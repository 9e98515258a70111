import type { Cubic } from '../geometry/cubic';
import { evaluate } from '../geometry/cubic';
import { fitCurve } from '../geometry/fit/fitCurve';
import { assertPoint, distance, mix, type Point } from '../geometry/point';
import { assertPicture, inGrey, type Picture } from '../colour/picture';
import { EdgeFollower } from './edgeFollower';
import { InkFollower } from './inkFollower';
import type { LiveWire } from './liveWire';
import { withoutLoops } from './withoutLoops';
import { withoutSpurs } from './withoutSpurs';

export type FollowOptions = {
  /** Whether the middle of ink is followed, or the edge of things. */
  readonly target: 'ink' | 'edge';
  /** How far the curves may run from what was followed, px; 1 by default. */
  readonly tolerance?: number;
};

/** The way is gone along in stretches of about so many px. */
const STRETCH = 150;
/** And so much further ahead: an end may be drawn to what lies beside, but what leads on beyond it is not. */
const AHEAD = 48;
/** Places of the hand lie no further apart. */
const STEP = 12;
/** What has been followed is fitted anew by places this far apart, px. */
const SPACING = 2;

/**
 * Few, smooth curves along the ink or the edge that a hand went along, corners kept, in the picture's px. `way` is where the
 * hand went, from where the line begins to where it is to end: it leads where the ink branches, and over what is faint.
 * Stretch by stretch by a live wire (Mortensen and Barrett 1995), then fitted as one. A photo may be in colour: edges are then
 * told by all of it.
 * @throws RangeError for a bad picture, fewer than two places, one that is not finite, a tolerance not above 0, or where nothing
 * leads from one end to the other.
 */
export function follow(image: Picture, way: Point[], { target, tolerance = 1 }: FollowOptions): Cubic[] {
  assertPicture(image);
  if (target !== 'ink' && target !== 'edge') throw new RangeError('the target must be ink or edge');
  if (!(tolerance > 0) || !Number.isFinite(tolerance)) throw new RangeError('the tolerance must be a number above 0');
  if (!Array.isArray(way) || way.length < 2) throw new RangeError('a way needs at least two places');
  way.forEach((p) => assertPoint(p, 'a place of the way'));
  const places = closelyAlong(way);
  const isIn = ({ x, y }: Point): boolean => x >= 0 && y >= 0 && x < image.width && y < image.height;
  if (!isIn(places[0]) || !isIn(places.at(-1)!)) throw new RangeError('the way must begin and end within the picture');
  const follower = followerOf(image, target);
  const each = Math.max(1, Math.round(STRETCH / STEP));
  const points: Point[] = [follower.middleNear(places[0])];
  for (let at = 0; at < places.length - 1;) {
    // What would be left is no stretch of its own when it is short.
    const isLast = places.length - 1 - at < 1.5 * each;
    const next = isLast ? places.length - 1 : at + each;
    const ahead = isLast ? next : Math.min(places.length - 1, next + Math.round(AHEAD / STEP));
    const from = points.at(-1)!;
    for (const p of places.slice(at + 1, ahead)) follower.lead(from, p);
    const to = isIn(places[ahead]) ? places[ahead] : null;
    const path = to && follower.path(from, to);
    if (path) points.push(...upTo(closelyOn(path).slice(1), isLast ? null : places[next]));
    else if (to && distance(from, to) < STRETCH / 2) points.push(to);
    else throw new RangeError('nothing leads from one place to the next');
    at = path ? next : ahead;
  }
  const distinct = withoutSpurs(withoutLoops(points)).filter((p, i) => i === 0 || distance(p, points[i - 1]) > 1e-6);
  if (distinct.length < 2) throw new RangeError('nothing leads from one place to the other');
  return fitCurve(distinct, { tolerance });
}

/** What follows the ink, or the edges, of a picture; making it is the long work. */
export const followerFor = (image: Picture, target: 'ink' | 'edge'): LiveWire =>
  target === 'ink' ? new InkFollower(inGrey(image)) : new EdgeFollower(image);

const followers = new WeakMap<Picture, Partial<Record<'ink' | 'edge', LiveWire>>>();

/** A picture is made ready once, for many lines. */
function followerOf(image: Picture, target: 'ink' | 'edge'): LiveWire {
  let known = followers.get(image);
  if (!known) followers.set(image, (known = {}));
  const follower = (known[target] ??= followerFor(image, target));
  follower.begin();
  return follower;
}

/** The way by places close to each other. */
function closelyAlong(way: readonly Point[]): Point[] {
  const places: Point[] = [{ ...way[0] }];
  for (const p of way.slice(1)) {
    const from = places.at(-1)!;
    const steps = Math.ceil(distance(from, p) / STEP);
    for (let k = 1; k <= steps; k++) places.push(mix(from, p, k / steps));
  }
  return places;
}

/** Places of a way up to the one that lies nearest to another place. */
function upTo(points: readonly Point[], place: Point | null): readonly Point[] {
  if (!place) return points;
  let best = 0;
  points.forEach((p, i) => {
    if (distance(p, place) < distance(points[best], place)) best = i;
  });
  return points.slice(0, best + 1);
}

const closelyOn = (cubics: readonly Cubic[]): Point[] =>
  cubics.flatMap((c, i) => {
    const n = Math.max(2, Math.ceil(distance(c[0], c[3]) / SPACING));
    return Array.from({ length: i === cubics.length - 1 ? n + 1 : n }, (_, k) => evaluate(c, k / n));
  });
