'use client';

import { sheetOf } from '@/core/drawing/find';
import { setSheet } from '@/core/edits/sheets';
import { Amount } from '@/ui/Amount';
import { useBench, useBenchState } from '../../benchContext';

/** How much the sheet in hand covers, as a whole, of what lies below. */
export function WholeSheetCard() {
  const bench = useBench();
  const reading = useBenchState((s) => s.reading);
  const id = useBenchState((s) => s.sheet);
  const name = useBenchState((s) => sheetOf(s.drawing, id)?.name);
  const opacity = useBenchState((s) => sheetOf(s.drawing, id)?.opacity ?? 1);
  if (name === undefined) return null;
  return (
    <div className="card" role="group" aria-label="Whole sheet">
      <div className="row">
        <b>Whole sheet</b>
        <span>{name}</span>
      </div>
      <Amount
        label="Covers"
        value={Math.round(opacity * 100)}
        min={0}
        max={100}
        disabled={reading}
        onChange={(v, done) => {
          if (done) bench.commit(setSheet(bench.getState().drawing, id, { opacity: v / 100 }, 'Opacity'));
        }}
      />
    </div>
  );
}
