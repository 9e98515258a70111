import { arcCubics } from '../geometry/arc';
import type { Cubic } from '../geometry/cubic';
import { cross, distance, dot, type Point } from '../geometry/point';
import { withoutRepeats, type Waypoint } from './fitTrack';
import type { Contact, Hand } from './side';
import { Trail } from './trail';

export type Join = { join: 'miter' | 'round' | 'bevel'; miterLimit: number };

/**
 * A piece of a stroke's edge: a curve that is to be fitted; a way inside the body, from stop to stop; or around the
 * outside of a corner.
 */
export type Part =
  { kind: 'curve'; at: Contact[] } | { kind: 'inside'; at: Point[] } | { kind: 'around'; cubics: Cubic[] };

/** The edge of a stretch in parts: where it does not run on it goes inside. */
export function partsOf(contacts: readonly Contact[]): Part[] {
  const parts: Part[] = [];
  for (let i = 0; i < contacts.length;) {
    let end = i + 1;
    while (end < contacts.length && contacts[end].runs === contacts[i].runs) end++;
    const at = withoutRepeats(contacts.slice(i, end));
    parts.push({ kind: contacts[i].runs ? 'curve' : 'inside', at });
    i = end;
  }
  return parts;
}

/** Where an edge ends or begins at a corner, and the direction of the line there. */
export type AtCorner = { contact: Contact; along: Point };

/**
 * From the edge of one stretch to that of the next about their common place: around it on the outside of the corner, by
 * way of it on the inside, so that every part of the outline runs the same way round.
 */
export function joinOf(
  pivot: Point,
  before: AtCorner,
  after: AtCorner,
  hand: Hand,
  { join, miterLimit }: Join,
  tolerance: number,
): Part[] {
  const [a, b] = [before.contact, after.contact];
  if (distance(a, b) < 1e-9) return [];
  const turn = Math.atan2(cross(before.along, after.along), dot(before.along, after.along));
  let angle = Math.atan2(a.dx * b.dy - a.dy * b.dx, a.dx * b.dx + a.dy * b.dy);
  // Where the line turns right back, both sides must agree on which is outside.
  const isBack = Math.abs(turn) > 2.5;
  if (isBack && Math.sign(angle) !== Math.sign(turn)) angle += 2 * Math.PI * Math.sign(turn);
  if ((isBack ? turn : angle) * hand <= 0) return [{ kind: 'inside', at: [pivot] }];
  const trail = new Trail({ x: a.x, y: a.y });
  if (join === 'round' && Math.abs(a.radius - b.radius) < 1e-6) {
    const start = Math.atan2(a.y - pivot.y, a.x - pivot.x);
    trail.along(arcCubics(pivot, a.radius, a.radius, start, angle, tolerance));
  } else if (join === 'miter' && 1 <= miterLimit * Math.cos(angle / 2)) {
    const k = ((b.x - a.x) * b.dy - (b.y - a.y) * b.dx) / (a.dx * b.dy - a.dy * b.dx);
    if (Number.isFinite(k)) trail.to({ x: a.x + k * a.dx, y: a.y + k * a.dy });
  }
  return [{ kind: 'around', cubics: trail.to(b).cubics }];
}

/** The cubics of an edge in parts; that of a closed stroke comes back to its start. */
export function edgeOf(
  parts: readonly Part[],
  closed: boolean,
  tolerance: number,
  curves: (track: readonly Waypoint[]) => Cubic[],
): Cubic[] {
  const first = parts[0];
  const start = first.kind === 'around' ? first.cubics[0][0] : first.at[0];
  const trail = new Trail({ x: start.x, y: start.y });
  for (const part of parts) {
    if (part.kind === 'around') trail.along(part.cubics);
    else if (part.kind === 'inside') for (const p of fewStops(part.at, tolerance)) trail.to(p);
    else {
      trail.to(part.at[0]).along(curves(part.at));
    }
  }
  if (closed) trail.to(start);
  return trail.cubics;
}

/** As few of the stops as stay within the tolerance of all (Ramer 1972, Douglas and Peucker 1973). */
function fewStops(stops: readonly Point[], tolerance: number): Point[] {
  if (stops.length < 3) return [...stops];
  const [a, b] = [stops[0], stops.at(-1)!];
  const chord = distance(a, b);
  let [far, at] = [tolerance, -1];
  stops.forEach((q, i) => {
    const off = chord > 0 ? Math.abs((q.x - a.x) * (b.y - a.y) - (q.y - a.y) * (b.x - a.x)) / chord : distance(q, a);
    if (off > far) [far, at] = [off, i];
  });
  if (at < 0) return [a, b];
  return [...fewStops(stops.slice(0, at + 1), tolerance), ...fewStops(stops.slice(at), tolerance).slice(1)];
}
