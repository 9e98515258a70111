import { hullBox, turningPoints } from './bounds';
import { assertCubic, evaluate, pieceOf, polygonLength, type Cubic } from './cubic';
import { overlapOf } from './overlap';
import { boxOfPoints, distanceToBox } from './box';
import { distance, mix, type Point } from './point';
import { isStraight, mayMeet, meetingsOfPieces, sharpened, type Meeting } from './meetings';
import { nearestOnCubic } from './nearest';

/** One place that two curves share: a parameter on each, and the point itself. */
export type Intersection = { ta: number; tb: number; point: Point };

/**
 * All places that two cubics share, by rising `ta`. Crossings are isolated by subdivision (hulls and fat lines rule
 * pieces out, disjoint tangent cones leave one crossing at most) and polished with Newton's method; touching places
 * are found where the tangents run parallel. Two curves touch when they come within 1e-10 of their size; crossings
 * between which the curves stay that close are one place. Where two curves run on top of each other, the two ends of
 * the shared stretch are given.
 * Source: Sederberg and Nishita 1990, "Curve intersection using Bézier clipping" (fat lines); Sederberg and Meyers
 * 1988, "Loop detection in surface patch intersections" (disjoint cones).
 * @throws RangeError for a cubic that is not finite.
 */
export function intersectCubics(a: Cubic, b: Cubic): Intersection[] {
  assertCubic(a);
  assertCubic(b);
  const box = boxOfPoints([...a, ...b]);
  const size = Math.max(box.maxX - box.minX, box.maxY - box.minY);
  if (size === 0) return [{ ta: 0, tb: 0, point: a[0] }];
  const touch = size * 1e-10;
  if (!mayMeet(a, b, touch)) return [];

  const found: Meeting[] = [];
  for (const [a0, a1] of monotonePieces(a, size)) {
    for (const [b0, b1] of monotonePieces(b, size)) {
      const meetings = meetingsOf(pieceOf(a, a0, a1), pieceOf(b, b0, b1), touch);
      for (const m of meetings) found.push({ ta: a0 + m.ta * (a1 - a0), tb: b0 + m.tb * (b1 - b0) });
    }
  }
  return merged(a, b, found, touch).map(({ ta, tb }) => ({
    ta,
    tb,
    point: mix(evaluate(a, ta), evaluate(b, tb), 0.5),
  }));
}

/** A straight cubic can run back over itself: it is cut where it turns. Any other is one piece. */
function monotonePieces(c: Cubic, size: number): [number, number][] {
  if (!isStraight(c, size * 1e-12)) return [[0, 1]];
  const axis =
    Math.abs(c[3].x - c[0].x) + Math.abs(c[1].x - c[0].x) > Math.abs(c[3].y - c[0].y) + Math.abs(c[1].y - c[0].y)
      ? 'x'
      : 'y';
  const cuts = [0, ...turningPoints(c, axis).filter((t) => t > 1e-9 && t < 1 - 1e-9), 1];
  return cuts.slice(1).map((t, i) => [cuts[i], t]);
}

/** Meetings of two curves neither of which doubles back: shared stretches first, then what lies outside them. */
function meetingsOf(a: Cubic, b: Cubic, touch: number): Meeting[] {
  const ends = endsOnTheOther(a, b, touch);
  const overlap = overlapOf(a, b, ends, touch);
  if (!overlap) return [...ends, ...meetingsOfPieces(a, b, touch)];
  const [first, last] = overlap;
  const outside = [
    [0, first.ta],
    [last.ta, 1],
  ].filter(([from, to]) => polygonLength(pieceOf(a, from, to)) > touch * 10);
  const beside = outside.flatMap(([from, to]) =>
    meetingsOfPieces(pieceOf(a, from, to), b, touch).map((m) => ({ ta: from + m.ta * (to - from), tb: m.tb })),
  );
  return [...overlap, ...ends, ...beside];
}

/** Where an end of one curve lies on the other. */
function endsOnTheOther(a: Cubic, b: Cubic, touch: number): Meeting[] {
  const found: Meeting[] = [];
  const [boxA, boxB] = [hullBox(a), hullBox(b)];
  for (const end of [0, 1]) {
    const [p, q] = [a[end * 3], b[end * 3]];
    const onB = distanceToBox(boxB, p) <= touch ? nearestOnCubic(b, p) : null;
    if (onB && onB.distance <= touch) found.push({ ta: end, tb: onB.t });
    const onA = distanceToBox(boxA, q) <= touch ? nearestOnCubic(a, q) : null;
    if (onA && onA.distance <= touch) found.push({ ta: onA.t, tb: end });
  }
  return found;
}

/** The meetings by rising `ta`, those that are one place given once. */
function merged(a: Cubic, b: Cubic, found: Meeting[], touch: number): Meeting[] {
  const gap = (m: Meeting) => distance(evaluate(a, m.ta), evaluate(b, m.tb));
  const better = (m: Meeting, than: Meeting) => (isEnd(m) === isEnd(than) ? gap(m) < gap(than) : isEnd(m));
  const kept: Meeting[] = [];
  const exact = found.map((m) => (isEnd(m) ? m : sharpened(a, b, m, touch)));
  for (const m of exact.sort((p, q) => p.ta - q.ta || p.tb - q.tb)) {
    const twin = kept.findIndex((k) => isOnePlace(a, b, k, m, touch));
    if (twin < 0) kept.push(m);
    else if (better(m, kept[twin])) kept[twin] = m;
  }
  return kept.sort((p, q) => p.ta - q.ta || p.tb - q.tb);
}

const isEnd = (m: Meeting): boolean => m.ta === 0 || m.ta === 1 || m.tb === 0 || m.tb === 1;

function isOnePlace(a: Cubic, b: Cubic, m: Meeting, n: Meeting, touch: number): boolean {
  const along = (c: Cubic, s: number, t: number) => polygonLength(pieceOf(c, Math.min(s, t), Math.max(s, t)));
  const apart = Math.max(along(a, m.ta, n.ta), along(b, m.tb, n.tb));
  if (apart <= touch * 10) return true;
  if (apart > touch * 1e7) return false;
  // Two crossings of a shallow touch: one place when the curves do not part between them.
  return [0.25, 0.5, 0.75].every((k) => {
    const q = evaluate(a, m.ta + (n.ta - m.ta) * k);
    return distance(q, nearestOnCubic(b, q).point) <= touch;
  });
}
