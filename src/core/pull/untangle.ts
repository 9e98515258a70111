import type { Point } from '../geometry/point';
import { polylineLength, type Junction, type StrokeGraph, type Branch } from './strokeGraph';
import {
  bendBetween,
  bridge,
  clearEnd,
  junctionOf,
  leadTo,
  otherEnd,
  pointsFrom,
  type ClearEnd,
  type BranchEnd,
} from './branchEnds';

/** A stroke pulled from a graph: its points, and whether the last is followed by the first. */
export type Pulled = { points: Point[]; closed: boolean };

/** A free way shorter than this many half-widths of the ink at its junction is a burr of the thinning. */
const BURR = 1.4;
/** Junctions nearer to each other than this many half-widths are one crossing that the thinning has drawn out. */
const SAME_CROSSING = 2.6;
/** Ink wider than a stroke's by this much is that of two strokes on each other. */
const DOUBLED = 1.13;
/** How long, in half-widths, two strokes may run on each other and still be told apart beyond. */
const LONGEST_DOUBLED = 22;
/** Ways that would bend by more than this where they meet are not one stroke, in radians. */
const MOST_BEND = 0.8;

/**
 * Makes strokes of a skeleton's graph, as a hand would have drawn them: burrs go; where two strokes run on each other
 * for a while (their ink is wider there than either) the junctions on both sides are one crossing; at each crossing the
 * branches that go straight on are joined by a smooth bridge, the straightest first; the others are led to where they meet.
 */
export function untangled(graph: StrokeGraph, radiusAt: (p: Point) => number): Pulled[] {
  let branches = graph.branches.filter((w) => w.points.length > 0 || (w.a && w.b && w.a !== w.b));
  branches = withoutBurrs(branches);
  branches = withCrossingsMerged(branches);
  branches = withoutBurrs(branches);
  return [...joined(branches, radiusAt), ...graph.rings.map((points) => ({ points, closed: true }))];
}

function endsAt(branches: readonly Branch[]): Map<Junction, BranchEnd[]> {
  const ends = new Map<Junction, BranchEnd[]>();
  for (const branch of branches) {
    for (const side of ['a', 'b'] as const) {
      const junction = branch[side];
      if (junction) ends.set(junction, [...(ends.get(junction) ?? []), { branch, side }]);
    }
  }
  return ends;
}

function withoutBurrs(branches: Branch[]): Branch[] {
  const ends = endsAt(branches);
  const isBurr = (w: Branch): boolean => {
    const junction = w.a && !w.b ? w.a : w.b && !w.a ? w.b : null;
    return !!junction && ends.get(junction)!.length > 2 && polylineLength(w.points) < BURR * radiusOf(junction) + 2;
  };
  return branches.filter((w) => !isBurr(w));
}

const radiusOf = (j: Junction): number => Math.max(...j.discs.map((d) => d.radius));

/** Merges junctions that are one crossing, and makes tips of the doubled ends of strokes that meet. */
function withCrossingsMerged(branches: Branch[]): Branch[] {
  let list = [...branches].sort((p, q) => p.points.length - q.points.length);
  for (const branch of [...list]) {
    const ends = endsAt(list);
    const { a, b } = branch;
    if (!list.includes(branch) || a === b) continue;
    const junctions = [a, b].filter((j) => j !== null);
    const radius = Math.max(...junctions.map(radiusOf));
    const length = polylineLength(branch.points);
    const isShort = !!a && !!b && length <= SAME_CROSSING * radius;
    if (!isShort && (!isDoubled(branch, junctions, ends) || length > LONGEST_DOUBLED * radius)) continue;
    list = list.filter((w) => w !== branch);
    const far = pointsFrom({ branch, side: a ? 'a' : 'b' }).at(-1);
    const merged: Junction = {
      discs: junctions.flatMap((j) => j.discs),
      tip: a && b ? (a.tip ?? b.tip) : (far ?? null),
    };
    for (const w of list) {
      if (w.a && junctions.includes(w.a)) w.a = merged;
      if (w.b && junctions.includes(w.b)) w.b = merged;
    }
  }
  return list;
}

/** Whether a way's ink is wider than that of any single way it could be the continuation of. */
function isDoubled(branch: Branch, junctions: readonly Junction[], ends: ReadonlyMap<Junction, BranchEnd[]>): boolean {
  const widest = junctions.map((j) => {
    const others = ends.get(j)!.filter((e) => e.branch !== branch);
    return others.length > 1 ? Math.max(...others.map((e) => e.branch.radius)) : Infinity;
  });
  return branch.radius > DOUBLED * Math.min(...widest) + 0.3;
}

/** Joins branches through junctions, the straightest first; what finds no partner is led to the junction or its tip. */
function joined(branches: Branch[], radiusAt: (p: Point) => number): Pulled[] {
  const ids = new Map(branches.map((w, i) => [w, i]));
  const key = (e: BranchEnd): string => `${ids.get(e.branch)}${e.side}`;
  const clear = new Map<string, ClearEnd | null>();
  for (const branch of branches)
    for (const side of ['a', 'b'] as const) clear.set(key({ branch, side }), clearEnd({ branch, side }, radiusAt));
  const partner = partnersOf(branches, key, clear);
  const through = throughLines(branches, key, clear, partner);
  const leadIn = (end: BranchEnd): Point[] => {
    const [junction, from] = [junctionOf(end), clear.get(key(end))];
    return junction && from ? leadTo(from, meetingPlace(from, junction, through.get(junction) ?? [])) : [];
  };

  const done = new Set<Branch>();
  const strokes: Pulled[] = [];
  for (const branch of branches) {
    if (done.has(branch)) continue;
    // Back to where the stroke begins, then on to its end.
    let start: BranchEnd = { branch, side: 'a' };
    let closed = false;
    for (let back = partner.get(key(start)); back; back = partner.get(key(start))) {
      start = otherEnd(back);
      if (start.branch === branch) {
        closed = true;
        break;
      }
    }
    const points: Point[] = closed ? [] : leadIn(start).reverse();
    let at: BranchEnd | undefined = start;
    while (at && !done.has(at.branch)) {
      done.add(at.branch);
      const end = otherEnd(at);
      const [from, to] = [clear.get(key(at)), clear.get(key(end))];
      const own = pointsFrom(at);
      points.push(...own.slice(from?.skip ?? 0, own.length - (to?.skip ?? 0)));
      const next = partner.get(key(end));
      const onward = next && clear.get(key(next));
      if (next && to && onward) points.push(...bridge(to, onward));
      else if (!next) points.push(...leadIn(end));
      at = next;
    }
    if (points.length > 0) strokes.push({ points, closed });
  }
  return strokes;
}

/** How far along a stroke that goes through a junction others may meet it, in points to either side. */
const THROUGH = 40;

/** The strokes that go on through each junction, as rows of points. */
function throughLines(
  branches: readonly Branch[],
  key: (e: BranchEnd) => string,
  clear: ReadonlyMap<string, ClearEnd | null>,
  partner: ReadonlyMap<string, BranchEnd>,
): Map<Junction, Point[][]> {
  const lines = new Map<Junction, Point[][]>();
  for (const [junction, ends] of endsAt(branches)) {
    for (const one of ends) {
      const two = partner.get(key(one));
      const [a, b] = [clear.get(key(one)), two && clear.get(key(two))];
      if (!two || !a || !b || key(one) > key(two)) continue;
      const [before, after] = [
        pointsFrom(one).slice(a.skip, a.skip + THROUGH),
        pointsFrom(two).slice(b.skip, b.skip + THROUGH),
      ];
      lines.set(junction, [...(lines.get(junction) ?? []), [...before.reverse(), ...bridge(a, b), ...after]]);
    }
  }
  return lines;
}

/** Where a stroke that ends at a junction meets what is there: the line it runs into, or else the tip or the middle. */
function meetingPlace(from: ClearEnd, junction: Junction, lines: readonly Point[][]): Point {
  let best: { place: Point; along: number } | null = null;
  const most = 12 * radiusOf(junction);
  for (const line of lines) {
    for (let i = 1; i < line.length; i++) {
      const [p, q] = [line[i - 1], line[i]];
      const [ex, ey] = [q.x - p.x, q.y - p.y];
      const turn = -from.out.x * ey + from.out.y * ex;
      if (Math.abs(turn) < 1e-9) continue;
      const [dx, dy] = [p.x - from.at.x, p.y - from.at.y];
      const along = (dx * ey - dy * ex) / turn;
      const share = (dx * -from.out.y - dy * -from.out.x) / turn;
      if (along < 0 || along > most || share < 0 || share > 1 || (best && best.along <= along)) continue;
      best = { place: { x: p.x + share * ex, y: p.y + share * ey }, along };
    }
  }
  if (junction.tip && !best) return junction.tip;
  return best?.place ?? nearestDisc(junction, from.at);
}

function nearestDisc(junction: Junction, p: Point): Point {
  const distance = (d: { at: Point }): number => Math.hypot(d.at.x - p.x, d.at.y - p.y);
  return junction.discs.reduce((a, b) => (distance(b) < distance(a) ? b : a)).at;
}

/** Which ends go on into each other. */
function partnersOf(
  branches: readonly Branch[],
  key: (e: BranchEnd) => string,
  clear: ReadonlyMap<string, ClearEnd | null>,
): Map<string, BranchEnd> {
  const partner = new Map<string, BranchEnd>();
  for (const ends of endsAt(branches).values()) {
    const pairs: { one: BranchEnd; two: BranchEnd; bend: number }[] = [];
    ends.forEach((one, i) =>
      ends.slice(i + 1).forEach((two) => {
        const [a, b] = [clear.get(key(one)), clear.get(key(two))];
        if (a && b) pairs.push({ one, two, bend: bendBetween(a, b) });
      }),
    );
    pairs.sort((p, q) => p.bend - q.bend);
    for (const { one, two, bend } of pairs) {
      // Two branches alone at a junction are one, however they bend.
      if (bend > MOST_BEND && ends.length > 2) break;
      if (partner.has(key(one)) || partner.has(key(two))) continue;
      partner.set(key(one), two);
      partner.set(key(two), one);
    }
  }
  return partner;
}
