import type { Mark } from '../drawing/schema';
import { widthProfile } from './widths';

/**
 * As few width marks as keep the widths between them, as they will be drawn, within a tolerance of the given ones, which
 * rise along the line: from the two ends on, each gap that is off gets a mark where it is worst (after Ramer 1972 and
 * Douglas and Peucker 1973).
 */
export function thinnedMarks(marks: readonly Mark[], tolerance: number): Mark[] {
  if (marks.length < 3) return [...marks];
  const keep = new Set([0, marks.length - 1]);
  for (let more = true; more;) {
    const kept = [...keep].sort((a, b) => a - b);
    const profile = widthProfile(kept.map((i) => marks[i]));
    more = false;
    for (let k = 1; k < kept.length; k++) {
      let [worst, far] = [-1, tolerance];
      for (let i = kept[k - 1] + 1; i < kept[k]; i++) {
        const { left, right } = profile.at(marks[i].at);
        const off = Math.max(Math.abs(marks[i].left - left), Math.abs(marks[i].right - right));
        if (off > far) [worst, far] = [i, off];
      }
      if (worst < 0) continue;
      keep.add(worst);
      more = true;
    }
  }
  return [...keep].sort((a, b) => a - b).map((i) => marks[i]);
}
