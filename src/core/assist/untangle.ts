import type { Point } from '../geometry/point';
import { lengthOfWay, type Junction, type StrokeGraph, type Way } from './strokeGraph';
import {
  bendBetween,
  bridge,
  clearEnd,
  junctionOf,
  leadTo,
  otherEnd,
  pointsFrom,
  type ClearEnd,
  type WayEnd,
} from './wayEnds';

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
 * ways that go straight on are joined by a smooth bridge, the straightest first; the others are led to where they meet.
 */
export function untangled(graph: StrokeGraph, radiusAt: (p: Point) => number): Pulled[] {
  let ways = graph.ways.filter((w) => w.points.length > 0 || (w.a && w.b && w.a !== w.b));
  ways = withoutBurrs(ways);
  ways = withCrossingsMerged(ways);
  ways = withoutBurrs(ways);
  return [...joined(ways, radiusAt), ...graph.rings.map((points) => ({ points, closed: true }))];
}

function endsAt(ways: readonly Way[]): Map<Junction, WayEnd[]> {
  const ends = new Map<Junction, WayEnd[]>();
  for (const way of ways) {
    for (const side of ['a', 'b'] as const) {
      const junction = way[side];
      if (junction) ends.set(junction, [...(ends.get(junction) ?? []), { way, side }]);
    }
  }
  return ends;
}

function withoutBurrs(ways: Way[]): Way[] {
  const ends = endsAt(ways);
  const isBurr = (w: Way): boolean => {
    const junction = w.a && !w.b ? w.a : w.b && !w.a ? w.b : null;
    return !!junction && ends.get(junction)!.length > 2 && lengthOfWay(w.points) < BURR * radiusOf(junction) + 2;
  };
  return ways.filter((w) => !isBurr(w));
}

const radiusOf = (j: Junction): number => Math.max(...j.discs.map((d) => d.radius));

/** Merges junctions that are one crossing, and makes tips of the doubled ends of strokes that meet. */
function withCrossingsMerged(ways: Way[]): Way[] {
  let list = [...ways].sort((p, q) => p.points.length - q.points.length);
  for (const way of [...list]) {
    const ends = endsAt(list);
    const { a, b } = way;
    if (!list.includes(way) || a === b) continue;
    const junctions = [a, b].filter((j) => j !== null);
    const radius = Math.max(...junctions.map(radiusOf));
    const length = lengthOfWay(way.points);
    const isShort = !!a && !!b && length <= SAME_CROSSING * radius;
    if (!isShort && (!isDoubled(way, junctions, ends) || length > LONGEST_DOUBLED * radius)) continue;
    list = list.filter((w) => w !== way);
    const far = pointsFrom({ way, side: a ? 'a' : 'b' }).at(-1);
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
function isDoubled(way: Way, junctions: readonly Junction[], ends: ReadonlyMap<Junction, WayEnd[]>): boolean {
  const widest = junctions.map((j) => {
    const others = ends.get(j)!.filter((e) => e.way !== way);
    return others.length > 1 ? Math.max(...others.map((e) => e.way.radius)) : Infinity;
  });
  return way.radius > DOUBLED * Math.min(...widest) + 0.3;
}

/** Joins ways through junctions, the straightest first; what finds no partner is led to the junction or its tip. */
function joined(ways: Way[], radiusAt: (p: Point) => number): Pulled[] {
  const ids = new Map(ways.map((w, i) => [w, i]));
  const key = (e: WayEnd): string => `${ids.get(e.way)}${e.side}`;
  const clear = new Map<string, ClearEnd | null>();
  for (const way of ways)
    for (const side of ['a', 'b'] as const) clear.set(key({ way, side }), clearEnd({ way, side }, radiusAt));
  const partner = partnersOf(ways, key, clear);
  const through = throughLines(ways, key, clear, partner);
  const leadIn = (end: WayEnd): Point[] => {
    const [junction, from] = [junctionOf(end), clear.get(key(end))];
    return junction && from ? leadTo(from, meetingPlace(from, junction, through.get(junction) ?? [])) : [];
  };

  const done = new Set<Way>();
  const strokes: Pulled[] = [];
  for (const way of ways) {
    if (done.has(way)) continue;
    // Back to where the stroke begins, then on to its end.
    let start: WayEnd = { way, side: 'a' };
    let closed = false;
    for (let back = partner.get(key(start)); back; back = partner.get(key(start))) {
      start = otherEnd(back);
      if (start.way === way) {
        closed = true;
        break;
      }
    }
    const points: Point[] = closed ? [] : leadIn(start).reverse();
    let at: WayEnd | undefined = start;
    while (at && !done.has(at.way)) {
      done.add(at.way);
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
  ways: readonly Way[],
  key: (e: WayEnd) => string,
  clear: ReadonlyMap<string, ClearEnd | null>,
  partner: ReadonlyMap<string, WayEnd>,
): Map<Junction, Point[][]> {
  const lines = new Map<Junction, Point[][]>();
  for (const [junction, ends] of endsAt(ways)) {
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
  let best: { place: Point; way: number } | null = null;
  const most = 12 * radiusOf(junction);
  for (const line of lines) {
    for (let i = 1; i < line.length; i++) {
      const [p, q] = [line[i - 1], line[i]];
      const [ex, ey] = [q.x - p.x, q.y - p.y];
      const turn = -from.out.x * ey + from.out.y * ex;
      if (Math.abs(turn) < 1e-9) continue;
      const [dx, dy] = [p.x - from.at.x, p.y - from.at.y];
      const way = (dx * ey - dy * ex) / turn;
      const share = (dx * -from.out.y - dy * -from.out.x) / turn;
      if (way < 0 || way > most || share < 0 || share > 1 || (best && best.way <= way)) continue;
      best = { place: { x: p.x + share * ex, y: p.y + share * ey }, way };
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
  ways: readonly Way[],
  key: (e: WayEnd) => string,
  clear: ReadonlyMap<string, ClearEnd | null>,
): Map<string, WayEnd> {
  const partner = new Map<string, WayEnd>();
  for (const ends of endsAt(ways).values()) {
    const pairs: { one: WayEnd; two: WayEnd; bend: number }[] = [];
    ends.forEach((one, i) =>
      ends.slice(i + 1).forEach((two) => {
        const [a, b] = [clear.get(key(one)), clear.get(key(two))];
        if (a && b) pairs.push({ one, two, bend: bendBetween(a, b) });
      }),
    );
    pairs.sort((p, q) => p.bend - q.bend);
    for (const { one, two, bend } of pairs) {
      // Two ways alone at a junction are one, however they bend.
      if (bend > MOST_BEND && ends.length > 2) break;
      if (partner.has(key(one)) || partner.has(key(two))) continue;
      partner.set(key(one), two);
      partner.set(key(two), one);
    }
  }
  return partner;
}
