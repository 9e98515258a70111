import { evaluate } from '../geometry/cubic';
import { distance, type Point } from '../geometry/point';
import { cubicsOf } from './run';
import type { Run } from './schema';

/** A place on a run: a segment, and where on it. */
export type RunPlace = { readonly segment: number; readonly t: number };

const STEPS = 48;

/**
 * Along a run from a place, the way it runs (1) or against it (−1), for at least `length` page units or to its end: the
 * places passed, the start not among them, and where that comes to.
 */
export function walkAlong(
  run: Run,
  from: RunPlace,
  sign: 1 | -1,
  length: number,
): { points: Point[]; place: RunPlace } {
  const cubics = cubicsOf(run);
  const points: Point[] = [];
  let place = from;
  let last = evaluate(cubics[from.segment], from.t);
  let gone = 0;
  // Once round at most.
  for (let i = 0; i < STEPS * (cubics.length + 1) && gone < length; i++) {
    let { segment } = place;
    let t = place.t + sign / STEPS;
    if ((sign > 0 && place.t >= 1) || (sign < 0 && place.t <= 0)) {
      const next = segment + sign;
      if (!run.closed && (next < 0 || next >= cubics.length)) break;
      segment = (next + cubics.length) % cubics.length;
      t = sign > 0 ? 1 / STEPS : 1 - 1 / STEPS;
    }
    place = { segment, t: Math.min(1, Math.max(0, t)) };
    const at = evaluate(cubics[segment], place.t);
    gone += distance(at, last);
    last = at;
    points.push(at);
  }
  return { points, place };
}
