import type { Style } from '@/core';
import { counted } from '@/core/change/edit';
import { styleLines } from '@/core/change/lineEdits';
import * as strokes from '@/core/change/strokeEdits';
import { findLine } from '@/core/drawing/find';
import type { Bench, BenchState } from './state/store';

/** What can be done to the strokes of the chosen lines. */

/** One press of plus or minus. */
const STEP = 1.1;

/** Whether plus and minus are for strokes: in the Ink stage, with lines chosen. */
export const isInking = (bench: Bench): boolean => {
  const { stage, lines } = bench.getState();
  return stage === 'ink' && lines.size > 0;
};

/** A tenth wider, or thinner. */
export function widen(bench: Bench, way: 1 | -1): void {
  const { drawing, lines } = bench.getState();
  const label = counted(way > 0 ? 'Widen' : 'Narrow', lines.size, 'line');
  bench.commit(strokes.scaleWidths(drawing, [...lines], STEP ** way, label));
}

/** Sets the plain width; lines with marks keep their profile, as much wider or thinner on the whole. */
export function setWidth(bench: Bench, width: number): void {
  const { drawing, lines } = bench.getState();
  bench.commit(strokes.setWidths(drawing, [...lines], width, counted('Set width of', lines.size, 'line')));
}

export function setStyle(bench: Bench, style: Partial<Style>, what: string): void {
  const { drawing, lines } = bench.getState();
  bench.commit(styleLines(drawing, lines, style, counted(`Set ${what} of`, lines.size, 'line')));
}

/** A value as it is with all chosen lines: undefined where there are none, null where they differ. */
export function sharedStyle<T>(
  s: Pick<BenchState, 'lines' | 'drawing'>,
  part: (style: Style) => T,
): T | null | undefined {
  let value: T | undefined;
  for (const id of s.lines) {
    const line = findLine(s.drawing, id)?.line;
    if (!line) continue;
    const own = part(line.style);
    if (value !== undefined && own !== value) return null;
    value = own;
  }
  return value;
}
