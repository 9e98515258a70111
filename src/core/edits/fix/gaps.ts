import { othersOf, trimmed } from '../../drawing/crossing';
import { findLine } from '../../drawing/find';
import { nearestOnLine, reversedNodes, segmentBetween } from '../../drawing/run';
import type { Drawing, Line, Node } from '../../drawing/schema';
import { derivative, straightCubic, type Cubic } from '../../geometry/cubic';
import { add, cross, distance, dot, mix, samePoint, scale, subtract, unit, type Point } from '../../geometry/point';
import { refitNearby } from '../../geometry/refitNearby';
import { strayFrom } from '../../geometry/stray';
import type { Edit } from '../../change/edit';
import { extensionOf } from '../ends';
import { endPoint } from '../../drawing/end';
import { jointOf, replacedRun } from '../join';
import { towards, type End } from '../../drawing/end';
import { reshapeLines } from '../lines';

/** An end is led to a place that lies this far off its way at most (the cosine); to others it would have to turn back. */
const AHEAD = Math.cos((75 * Math.PI) / 180);
/** Ways that cross at less than this angle (its sine) do not make a corner. */
const CORNER = Math.sin((20 * Math.PI) / 180);
/** What is led on becomes one segment with the last where that moves it by no more than this, page units. */
const KEPT = 0.05;
/** What lies aside is come to by a bend over so many times the gap. */
const BENT = 3;
const TINY = 1e-6;

/**
 * The ways to close a gap between an open end and the line that it should meet (its own, where it should close), the best
 * first, by lengthening the end along its way: what was drawn stays within a twentieth of a page unit of where it was. Two
 * ends whose ways cross in front of both meet there, in a corner; an end is led to another end smoothly, and to a line
 * straight on where that meets it. The last way of all bends the end's last bit aside; whether that may be is for the judge. None
 * where the other lies further than `reach`.
 */
export function* waysToClose(d: Drawing, end: End, other: string, reach: number): Generator<Edit> {
  const line = findLine(d, end.line)?.line;
  const run = line?.runs[end.run];
  const target = findLine(d, other)?.line;
  if (!line || !run || !target || run.closed || run.nodes.length < 2) return;
  const reshape = (l: Line, at: End, nodes: Node[] | null, closes = false): Edit[] =>
    nodes ? [reshapeLines(d, new Map([[l.id, replacedRun(l, at, nodes, closes)]]), LABEL)] : [];
  const nodes = towards(run, end);
  const bent = (p: Point): Node[] | null => {
    const gap = distance(nodes.at(-1)!.point, p);
    return gap <= reach ? ledTo(trimmed(nodes, Math.max(2, BENT * gap)), p, null) : null;
  };
  if (target === line) {
    for (const from of [end, { ...end, atStart: !end.atStart }])
      yield* reshape(line, from, closed(towards(run, from), reach), true);
    const led = nodes.length > 2 ? bent(nodes[0].point) : null;
    yield* reshape(line, end, led && [jointOf(led.at(-1)!, led[0]), ...led.slice(1, -1)], true);
    return;
  }
  const far = endNear(d, target, nodes.at(-1)!.point, reach);
  if (far) {
    const others = towards(target.runs[far.run], far);
    const corner = others.length > 1 ? crossingOf(nodes, others, reach) : null;
    if (corner) {
      const runs = new Map([
        [line.id, replacedRun(line, end, straightOn(nodes, corner))],
        [target.id, replacedRun(target, far, straightOn(others, corner))],
      ]);
      yield reshapeLines(d, runs, LABEL);
    }
    yield* reshape(line, end, ledTo(nodes, others.at(-1)!.point, wayOf(others)));
    yield* reshape(target, far, ledTo(others, nodes.at(-1)!.point, wayOf(nodes)));
    yield* reshape(line, end, bent(others.at(-1)!.point));
  }
  for (const led of ledToLine(nodes, target, reach)) yield* reshape(line, end, led);
  const foot = nearestOnLine(target, nodes.at(-1)!.point);
  yield* reshape(line, end, foot && bent(foot.point));
}

const LABEL = 'Close gap';

/** The end of an open run of a line that is nearest to a place, within reach. */
function endNear(d: Drawing, line: Line, p: Point, reach: number): End | null {
  const ends = line.runs.flatMap((r, run): End[] =>
    r.closed ? [] : [true, false].map((atStart) => ({ line: line.id, run, atStart })),
  );
  const away = (e: End): number => distance(endPoint(d, e)!, p);
  const best = ends.reduce<End | null>((a, b) => (a && away(a) <= away(b) ? a : b), null);
  return best && away(best) <= reach ? best : null;
}

/** The direction in which nodes leave over their last one. */
function wayOf(nodes: readonly Node[]): Point | null {
  const [before, last] = [nodes.at(-2), nodes.at(-1)!];
  if (!before) return null;
  return (
    unit(derivative(segmentBetween(before, last), 1)) ??
    unit(subtract(last.point, last.in ? add(last.point, last.in) : before.point))
  );
}

/** Where the ways of two ends cross in front of both, within reach of both. */
function crossingOf(a: readonly Node[], b: readonly Node[], reach: number): Point | null {
  const [p, q, u, v] = [a.at(-1)!.point, b.at(-1)!.point, wayOf(a), wayOf(b)];
  if (!u || !v || Math.abs(cross(u, v)) < CORNER) return null;
  const between = subtract(q, p);
  const [s, t] = [cross(between, v) / cross(u, v), cross(between, u) / cross(u, v)];
  return s > TINY && t > TINY && s <= reach && t <= reach ? add(p, scale(u, s)) : null;
}

const straightOn = (nodes: readonly Node[], to: Point): Node[] =>
  lengthened(nodes, straightCubic(nodes.at(-1)!.point, to));

/** Nodes led straight on to a line that they miss, and by a curve to its nearest place. */
function ledToLine(nodes: readonly Node[], target: Line, reach: number): Node[][] {
  const ahead = extensionOf(nodes, othersOf(target), reach);
  const foot = nearestOnLine(target, nodes.at(-1)!.point);
  const aside = foot && foot.distance <= reach ? ledTo(nodes, foot.point, null) : null;
  return [...(ahead ? [straightOn(nodes, ahead.point)] : []), ...(aside ? [aside] : [])];
}

/** Nodes led on to a place by a curve that leaves along their way; it runs into what comes along `against` smoothly. */
function ledTo(nodes: readonly Node[], to: Point, against: Point | null): Node[] | null {
  const piece = pieceTo(nodes, to, against && scale(against, -1));
  return piece && lengthened(nodes, piece);
}

/** The curve from an end to a place ahead of it; null where that lies aside. */
function pieceTo(nodes: readonly Node[], to: Point, arrival: Point | null): Cubic | null {
  const from = nodes.at(-1)!.point;
  const [direction, gap] = [wayOf(nodes), unit(subtract(to, from))];
  if (!direction || !gap || dot(direction, gap) < AHEAD) return null;
  const third = distance(from, to) / 3;
  const runsIn = arrival && dot(arrival, gap) > AHEAD;
  return [
    from,
    add(from, scale(direction, third)),
    runsIn ? subtract(to, scale(arrival, third)) : mix(from, to, 2 / 3),
    to,
  ];
}

/** Nodes with a piece more at their end: one segment with the last one where that keeps it, or else one of its own. */
function lengthened(nodes: readonly Node[], piece: Cubic): Node[] {
  const [before, last] = [nodes.at(-2)!, nodes.at(-1)!];
  const own = segmentBetween(before, last);
  const isFree = before.kind !== 'flowing';
  const one = isFree ? refitNearby(own, piece) : null;
  if (one && strayFrom([own, piece], [one]) <= KEPT) {
    const isStraight = !before.out && !last.in && isFlat(one);
    const out = isStraight ? null : handle(one[0], one[1]);
    return [
      ...nodes.slice(0, -2),
      { ...before, out, kind: before.kind === 'even' ? 'smooth' : before.kind },
      { ...last, point: one[3], in: isStraight ? null : handle(one[3], one[2]), out: null, kind: 'corner' },
    ];
  }
  const [out, into] = [handle(piece[0], piece[1]), handle(piece[3], piece[2])];
  return [
    ...nodes.slice(0, -1),
    // A flowing end would be drawn anew by what follows it.
    { ...last, out, kind: last.in ? 'smooth' : 'corner' },
    { point: piece[3], in: into, out: null, kind: 'corner' },
  ];
}

const handle = (from: Point, to: Point): Point | null => (samePoint(from, to) ? null : subtract(to, from));

const isFlat = ([a, b, c, e]: Cubic): boolean => {
  const direction = unit(subtract(e, a));
  return !direction || [b, c].every((p) => Math.abs(cross(direction, subtract(p, a))) < 1e-3);
};

/** A run led to its own start: the nodes of the closed one. */
function closed(nodes: readonly Node[], reach: number): Node[] | null {
  const [first, last] = [nodes[0], nodes.at(-1)!];
  if (nodes.length < 3 || distance(first.point, last.point) > reach) return null;
  const led = samePoint(first.point, last.point) ? nodes : ledToStart(nodes, reach);
  return led && [jointOf(led.at(-1)!, led[0]), ...led.slice(1, -1)];
}

/** An open run of which both ends lie in one place. */
function ledToStart(nodes: readonly Node[], reach: number): readonly Node[] | null {
  const back = reversedNodes(nodes);
  const corner = crossingOf(nodes, back, reach);
  if (corner) return reversedNodes(straightOn(reversedNodes(straightOn(nodes, corner)), corner));
  return ledTo(nodes, nodes[0].point, wayOf(back));
}
