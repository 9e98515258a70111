import { cubicsOf } from '../../drawing/run';
import type { Line } from '../../drawing/schema';
import { evaluate, polygonLength, type Cubic } from '../../geometry/cubic';
import { distance, type Point } from '../../geometry/point';
import { awayFrom } from '../../geometry/stray';

/**
 * How much worse a line lies after a fix than before, px or page units; 0 or less when no worse, endless when the fix is
 * not to be made. `at` is where it was put right, and what lies within `around` of that may move.
 */
export type Judge = (before: Line, after: Line, at: Point, around: number) => number;

/** A line may lie so much worse after a fix without another way being looked for; and so much at most. */
export const NO_WORSE = 0.02;
export const MOST_WORSE = 0.08;

/** Places are looked at about so far apart, page units, and not more of them on one segment than this. */
const APART = 3;
const MOST_PLACES = 60;

/** Judges by the line itself: how far it has moved away from where it was, but for what lies about the place itself. */
export const restStays: Judge = (before, after, at, around) => {
  const now = after.runs.flatMap(cubicsOf);
  const same = new Set(now.map(keyOf));
  let most = 0;
  for (const c of before.runs.flatMap(cubicsOf)) {
    if (same.has(keyOf(c))) continue;
    const places = Math.max(4, Math.min(MOST_PLACES, Math.ceil(polygonLength(c) / APART)));
    for (let i = 0; i <= places; i++) {
      const p = evaluate(c, i / places);
      if (distance(p, at) >= around) most = Math.max(most, awayFrom(now, p));
    }
  }
  return most;
};

const keyOf = (c: Cubic): string => c.map((p) => `${p.x},${p.y}`).join(' ');
