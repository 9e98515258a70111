import type { Waypoint } from './fitTrack';
import type { Place, Stretch } from './spine';
import type { WidthProfile } from './widths';

/** Which side of the line, seen along it: 1 the left, -1 the right. */
export type Hand = 1 | -1;

/**
 * Where a round nib touches the edge of its stroke: a waypoint of the edge, the radius there, and whether the edge moves
 * on; on the inside of a turn tighter than the radius it would run back, and stops at the centre of curvature instead,
 * beyond which other parts of the stroke cover it.
 */
export type Contact = Waypoint & { radius: number; runs: boolean };

/** Widths that change faster than this by the way are drawn as if they changed so fast. */
const STEEPEST = 0.9;

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
  const { places } = stretch;
  return places.map((q, i) => {
    const w = widths.at(length > 0 ? q.way / length : 0, i === places.length - 1 && i > 0);
    const radius = hand > 0 ? w.left : w.right;
    const slope = (hand > 0 ? w.leftSlope : w.rightSlope) / (length || 1);
    return contact(q, radius, slope, hand, cut(q));
  });
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
