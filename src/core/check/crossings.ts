import { cubicsOf, withNodeAt } from '../drawing/run';
import type { Run } from '../drawing/schema';
import { hullBox } from '../geometry/bounds';
import { boxesMeet } from '../geometry/box';
import { splitAt, type Cubic } from '../geometry/cubic';
import { intersectCubics, type Intersection } from '../geometry/intersection';
import { cubicLength } from '../geometry/length';
import { samePoint, subtract, type Point } from '../geometry/point';
import { selfIntersection } from '../geometry/selfIntersection';

/** A place where a run crosses itself, from one segment to a later one, and how long the loop between is. */
export type Crossing = {
  readonly first: number;
  readonly ta: number;
  readonly second: number;
  readonly tb: number;
  readonly point: Point;
  readonly loop: number;
};

const END = 1e-6;

/** Legs of control polygons that turn by less than this from one another all go on in one direction. */
const HALF_TURN = Math.PI - 1e-4;

/**
 * For each segment the last one up to which all go on in one direction: then none of them crosses itself or another, and
 * they meet where they join and nowhere else. The legs of their control polygons all point that way, and with them all
 * derivatives.
 */
function goingOn(list: readonly Cubic[]): number[] {
  const turns = list.map((c) =>
    [1, 2, 3].flatMap((k) => (samePoint(c[k], c[k - 1]) ? [] : [angleOf(subtract(c[k], c[k - 1]))])),
  );
  return list.map((_, i) => {
    let [low, high, last] = [0, 0, i - 1];
    let at: number | null = null;
    for (let k = i; k < list.length; k++) {
      for (const angle of turns[k]) {
        if (at === null) [at, low, high] = [angle, angle, angle];
        at += wrapped(angle - at);
        low = Math.min(low, at);
        high = Math.max(high, at);
      }
      if (high - low >= HALF_TURN) break;
      last = k;
    }
    return last;
  });
}

const angleOf = (p: Point): number => Math.atan2(p.y, p.x);
const wrapped = (angle: number): number => angle - 2 * Math.PI * Math.round(angle / (2 * Math.PI));

/** Where a run crosses itself; where its segments join is no crossing. */
export function crossingsOf(run: Run): Crossing[] {
  const list = cubicsOf(run);
  const boxes = list.map(hullBox);
  let lengths: number[] | null = null;
  const found: Crossing[] = [];
  const add = (first: number, ta: number, second: number, tb: number, point: Point): void => {
    lengths ??= list.map((c) => cubicLength(c, 0.01));
    const loop = loopLength(list, lengths, first, ta, second, tb);
    const isJoint =
      loop < 1e-3 || (run.closed && first === 0 && second === list.length - 1 && ta < END && tb > 1 - END);
    if (!isJoint) found.push({ first, ta, second, tb, point, loop });
  };
  const straightOn = goingOn(list);
  list.forEach((c, i) => {
    const own = straightOn[i] < i ? selfIntersection(c) : null;
    if (own && !(own.t1 < END && own.t2 > 1 - END)) add(i, own.t1, i, own.t2, own.point);
    for (let j = Math.max(i, straightOn[i]) + 1; j < list.length; j++) {
      if (!boxesMeet(boxes[i], boxes[j])) continue;
      const isNext = j === i + 1;
      for (const { ta, tb, point } of isNext ? beyondJoint(c, list[j]) : intersectCubics(c, list[j]))
        if (!(isNext && ta > 1 - END && tb < END)) add(i, ta, j, tb, point);
    }
  });
  // A crossing at a node is found on both segments beside it.
  return found.filter(
    (c, i) => !found.slice(0, i).some((b) => Math.hypot(b.point.x - c.point.x, b.point.y - c.point.y) < 1e-3),
  );
}

/** So often two segments are halved towards their joint. */
const MOST_HALVED = 8;

/**
 * Where a segment meets the next, but for their joint, which would be found by ever smaller pieces: the halves beside it go on
 * in one direction soon, and only the others are looked at.
 */
function beyondJoint(a: Cubic, b: Cubic, depth = 0): Intersection[] {
  if (goingOn([a, b])[0] === 1) return [];
  if (depth === MOST_HALVED) return intersectCubics(a, b);
  const [early, late] = splitAt(a, 0.5);
  const [first, second] = splitAt(b, 0.5);
  return [
    ...intersectCubics(early, b).map((m) => ({ ...m, ta: m.ta / 2 })),
    ...intersectCubics(late, second).map((m) => ({ ...m, ta: 0.5 + m.ta / 2, tb: 0.5 + m.tb / 2 })),
    ...beyondJoint(late, first, depth + 1).map((m) => ({ ...m, ta: 0.5 + m.ta / 2, tb: m.tb / 2 })),
  ];
}

function loopLength(
  list: readonly Cubic[],
  lengths: readonly number[],
  first: number,
  ta: number,
  second: number,
  tb: number,
): number {
  const upTo = (k: number, t: number): number =>
    t <= 0 ? 0 : t >= 1 ? lengths[k] : cubicLength(splitAt(list[k], t)[0], 0.01);
  let sum = upTo(second, tb) - upTo(first, ta);
  for (let k = first; k < second; k++) sum += lengths[k];
  return sum;
}

/** The run without the loop of a crossing; of a closed run, without the shorter of the two loops that it makes. */
export function withoutLoop(run: Run, { first, ta, second, tb, loop }: Crossing): Run {
  const total = cubicsOf(run).reduce((sum, c) => sum + cubicLength(c, 0.01), 0);
  const later = first === second ? (tb - ta) / (1 - ta) : tb;
  const once = withNodeAt(run, first, inside(ta));
  const twice = withNodeAt(once, second + 1, inside(later));
  const [p, q] = [first + 1, second + 2];
  const at = twice.nodes[p];
  const joint = (from: number, to: number) => ({
    ...at,
    in: twice.nodes[from].in,
    out: twice.nodes[to].out,
    kind: 'corner' as const,
  });
  if (run.closed && loop > total / 2) return { closed: true, nodes: [joint(q, p), ...twice.nodes.slice(p + 1, q)] };
  return { ...run, nodes: [...twice.nodes.slice(0, p), joint(p, q), ...twice.nodes.slice(q + 1)] };
}

const inside = (t: number): number => Math.min(1 - 1e-7, Math.max(1e-7, t));
