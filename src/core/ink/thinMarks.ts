import type { Mark } from '../drawing/schema';

/**
 * As few width marks as keep both half-widths within a tolerance of the given ones, which rise along the line (Ramer 1972,
 * Douglas and Peucker 1973).
 */
export function thinnedMarks(marks: readonly Mark[], tolerance: number): Mark[] {
  if (marks.length < 3) return [...marks];
  const keep = new Set([0, marks.length - 1]);
  const thin = (from: number, to: number): void => {
    const [a, b] = [marks[from], marks[to]];
    let [worst, far] = [-1, tolerance];
    for (let i = from + 1; i < to; i++) {
      const m = marks[i];
      const t = b.at > a.at ? (m.at - a.at) / (b.at - a.at) : 0;
      const off = Math.max(
        Math.abs(m.left - a.left - (b.left - a.left) * t),
        Math.abs(m.right - a.right - (b.right - a.right) * t),
      );
      if (off > far) [worst, far] = [i, off];
    }
    if (worst < 0) return;
    keep.add(worst);
    thin(from, worst);
    thin(worst, to);
  };
  thin(0, marks.length - 1);
  return [...keep].sort((a, b) => a - b).map((i) => marks[i]);
}
