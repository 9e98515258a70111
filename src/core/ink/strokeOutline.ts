import { arcCubics } from '../geometry/arc';
import { assertRun, type CubicRun } from '../geometry/along';
import { evaluate, reversed, straightCubic, type Cubic } from '../geometry/cubic';
import { distance, mix, scale, type Point } from '../geometry/point';
import type { Mark } from '../drawing/schema';
import { windingAround } from '../geometry/polygon';
import { edgeOf, joinOf, partsOf, type Part } from './edge';
import { withoutLoops } from './loops';
import { between, fitTrack, type Waypoint } from './fitTrack';
import { contactsOf, type Contact, type Extent } from './side';
import { spineOf, turnBetween, type Place, type Spine, type Stretch } from './spine';
import { withoutSpikes } from './spikes';
import { Trail } from './trail';
import { widthProfile, type WidthProfile, type Widths } from './widths';

export type StrokeOptions = {
  cap: 'butt' | 'round' | 'square';
  join: 'miter' | 'round' | 'bevel';
  /** How long a miter may be, in widths of the stroke; 4 by default, as in SVG. */
  miterLimit?: number;
  /** How far the outline may lie from the true edge, in the run's units. */
  tolerance: number;
};

/** What of the tolerance the curves take; the rest is for their ends and arcs. */
const FOR_CURVES = 0.5;

/**
 * The body of a stroke as closed outlines of cubics, for the nonzero rule: what a round nib sweeps whose size follows
 * the widths, with the given caps and joins. `width` holds half-widths to the left and right of the direction of travel
 * (y down) at shares of the arc length, rising; between them it goes over smoothly (`widthProfile`). An open run has one
 * outline, a closed one two. Where a turn is tighter than the stroke's half-width, and at the inside of corners, the
 * outline runs by way of the centre of curvature or the corner, inside the body: all of it winds the same way, so that
 * nothing falls out. A run without length is a dot with round caps, a square with square ones, and nothing with butt.
 * @throws RangeError for a bad run, bad widths, an unknown cap or join, a miter limit under 1 or a tolerance that is not above 0.
 */
export function strokeOutline(run: CubicRun, width: readonly Mark[], options: StrokeOptions): Cubic[][] {
  assertRun(run);
  assertOptions(options);
  return outlinesOf(run, widthProfile(width, run.closed), options, fittedOutline(options.tolerance));
}

/** How an outline is made: how closely the middle line is walked, and how its edges become curves. */
export type Making = {
  step: number;
  dense: number;
  curves: (track: readonly Waypoint[]) => Cubic[];
  /** What is done with a finished outline. */
  finish?: (outline: readonly Cubic[]) => Cubic[];
};

/** As few curves as hold the tolerance. */
export const fittedOutline = (tolerance: number): Making => ({
  step: 0.16,
  dense: 6,
  curves: (track) => fitTrack(track, FOR_CURVES * tolerance),
  finish: (outline) => withoutSpikes(outline),
});

/** Curves from place to place as they are walked: as true, more of them, and many times quicker. For painting. */
export const walkedOutline: Making = {
  step: 0.4,
  dense: 4,
  curves: (track) => track.slice(1).map((to, i) => between(track[i], to)),
};

/** `strokeOutline` with its widths known and nothing checked. */
export function outlinesOf(run: CubicRun, widths: WidthProfile, options: StrokeOptions, making: Making): Cubic[][] {
  const widest = Math.max(...widths.marks.map((m) => Math.max(m.left, m.right)));
  if (widest === 0) return [];
  const { tolerance } = options;
  const { step, dense } = making;
  // A turn that moves the edge by less than this is none.
  const corner = Math.min(0.1, (0.5 * tolerance) / widest);
  const cubics = run.closed ? closedUp(run.cubics) : run.cubics;
  const spine = spineOf(cubics, { step, dense, corner, shares: sharesOf(widths), tolerance });
  // Next to its own width it has no length.
  const isShort = options.cap === 'round' && spine.length < 1e-3 * widest;
  if (spine.stretches.length === 0 || isShort)
    return dotOf(run.cubics[0][0], spine.length > 0 ? 2 * widest : total(widths.at(0)), options);
  const stretches = cutAtSharp(spine, widths);
  const sides = ([1, -1] as const).map((hand) => sideOf(hand, stretches, spine.length, widths, run.closed, options));
  const build = (parts: readonly Part[][]): Cubic[][] => {
    const [left, right] = parts.map((p) => edgeOf(p, run.closed, tolerance, making.curves));
    const outlines = assembled(run.closed, stretches, sides, left, right, options);
    return making.finish ? outlines.map((o) => making.finish!(o)).filter((o) => o.length > 0) : outlines;
  };
  const clean = sides.map((s) => withoutLoops(s.parts, run.closed));
  const outlines = build(clean.map((c) => c.parts));
  const enclosed = clean.flatMap((c) => c.enclosed);
  // A loop that was all that covered its place stays.
  return coversAll(outlines, enclosed) ? outlines : build(sides.map((s) => s.parts));
}

/** Outlines from the two edges: both of a closed run; of an open one a single one, by way of its caps. */
function assembled(
  closed: boolean,
  stretches: readonly Stretch[],
  [left, right]: readonly Side[],
  leftEdge: Cubic[],
  rightEdge: Cubic[],
  options: StrokeOptions,
): Cubic[][] {
  const back = rightEdge.map(reversed).reverse();
  if (closed) return [leftEdge, back].filter((c) => c.length > 0);
  const [first, last] = [stretches[0].places[0], stretches.at(-1)!.places.at(-1)!];
  const trail = new Trail(left.first).along(leftEdge);
  followCap(trail, last.p, last.along, left.last, right.last, options);
  trail.to(right.last).along(back);
  followCap(trail, first.p, scale(first.along, -1), right.first, left.first, options);
  trail.to(left.first);
  return trail.cubics.length > 0 ? [trail.cubics] : [];
}

/** Whether outlines go round each of some places at least once. */
function coversAll(outlines: readonly (readonly Cubic[])[], places: readonly Point[]): boolean {
  if (places.length === 0) return true;
  const polygons = outlines.map((o) => o.flatMap((c) => [0, 0.25, 0.5, 0.75].map((t) => evaluate(c, t))));
  return places.every((p) => polygons.reduce((n, polygon) => n + windingAround(polygon, p), 0) !== 0);
}

/** A closed run that ends elsewhere than it began goes straight back. */
function closedUp(cubics: Cubic[]): Cubic[] {
  const [end, start] = [cubics.at(-1)![3], cubics[0][0]];
  return distance(end, start) > 1e-9 ? [...cubics, straightCubic(end, start)] : cubics;
}

/** Where along the stroke something happens to its width; nothing does where it is the same throughout. */
function sharesOf({ marks }: WidthProfile): number[] {
  if (marks.every((m) => m.left === marks[0].left && m.right === marks[0].right)) return [];
  return [...new Set([0, ...marks.map((m) => m.at), 1])].sort((a, b) => a - b);
}

/** Stretches end at sharp marks as at corners. */
function cutAtSharp({ stretches, length }: Spine, { marks }: WidthProfile): Stretch[] {
  const ways = marks.filter((m) => m.sharp).map((m) => m.at * length);
  if (ways.length === 0) return stretches;
  return stretches.flatMap(({ places, atCusp }) => {
    const cuts = places.flatMap((q, i) =>
      i > 0 && i < places.length - 1 && ways.some((w) => Math.abs(w - q.travelled) < 2e-6 * length) ? [i] : [],
    );
    const bounds = [0, ...cuts, places.length - 1];
    return bounds.slice(1).map((to, k): Stretch => ({
      places: places.slice(bounds[k], to + 1),
      atCusp: k === 0 && atCusp,
    }));
  });
}

type Side = { parts: Part[]; first: Contact; last: Contact };

/** One side from end to end with its joins; that of a closed run comes back to its start. */
function sideOf(
  hand: 1 | -1,
  stretches: readonly Stretch[],
  length: number,
  widths: WidthProfile,
  closed: boolean,
  { cap, join, miterLimit = 4, tolerance }: StrokeOptions,
): Side {
  // An end that is cut off straight keeps the nib from reaching over it.
  const isCut = cap !== 'round' && !closed;
  const reach = (q: Place): Extent =>
    isCut ? { back: q.travelled, ahead: length - q.travelled } : { back: Infinity, ahead: Infinity };
  const all = contactsOf(stretches, widths, { length, closed }, hand, reach);
  const corner = (i: number, k: number): Part[] => {
    const [a, b] = [stretches[i], stretches[k]];
    const before = { contact: all[i].at(-1)!, along: a.places.at(-1)!.along };
    const after = { contact: all[k][0], along: b.places[0].along };
    const isStraightOn = turnBetween(before.along, after.along) < 1e-6;
    const kind = b.atCusp || isStraightOn ? 'round' : join;
    return joinOf(b.places[0].p, before, after, hand, { join: kind, miterLimit }, tolerance / 2);
  };
  const parts = all.flatMap((contacts, i) => [...(i > 0 ? corner(i - 1, i) : []), ...partsOf(contacts)]);
  if (closed) parts.push(...corner(all.length - 1, 0));
  return { parts, first: all[0][0], last: all.at(-1)!.at(-1)! };
}

/** Around an end, from the edge on the left of the direction out of it to that on its right. */
function followCap(
  trail: Trail,
  end: Point,
  out: Point,
  from: Contact,
  to: Contact,
  { cap, tolerance }: StrokeOptions,
): void {
  const [l, r] = [from.radius, to.radius];
  const side = (k: number, on = 0): Point => ({ x: end.x + k * out.y + on * out.x, y: end.y - k * out.x + on * out.y });
  if (cap !== 'round') {
    const on = cap === 'square' ? (l + r) / 2 : 0;
    trail.to(side(l)).to(side(l, on)).to(side(-r, on)).to(side(-r));
    return;
  }
  if (l + r === 0) return;
  const isEven = Math.abs(l - r) < 1e-9;
  const middle = isEven ? end : mix(from, to, 0.5);
  const radius = isEven ? l : distance(from, to) / 2;
  const [a, b] = [from, to].map((p) => Math.atan2(p.y - middle.y, p.x - middle.x));
  const sweep = (b - a + 4 * Math.PI) % (2 * Math.PI);
  trail.along(arcCubics(middle, radius, radius, a, sweep, tolerance / 2));
}

const total = ({ left, right }: Widths): number => left + right;

/** What a nib leaves that does not move. */
function dotOf(p: Point, width: number, { cap, tolerance }: StrokeOptions): Cubic[][] {
  const r = width / 2;
  if (cap === 'butt' || r === 0) return [];
  if (cap === 'round') return [arcCubics(p, r, r, 0, 2 * Math.PI, tolerance / 2)];
  const corner = (x: number, y: number): Point => ({ x: p.x + x * r, y: p.y + y * r });
  const trail = new Trail(corner(-1, -1)).to(corner(1, -1)).to(corner(1, 1)).to(corner(-1, 1)).to(corner(-1, -1));
  return [trail.cubics];
}

function assertOptions({ cap, join, miterLimit = 4, tolerance }: StrokeOptions): void {
  if (!['butt', 'round', 'square'].includes(cap)) throw new RangeError('a cap is butt, round or square');
  if (!['miter', 'round', 'bevel'].includes(join)) throw new RangeError('a join is miter, round or bevel');
  if (!(miterLimit >= 1 && miterLimit < Infinity)) throw new RangeError('a miter limit is 1 or more');
  if (!(tolerance > 0 && tolerance < Infinity)) throw new RangeError('the tolerance must be a positive number');
}
