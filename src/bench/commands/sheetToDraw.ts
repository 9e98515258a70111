import type { Sheet } from '@/core';
import { setSheet } from '@/core/edits/sheets';
import { isOpenSheet, sheetOf } from '@/core/drawing/find';
import type { Bench } from '../state/store';

/**
 * A sheet that can be drawn on; where there is none, or it is locked or hidden, that is told with the way out, and null
 * comes back. `so` ends the sentence: “… is locked, so the pen leaves it alone.”
 */
export function sheetToDraw(bench: Bench, id: string, so: string): Sheet | null {
  const { drawing, reading } = bench.getState();
  if (reading) return null;
  const sheet = sheetOf(drawing, id);
  if (!sheet) {
    bench.tell('There is no sheet to draw on. Add one with the plus above the sheets.', undefined, 'warning');
    return null;
  }
  if (isOpenSheet(sheet)) return sheet;
  const way = sheet.locked
    ? ({ label: 'Unlock it', after: { locked: false, visible: true } } as const)
    : ({ label: 'Show it', after: { visible: true } } as const);
  bench.tell(
    `“${sheet.name}” is ${sheet.locked ? 'locked' : 'hidden'}, so ${so}.`,
    {
      label: way.label,
      run: () => bench.commit(setSheet(bench.getState().drawing, sheet.id, way.after, way.label)),
    },
    'warning',
  );
  return null;
}
