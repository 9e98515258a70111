import { runFromCubics } from '../drawing/fromCubics';
import type { Run } from '../drawing/schema';
import type { Cubic } from '../geometry/cubic';
import { fitCurve } from '../geometry/fit/fitCurve';
import { add, distance, scale, subtract, type Point } from '../geometry/point';

/** What a hand drew: the places it went through, in page units, and whether it came back to where it began. */
export type PencilStroke = { readonly points: readonly Point[]; readonly closed: boolean };

/** Over this many times the tolerance, from each end, a stroke gives way to where its ends are drawn to. */
const GIVE = 8;

/** A stroke whose ends are drawn to given places (null leaves an end); what is near the ends follows, less and less. */
export function endsDrawnTo(
  points: readonly Point[],
  start: Point | null,
  end: Point | null,
  reach: number,
): readonly Point[] {
  if (!start && !end) return points;
  const pulled = (list: readonly Point[], to: Point | null): Point[] => {
    if (!to || list.length === 0) return [...list];
    const by = subtract(to, list[0]);
    const near: Point[] = [];
    // A stroke can be long, and what lies further on stays as it is.
    for (let i = 0, travelled = 0; i < list.length; i++) {
      if (i > 0) travelled += distance(list[i], list[i - 1]);
      if (travelled >= GIVE * reach) break;
      near.push(add(list[i], scale(by, 1 - travelled / (GIVE * reach))));
    }
    return [...near, ...list.slice(near.length)];
  };
  const first = pulled(points, start);
  return end ? pulled(first.reverse(), end).reverse() : first;
}

/**
 * The cubics of a stroke, within `tolerance` page units of the hand; null for one that never left its place.
 * Repeated places are taken once.
 */
export function cubicsOfStroke({ points, closed }: PencilStroke, tolerance: number): Cubic[] | null {
  const distinct = points.filter((p, i) => i === 0 || distance(p, points[i - 1]) > 1e-9);
  const around = closed && distance(distinct[0], distinct.at(-1)!) < 1e-9 ? distinct.slice(0, -1) : distinct;
  if (around.length < 2) return null;
  return fitCurve(around, { tolerance, closed: closed && around.length > 3 });
}

export const runOfStroke = (cubics: readonly Cubic[], closed: boolean): Run =>
  runFromCubics(cubics, closed && cubics.length > 1);
