import type { Waypoint } from './fitTrack';
import { placeBetween, type Place, type Stretch } from './spine';
import type { WidthProfile } from './widths';

/** Which side of the line, seen along it: 1 the left, -1 the right. */
export type Hand = 1 | -1;

/**
 * Where a round nib touches the edge of its stroke: a waypoint of the edge, the radius there, and whether the edge moves
 * on; on the inside of a turn tighter than the radius it would run back, and stops at the centre of curvature instead,
 * beyond which other parts of the stroke cover it.
 */
export type Contact = Waypoint & { radius: number; runs: boolean };

/** No width changes faster than this by the way: a disc that would is within its larger neighbour. */
const STEEPEST = 0.97;

/** Where the edge turns because the width changes, contacts are so far apart, radians. */
const FAN = 0.15;

/** How much of an end a nib may reach beyond or must stop short of, from a place: the way to it. */
export type Reach = { back: number; ahead: number };

/**
 * The edge of a stretch on one side: the envelope of the discs that a round nib of the stroke's width sweeps, where
 * the edge is at right angles to the radius, which leans by the slope of the width (Ghosh and Mudur 1984, "The
 * brush-trajectory approach to figure specification").
 */
export function contactsOf(
  stretch: Stretch,
  widths: WidthProfile,
  length: number,
  hand: Hand,
  cut: (q: Place) => Reach,
): Contact[] {
  const widthOf = (q: Place, isLast: boolean): Width => {
    const w = widths.at(length > 0 ? q.way / length : 0, isLast);
    const slope = (hand > 0 ? w.leftSlope : w.rightSlope) / (length || 1);
    return { radius: hand > 0 ? w.left : w.right, into: slope, outOf: slope };
  };
  const places: Place[] = [];
  const known: Width[] = [];
  const visit = (q: Place, w: Width, depth: number): void => {
    const before = known.at(-1);
    if (before && depth < 7 && Math.abs(leanOf(before.outOf) - leanOf(w.into)) > FAN) {
      const middle = placeBetween(places.at(-1)!, q);
      if (middle) visit(middle, widthOf(middle, false), depth + 1);
      if (middle && depth < 6) return visit(q, w, depth + 1);
    }
    places.push(q);
    known.push(w);
  };
  stretch.places.forEach((q, i) => visit(q, widthOf(q, i > 0 && i === stretch.places.length - 1), 0));
  notSteeper(known, places);
  return places.flatMap((q, i) => fan(q, known[i], hand, cut(q)));
}

/** The angle by which a radius leans over where the width changes by so much. */
const leanOf = (slope: number): number => Math.asin(Math.max(-STEEPEST, Math.min(STEEPEST, slope)));

/** A radius, and how it changes up to its place and from it on. */
type Width = { radius: number; into: number; outOf: number };

/** Raises each radius to where the larger discs beside it reach. */
function notSteeper(known: Width[], places: readonly Place[]): void {
  const n = known.length;
  const limited = new Array<number>(n).fill(0);
  const raised = new Set<number>();
  const raise = (i: number, from: number, slope: number): void => {
    const least = known[from].radius - STEEPEST * Math.abs(places[i].way - places[from].way);
    if (known[i].radius >= least) return;
    known[i].radius = least;
    limited[Math.min(i, from)] = slope;
    raised.add(i);
  };
  for (let i = 1; i < n; i++) raise(i, i - 1, -STEEPEST);
  for (let i = n - 2; i >= 0; i--) raise(i, i + 1, STEEPEST);
  if (raised.size === 0) return;
  const between = (i: number): number => {
    const step = places[i + 1].way - places[i].way;
    return step > 0 ? (known[i + 1].radius - known[i].radius) / step : 0;
  };
  known.forEach((k, i) => {
    if (i > 0 && limited[i - 1] !== 0) k.into = limited[i - 1];
    else if (raised.has(i) && i > 0) k.into = between(i - 1);
    if (i + 1 < n && limited[i] !== 0) k.outOf = limited[i];
    else if (raised.has(i) && i + 1 < n) k.outOf = between(i);
  });
  known[0].into = known[0].outOf;
  known[n - 1].outOf = known[n - 1].into;
}

/** The contacts at a place: one, or where its slope jumps around it, or inside by way of it. */
function fan(q: Place, { radius, into, outOf }: Width, hand: Hand, reach: Reach): Contact[] {
  const [a, b] = [leanOf(into), leanOf(outOf)];
  if (Math.abs(a - b) < 1e-6) return [contact(q, radius, into, hand, reach)];
  const [first, last] = [contact(q, radius, into, hand, reach), contact(q, radius, outOf, hand, reach)];
  if (b > a) return [first, { ...first, ...q.p, runs: false }, last];
  const count = Math.ceil((a - b) / FAN);
  return Array.from({ length: count + 1 }, (_, i) =>
    contact(q, radius, Math.sin(a + ((b - a) * i) / count), hand, reach),
  );
}

function contact(q: Place, radius: number, slope: number, hand: Hand, reach: Reach): Contact {
  let s = Math.max(-STEEPEST, Math.min(STEEPEST, slope));
  if (radius > 0) s = Math.max(-reach.ahead / radius, Math.min(reach.back / radius, s));
  const lean = Math.sqrt(1 - s * s);
  const { x: tx, y: ty } = q.along;
  // To the side, as y points down.
  const [nx, ny] = [hand * ty, -hand * tx];
  const inward = hand * q.turn;
  const runs = lean - radius * inward > 0;
  const r = runs ? radius : lean / inward;
  return {
    x: q.p.x + r * (lean * nx - s * tx),
    y: q.p.y + r * (lean * ny - s * ty),
    dx: lean * tx + s * nx,
    dy: lean * ty + s * ny,
    radius,
    runs,
  };
}
