import type { HistoryPoint } from '@/core/change/historyPoints';

/** A longer pause is none of the work, ms. */
const PAUSE = 5 * 60_000;

/** The minutes at work until each point: pauses count as nothing. */
export function minutesAtWork(points: readonly Pick<HistoryPoint, 'at'>[]): number[] {
  let sum = 0;
  return points.map((p, i) => {
    const passed = i === 0 ? 0 : p.at - points[i - 1].at;
    if (passed > 0 && passed <= PAUSE) sum += passed;
    return sum / 60_000;
  });
}
