import type { Aims } from './settleAims';
import type { InkPath } from './inkPath';
import { trackedAt, type TrackedInk } from './tracked';

const STEP = 0.25;
/** How far back the direction of an end is taken from, px. */
const BACK = 8;

/**
 * How much further along its own direction an end's stroke runs than the end does (less: below 0), px; null where the
 * stroke's end is not within reach: it runs on, or into another. A stroke's round end reaches half its width further
 * than its line.
 */
export function inkEnd(
  picture: TrackedInk,
  { n, x, y }: Aims,
  atStart: boolean,
  { offset, half }: InkPath,
  reach: number,
): number | null {
  const end = atStart ? 0 : n - 1;
  const inward = atStart ? 1 : -1;
  if (Number.isNaN(offset[end]) && Number.isNaN(offset[end + inward * Math.min(n - 1, 4)])) return null;
  let back = end;
  while (back + inward >= 0 && back + inward < n && Math.hypot(x[back] - x[end], y[back] - y[end]) < BACK)
    back += inward;
  const [dx, dy] = [x[end] - x[back], y[end] - y[back]];
  const length = Math.hypot(dx, dy);
  if (length < BACK / 2) return null;
  const [ux, uy] = [dx / length, dy / length];
  /** The mean over the middle half of the stroke. */
  const at = (s: number): number => {
    let sum = 0;
    for (let k = -1; k <= 1; k++) {
      const o = (k * half) / 2;
      sum += trackedAt(picture, x[end] + s * ux - o * uy, y[end] + s * uy + o * ux);
    }
    return sum / 3;
  };
  const inside = at(-Math.min(length, reach + half));
  if (inside < picture.clear) return null;
  const rim = 0.5 * inside;
  const [least, most] = [-Math.min(length, reach), reach + half];
  if (at(most) >= rim) return null;
  let s = most;
  while (s > least && at(s) < rim) s -= STEP;
  if (s <= least) return null;
  const by = s - half;
  if (Math.abs(by) > reach || by <= least) return null;
  // A free end has paper on both its sides; one that runs into another stroke ends at that one's far rim.
  const aside = half + 1.6;
  for (const back of [0.5, half, 2 * half]) {
    for (const o of [-aside, aside]) {
      const beside = trackedAt(picture, x[end] + (s - back) * ux - o * uy, y[end] + (s - back) * uy + o * ux);
      if (beside >= 0.6 * rim) return null;
    }
  }
  return by;
}
