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
export type Extent = { back: number; ahead: number };

/**
 * The edges of all stretches on one side: the envelope of the discs that a round nib of the stroke's width sweeps, where
 * the edge is at right angles to the radius, which leans by the slope of the width (Ghosh and Mudur 1984, "The
 * brush-trajectory approach to figure specification").
 */
export function contactsOf(
  stretches: readonly Stretch[],
  widths: WidthProfile,
  { length, closed }: { length: number; closed: boolean },
  hand: Hand,
  cut: (q: Place) => Extent,
): Contact[][] {
  const sections = stretches.map((s) => sectionsOf(s, widths, length, hand));
  notSteeper(sections.flat(), closed ? length : null);
  for (const list of sections) {
    list[0].into = list[0].outOf;
    list.at(-1)!.outOf = list.at(-1)!.into;
  }
  return sections.map((list) => sharpened(list, hand, cut).flatMap((section) => fan(section, hand, cut(section.q))));
}

/** A place, the radius there, and how that changes up to it and from it on. */
type Section = { q: Place; radius: number; into: number; outOf: number };

/** The places of a stretch with their radii, and more of them where the slope of these changes fast. */
function sectionsOf(stretch: Stretch, widths: WidthProfile, length: number, hand: Hand): Section[] {
  const at = (q: Place, isLast: boolean): Section => {
    const w = widths.at(length > 0 ? q.travelled / length : 0, isLast);
    const slope = (hand > 0 ? w.leftSlope : w.rightSlope) / (length || 1);
    return { q, radius: hand > 0 ? w.left : w.right, into: slope, outOf: slope };
  };
  const sections: Section[] = [];
  const visit = (s: Section, depth: number): void => {
    const before = sections.at(-1);
    if (before && depth < 7 && Math.abs(leanOf(before.outOf) - leanOf(s.into)) > FAN) {
      const middle = placeBetween(before.q, s.q);
      if (middle) visit(at(middle, false), depth + 1);
      if (middle && depth < 6) return visit(s, depth + 1);
    }
    sections.push(s);
  };
  stretch.places.forEach((q, i) => visit(at(q, i > 0 && i === stretch.places.length - 1), 0));
  return sections;
}

/** Halvings until the place where an edge stops running is found. */
const HALVINGS = 7;

/** The places, and between two of which only one has an edge that runs on, those to both sides of where that changes. */
function sharpened(list: readonly Section[], hand: Hand, cut: (q: Place) => Extent): Section[] {
  const runs = (s: Section): boolean => contact(s.q, s.radius, s.outOf, hand, cut(s.q)).runs;
  return list.flatMap((b, i) => {
    const a = list[i - 1];
    if (!a || runs(a) === runs(b)) return [b];
    let [before, after] = [a, b];
    for (let k = 0; k < HALVINGS; k++) {
      const q = placeBetween(before.q, after.q);
      if (!q) break;
      const share = (q.travelled - a.q.travelled) / (b.q.travelled - a.q.travelled || 1);
      const mixed = (from: number, to: number): number => from + (to - from) * share;
      const slope = mixed(a.outOf, b.into);
      const middle: Section = { q, radius: mixed(a.radius, b.radius), into: slope, outOf: slope };
      if (runs(middle) === runs(a)) before = middle;
      else after = middle;
    }
    return [...(before === a ? [] : [before]), ...(after === b ? [] : [after]), b];
  });
}

/** The angle by which a radius leans over where the width changes by so much. */
const leanOf = (slope: number): number => Math.asin(Math.max(-STEEPEST, Math.min(STEEPEST, slope)));

/** Raises each radius to where the larger discs beside it reach; `round` is the length of a closed stroke. */
function notSteeper(all: Section[], round: number | null): void {
  const n = all.length;
  const limited = new Array<number>(n).fill(0);
  const raised = new Set<number>();
  const gap = (i: number): number =>
    i + 1 < n
      ? all[i + 1].q.travelled - all[i].q.travelled
      : Math.max(0, (round ?? 0) - all[i].q.travelled + all[0].q.travelled);
  const raise = (i: number, from: number, interval: number, slope: number): void => {
    const least = all[from].radius - STEEPEST * gap(interval);
    if (all[i].radius >= least) return;
    all[i].radius = least;
    limited[interval] = slope;
    raised.add(i);
  };
  // Twice round a closed stroke: its seam is a place like any other.
  const laps = round === null ? 1 : 2;
  for (let k = 1; k < laps * n; k++) raise(k % n, (k - 1) % n, (k - 1) % n, -STEEPEST);
  for (let k = laps * n - 2; k >= 0; k--) raise(k % n, (k + 1) % n, k % n, STEEPEST);
  if (raised.size === 0) return;
  const between = (i: number): number => (gap(i) > 0 ? (all[(i + 1) % n].radius - all[i].radius) / gap(i) : 0);
  all.forEach((s, i) => {
    const before = (i + n - 1) % n;
    if (limited[before] !== 0) s.into = limited[before];
    else if (raised.has(i)) s.into = between(before);
    if (limited[i] !== 0) s.outOf = limited[i];
    else if (raised.has(i)) s.outOf = between(i);
  });
}

/** The contacts at a place: one, or where its slope jumps around it, or inside by way of it. */
function fan({ q, radius, into, outOf }: Section, hand: Hand, context: Extent): Contact[] {
  const [a, b] = [leanOf(into), leanOf(outOf)];
  if (Math.abs(a - b) < 1e-6) return [contact(q, radius, into, hand, context)];
  const [first, last] = [contact(q, radius, into, hand, context), contact(q, radius, outOf, hand, context)];
  if (b > a) return [first, { ...first, ...q.p, runs: false }, last];
  const count = Math.ceil((a - b) / FAN);
  return Array.from({ length: count + 1 }, (_, i) =>
    contact(q, radius, Math.sin(a + ((b - a) * i) / count), hand, context),
  );
}

function contact(q: Place, radius: number, slope: number, hand: Hand, context: Extent): Contact {
  let s = Math.max(-STEEPEST, Math.min(STEEPEST, slope));
  if (radius > 0) s = Math.max(-context.ahead / radius, Math.min(context.back / radius, s));
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
