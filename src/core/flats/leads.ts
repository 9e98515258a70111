import Flatbush from 'flatbush';
import { evaluate, polygonLength } from '../geometry/cubic';
import { nearestOnCubic } from '../geometry/nearest';
import { distance, type Point } from '../geometry/point';
import type { Curves, End } from './ends';
import type { Pieces, Vertices } from './grid';

/** Where an open end is led to: a place on a curve. */
export type Lead = { readonly end: End; readonly curve: number; readonly t: number; readonly point: Point };

/** A foot so near to the other's own end, as a share of the gap, is that end. */
const AT_END = 0.35;
/** What the end of a run crosses within so many times the gap it has met. */
const MET = 1.5;
/** An end is led to its own run from so many times the gap away along it. */
const ROUND = 3;

/**
 * For each open end the nearest place of another line, or of its own further along, within `gap`; none where the end
 * crosses that line just before, for then it meets it.
 */
export function leadsOf(curves: Curves, vertices: Vertices, pieces: Pieces, index: Flatbush, gap: number): Lead[] {
  return curves.ends.flatMap((end): Lead[] => {
    const tail = tailFrom(curves, end, MET * gap);
    const near = curvesNear(end.point, gap, vertices, pieces, index);
    const met = metBy(tail, end, curves, vertices, pieces, index, gap);
    let best: (Lead & { away: number }) | null = null;
    for (const curve of near) {
      const run = curves.run[curve];
      if (met.has(run)) continue;
      const foot = run === end.run ? ownFoot(curves, end, curve, gap) : nearestOnCubic(curves.cubics[curve], end.point);
      if (!foot || foot.distance > gap || (best && foot.distance >= best.away)) continue;
      best = { end, curve, t: foot.t, point: foot.point, away: foot.distance };
    }
    return best ? [atEnd(best, curves, best.away)] : [];
  });
}

/** The curves of which a piece lies within `gap` of a place. */
function curvesNear(p: Point, gap: number, vertices: Vertices, pieces: Pieces, index: Flatbush): Set<number> {
  const found = new Set<number>();
  const [x, y, r] = [vertices.gridX(p.x), vertices.gridY(p.y), gap / vertices.step + 1];
  index.search(x - r, y - r, x + r, y + r, (i) => {
    found.add(pieces.source[i]);
    return false;
  });
  return found;
}

/** A foot near the open end of its run is led to that end itself. */
function atEnd(lead: Lead, curves: Curves, away: number): Lead {
  for (const { run, curve, atStart, point } of curves.ends) {
    if (run !== curves.run[lead.curve] || curve !== lead.curve) continue;
    if (distance(point, lead.point) <= AT_END * away) return { ...lead, t: atStart ? 0 : 1, point };
  }
  return lead;
}

/** The run's curves from an end on, as far as `length` along them. */
function tailFrom({ cubics, run }: Curves, end: End, length: number): number[] {
  const tail: number[] = [];
  let left = length;
  for (let k = end.curve; run[k] === end.run && left > 0; k += end.atStart ? 1 : -1) {
    tail.push(k);
    left -= polygonLength(cubics[k]);
  }
  return tail;
}

/** The runs that an end's tail crosses, and its own where it crosses that, within reach of the end. */
function metBy(
  tail: readonly number[],
  end: End,
  curves: Curves,
  vertices: Vertices,
  pieces: Pieces,
  index: Flatbush,
  gap: number,
): Set<number> {
  const met = new Set<number>();
  const own = new Set(tail);
  const { x, y } = vertices;
  const [cx, cy, r] = [vertices.gridX(end.point.x), vertices.gridY(end.point.y), (MET * gap) / vertices.step + 1];
  const around: number[] = index.search(cx - r, cy - r, cx + r, cy + r);
  const tails = around.filter((i) => own.has(pieces.source[i]));
  for (const j of around) {
    const run = curves.run[pieces.source[j]];
    if (own.has(pieces.source[j]) || met.has(run)) continue;
    for (const i of tails) {
      if (Math.abs(pieces.source[i] - pieces.source[j]) === 1 && run === end.run) continue;
      if (!crosses(x, y, pieces.from[i], pieces.to[i], pieces.from[j], pieces.to[j])) continue;
      met.add(run);
      break;
    }
  }
  return met;
}

function crosses(x: readonly number[], y: readonly number[], a: number, b: number, c: number, d: number): boolean {
  const turn = (m: number, n: number, o: number): number =>
    Math.sign((x[n] - x[m]) * (y[o] - y[m]) - (y[n] - y[m]) * (x[o] - x[m]));
  return turn(a, b, c) * turn(a, b, d) < 0 && turn(c, d, a) * turn(c, d, b) < 0;
}

const PLACES = 48;

/** The nearest place of a curve of an end's own run, of those that lie far enough from it along the run. */
function ownFoot(
  { cubics, run }: Curves,
  end: End,
  curve: number,
  gap: number,
): { t: number; point: Point; distance: number } | null {
  let before = 0;
  for (let k = end.curve; k !== curve && run[k] === end.run; k += end.atStart ? 1 : -1)
    before += polygonLength(cubics[k]);
  const c = cubics[curve];
  if (before >= ROUND * gap) return nearestOnCubic(c, end.point);
  // Its places that lie far enough, walked from the end on: parameters say little about lengths.
  let best: { t: number; point: Point; distance: number } | null = null;
  let last = evaluate(c, end.atStart ? 0 : 1);
  for (let i = 1; i <= PLACES; i++) {
    const t = end.atStart ? i / PLACES : 1 - i / PLACES;
    const point = evaluate(c, t);
    before += distance(last, point);
    last = point;
    if (before < ROUND * gap) continue;
    const away = distance(point, end.point);
    if (!best || away < best.distance) best = { t, point, distance: away };
  }
  return best;
}
