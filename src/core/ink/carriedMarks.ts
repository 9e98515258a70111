import { cubicsOf, segmentCount } from '../drawing/run';
import type { Mark, Run } from '../drawing/schema';
import { cubicLength } from '../geometry/length';
import { samePoint } from '../geometry/point';
import { widthProfile } from './widths';

/** A place of the run as it was and as it is, by share of its length. */
type Anchor = readonly [was: number, is: number];

/** Shares nearer than this are one. */
const SAME = 1e-7;

/** The share of a run's length at which each of its nodes lies; where a closed run comes back to its first, 1. */
export function nodeShares(run: Run): number[] {
  const ways = [0];
  for (const c of cubicsOf(run)) ways.push(ways.at(-1)! + cubicLength(c, 1e-4));
  const whole = ways.at(-1)!;
  return ways.map((w) => (whole > 0 ? w / whole : 0));
}

/**
 * Where the width marks of a run are when its nodes have changed: each stays where it was between the nodes that are
 * still there, and marks at the ends of an open run stay at its ends. The very same list where nothing moves.
 */
export function carriedMarks(marks: readonly Mark[], before: Run, after: Run): readonly Mark[] {
  if (segmentCount(before) < 1 || segmentCount(after) < 1) return marks;
  const anchors = anchorsOf(before, after);
  const isRound = before.closed && after.closed;
  const way = isRound ? aroundOf(anchors) : endedOf(anchors);
  const staysAtEnd = !before.closed && !after.closed;
  const moved = marks.map((m) => {
    if (staysAtEnd && (m.at < SAME || m.at > 1 - SAME)) return m;
    const at = mapped(way, m.at);
    const inside = isRound && (at < -SAME || at > 1 + SAME) ? (at + 1) % 1 : Math.min(1, Math.max(0, at));
    return { ...m, at: inside };
  });
  if (moved.every((m, i) => Math.abs(m.at - marks[i].at) < SAME)) return marks;
  return moved.sort((a, b) => a.at - b.at);
}

/** Nodes of both runs that are one: by their order where as many are left, else by their places. */
function anchorsOf(before: Run, after: Run): Anchor[] {
  const [was, is] = [nodeShares(before), nodeShares(after)];
  const [a, b] = [before.nodes, after.nodes];
  if (a.length === b.length && before.closed === after.closed) return was.map((w, i) => [w, is[i]]);
  const anchors: Anchor[] = [];
  let first = 0;
  while (first < Math.min(a.length, b.length) && samePoint(a[first].point, b[first].point)) {
    anchors.push([was[first], is[first]]);
    first += 1;
  }
  const tail: Anchor[] = [];
  let [i, j] = [a.length - 1, b.length - 1];
  while (i >= first && j >= first && samePoint(a[i].point, b[j].point)) {
    tail.push([was[i], is[j]]);
    i -= 1;
    j -= 1;
  }
  // Between them, each that is met again further on.
  for (let from = first, k = first; k <= i; k++) {
    const next = b.findIndex((n, l) => l >= from && l <= j && samePoint(n.point, a[k].point));
    if (next < 0) continue;
    anchors.push([was[k], is[next]]);
    from = next + 1;
  }
  return [...anchors, ...tail.reverse()];
}

const endedOf = (anchors: Anchor[]): Anchor[] => [
  ...(anchors[0]?.[0] === 0 ? [] : [[0, 0] as const]),
  ...anchors,
  ...(anchors.at(-1)?.[0] === 1 ? [] : [[1, 1] as const]),
];

/** The anchors of a closed run, and those next to them across its seam. */
function aroundOf(anchors: Anchor[]): Anchor[] {
  const ring = anchors.filter(([w], i) => w < 1 - SAME || i === 0);
  if (ring.length === 0) return endedOf([]);
  const shifted = ([w, s]: Anchor, by: number): Anchor => [w + by, s + by];
  return [shifted(ring.at(-1)!, -1), ...ring, shifted(ring[0], 1), ...ring.slice(1, 2).map((r) => shifted(r, 1))];
}

function mapped(way: readonly Anchor[], at: number): number {
  const k = Math.max(
    0,
    way.findLastIndex(([w], i) => w <= at && i < way.length - 1),
  );
  const [[a, p], [b, q]] = [way[k], way[k + 1]];
  return b > a ? p + ((at - a) / (b - a)) * (q - p) : p;
}

/**
 * The marks of two runs that have become parts of one, each part from one share of its length to another. Where they
 * meet with different widths, these run over into each other within `blend`, a share of the whole.
 */
export function joinedMarks(
  parts: readonly { marks: readonly Mark[]; from: number; to: number }[],
  blend: number,
): Mark[] {
  const [one, two] = [...parts].sort((a, b) => a.from - b.from);
  const back = Math.max(0, (blend - (two.from - one.to)) / 2);
  const before = placed(one.marks, one.from, one.to, 0, Math.min(back, (one.to - one.from) / 4));
  const after = placed(two.marks, two.from, two.to, Math.min(back, (two.to - two.from) / 4), 0);
  const [end, start] = [before.at(-1)!, after[0]];
  const meet = Math.abs(end.left - start.left) + Math.abs(end.right - start.right) < 1e-6;
  if (!meet) return [...before, ...after];
  return [...before.slice(0, -1), { ...start, at: (one.to + two.from) / 2 }, ...after.slice(1)];
}

/** Marks over a part of a run, with one at each of its ends, drawn in by so much. */
function placed(marks: readonly Mark[], from: number, to: number, inFrom: number, inTo: number): Mark[] {
  const profile = widthProfile(marks);
  const end = (share: number, at: number): Mark => {
    const { left, right } = profile.at(share);
    return { at, left, right };
  };
  const within = marks.map((m) => ({ ...m, at: from + m.at * (to - from) }));
  const inner = within.filter((m) => m.at > from + inFrom + SAME && m.at < to - inTo - SAME);
  return [end(0, from + inFrom), ...inner, end(1, to - inTo)];
}

/**
 * Marks of a run of which a part has marks of its own: it leads from one share of the length to another, the other way
 * where `to` lies before `from` (on a closed run across the seam). Old and new widths run over into each other within
 * `blend`, a share of the whole, outside the part.
 */
export function withPart(
  marks: readonly Mark[],
  part: { marks: readonly Mark[]; from: number; to: number },
  closed: boolean,
  blend: number,
): Mark[] {
  const { from, to } = part;
  const [low, high] = [Math.min(from, to), Math.max(from, to)];
  const turned = to < from;
  const profile = widthProfile(marks, closed);
  const round = (at: number): number => (closed ? (at + 1) % 1 : at);
  const isOutside = (at: number): boolean =>
    [at - 1, at, at + 1].every((a) => a < low - blend - SAME || a > high + blend + SAME);
  const edges = [low - blend, high + blend].flatMap((at): Mark[] => {
    if (!closed && (at < 0 || at > 1)) return [];
    const { left, right } = profile.at(round(at));
    return [{ at: round(at), left, right }];
  });
  const own = part.marks.map((m): Mark => {
    const sides = turned ? { left: m.right, right: m.left } : {};
    return { ...m, ...sides, at: round(from + m.at * (to - from)) };
  });
  const whole = high - low + 2 * blend >= 1;
  return [...(whole ? [] : [...marks.filter((m) => isOutside(m.at)), ...edges]), ...own].sort((a, b) => a.at - b.at);
}
