import { speedOver } from '../geometry/arcLength';
import { derivative, evaluate, polygonLength, secondDerivative, type Cubic } from '../geometry/cubic';
import { cross, distance, dot, lengthOf, scale, subtract, unit, type Point } from '../geometry/point';

/**
 * A place on a stroke's middle line: on which cubic, the direction of travel, how fast that turns to the left there
 * (radians a px; left as y points down), and the way up to here.
 */
export type Place = { c: Cubic; t: number; p: Point; along: Point; turn: number; travelled: number };

/** A piece of the middle line without a corner, and whether it begins where the line turns back on itself. */
export type Stretch = { places: Place[]; atCusp: boolean };

export type Spine = { stretches: Stretch[]; length: number };

/** A cubic is first cut into so many parts; not in half, where hand-made cusps lie. */
const PARTS = [0, 0.173, 0.341, 0.508, 0.671, 0.837, 1];
const SPLIT = 0.487;
/** Where one half turns more than the other, places lie closer: by so many tolerances for the length times the difference. */
const UNEVEN = 30;
/** A curve that turns within less than this of its parameter has a cusp there. */
const CUSP = 1e-8;
/** Cubics shorter than this are passed over, in page units. */
const NOTHING = 1e-7;

/** How closely a middle line is walked. */
export type Walk = {
  /** The direction turns no further than this from place to place, radians. */
  step: number;
  /** Where it jumps by more than this there is a corner, radians. */
  corner: number;
  /** Places are put at these shares of the length too (rising), and `dense` from each to the next. */
  shares: readonly number[];
  dense: number;
  /** Where the curvature changes, places lie so close that curves between them are about this near, px. */
  tolerance: number;
};

/**
 * The middle line of a stroke as places so close together that its direction changes little from one to the next, cut at
 * its corners and cusps. No stretches for a run without length.
 */
export function spineOf(cubics: readonly Cubic[], walk: Walk): Spine {
  const { corner, shares, dense } = walk;
  const stretches: Stretch[] = [];
  for (const c of cubics) {
    const size = polygonLength(c);
    if (size < NOTHING) continue;
    walked(c, size, walk).forEach((places, i) => {
      const before = stretches.at(-1)?.places;
      if (i === 0 && before && turnBetween(before.at(-1)!.along, places[0].along) <= corner) {
        // The same place twice, at the end of one cubic and the start of the next: both directions count.
        before.push(...places);
      } else stretches.push({ places, atCusp: i > 0 });
    });
  }
  let travelled = 0;
  for (const { places } of stretches) {
    places.forEach((q, k) => {
      const from = places[k - 1];
      if (from && from.c === q.c) travelled += speedOver(q.c, from.t, q.t);
      q.travelled = travelled;
    });
  }
  const wanted = shares.flatMap((s, k) =>
    k + 1 < shares.length ? Array.from({ length: dense }, (_, i) => s + ((shares[k + 1] - s) * i) / dense) : [s],
  );
  for (const stretch of stretches)
    stretch.places = withPlacesAt(
      stretch.places,
      wanted.map((s) => s * travelled),
      travelled,
    );
  return { stretches, length: travelled };
}

/** By how much the direction changes from one to the other, radians, 0 to pi. */
export const turnBetween = (a: Point, b: Point): number => Math.abs(angleFrom(a, b));

const angleFrom = (a: Point, b: Point): number => Math.atan2(cross(a, b), dot(a, b));

/** The places along one cubic, in pieces between its cusps. */
function walked(c: Cubic, size: number, { step, tolerance }: Walk): Place[][] {
  const pieces: Place[][] = [[]];
  const visit = (a: Place, b: Place): void => {
    const turn = turnBetween(a.along, b.along);
    if (turn > step && b.t - a.t < CUSP) return void pieces.push([b]);
    const middle = placeOf(c, a.t + (b.t - a.t) * SPLIT, size) ?? placeOf(c, a.t + (b.t - a.t) * 0.53, size);
    if (!middle) return void pieces.push([b]);
    // What turns to and fro is seen from its middle.
    const most = Math.max(turn, 1.5 * turnBetween(a.along, middle.along), 1.5 * turnBetween(middle.along, b.along));
    const uneven = Math.abs(angleFrom(a.along, middle.along) - angleFrom(middle.along, b.along));
    const isClose = uneven * distance(a.p, b.p) <= UNEVEN * tolerance;
    if (most <= step && isClose) return void pieces.at(-1)!.push(middle, b);
    visit(a, middle);
    visit(middle, b);
  };
  const parts = PARTS.flatMap((t) => placeOf(c, t, size) ?? []);
  if (parts.length === 0) return [];
  pieces[0].push(parts[0]);
  for (let i = 1; i < parts.length; i++) visit(parts[i - 1], parts[i]);
  return pieces;
}

function placeOf(c: Cubic, t: number, size: number): Place | null {
  const d = derivative(c, t);
  const speed = lengthOf(d);
  const moves = speed > 1e-9 * size;
  const along = moves ? scale(d, 1 / speed) : limitAt(c, t);
  if (!along) return null;
  const bend = secondDerivative(c, t);
  const turn = moves ? (bend.x * along.y - bend.y * along.x) / (speed * speed) : 0;
  return { c, t, p: evaluate(c, t), along, turn, travelled: 0 };
}

/** The place in the middle between two that follow each other on one cubic; null where there is none. */
export function placeBetween(a: Place, b: Place): Place | null {
  if (a.c !== b.c || !(b.travelled > a.travelled)) return null;
  const middle = placeOf(a.c, (a.t + b.t) / 2, polygonLength(a.c));
  return middle && { ...middle, travelled: a.travelled + speedOver(a.c, a.t, middle.t) };
}

/** The direction at an end whose handle has no length; null within a cubic, where it stands still. */
function limitAt(c: Cubic, t: number): Point | null {
  if (t === 0) return unit(subtract(c[2], c[0])) ?? unit(subtract(c[3], c[0]));
  if (t === 1) return unit(subtract(c[3], c[1])) ?? unit(subtract(c[3], c[0]));
  return null;
}

/** The places, and more of them at the given ways (rising) that lie among them. */
function withPlacesAt(places: Place[], ways: readonly number[], length: number): Place[] {
  const near = 1e-6 * length;
  let w = 0;
  return places.flatMap((q, i) => {
    const from = places[i - 1];
    const more: Place[] = [];
    while (w < ways.length && ways[w] <= q.travelled - near) {
      const travelled = ways[w++];
      if (!from || from.c !== q.c || travelled < from.travelled + near) continue;
      const t = from.t + parameterAt(q.c, from.t, q.t, travelled - from.travelled);
      const place = placeOf(q.c, t, polygonLength(q.c));
      if (place) more.push({ ...place, travelled });
    }
    while (w < ways.length && ways[w] < q.travelled + near) w++;
    return [...more, q];
  });
}

/** How much further than `from` the parameter is after so long a way: a guess, and Newton's steps. */
function parameterAt(c: Cubic, from: number, to: number, travelled: number): number {
  const whole = speedOver(c, from, to);
  let step = whole > 0 ? ((to - from) * travelled) / whole : 0;
  for (let i = 0; i < 4; i++) {
    const speed = lengthOf(derivative(c, from + step));
    if (speed === 0) break;
    const next = step + (travelled - speedOver(c, from, from + step)) / speed;
    step = Math.min(to - from, Math.max(0, next));
  }
  return step;
}
