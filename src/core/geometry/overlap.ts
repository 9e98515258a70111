import { evaluate, polygonLength, pieceOf, type Cubic } from './cubic';
import type { Meeting } from './meetings';
import { nearestOnCubic } from './nearest';

/**
 * The two ends of the stretch along which two curves run on top of each other (within `touch`), or null. Such a
 * stretch begins and ends at an end of one of the curves, so only places from `ends` come into question.
 */
export function overlapOf(a: Cubic, b: Cubic, ends: readonly Meeting[], touch: number): [Meeting, Meeting] | null {
  const sorted = [...ends].sort((p, q) => p.ta - q.ta);
  let first = -1;
  let last = -1;
  for (let i = 1; i < sorted.length; i++) {
    const [from, to] = [sorted[i - 1].ta, sorted[i].ta];
    if (polygonLength(pieceOf(a, from, to)) <= touch * 10) continue;
    const together = [0.13, 0.31, 0.5, 0.72, 0.9].every(
      (k) => nearestOnCubic(b, evaluate(a, from + (to - from) * k)).distance <= touch,
    );
    if (!together) continue;
    if (first < 0) first = i - 1;
    last = i;
  }
  return first < 0 ? null : [sorted[first], sorted[last]];
}
