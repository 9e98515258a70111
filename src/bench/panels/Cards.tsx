'use client';

import { useDeferredValue } from 'react';
import { sheetOf } from '@/core/drawing/find';
import { useBenchState, useBenchStateLater } from '../benchContext';
import { chosenSheets } from '../state/chosen';
import { stageOf } from '../stages/table';

/** The right side: what is chosen, what it measures, what can be set. */
export function Cards() {
  const stage = stageOf(useDeferredValue(useBenchState((s) => s.stage)));
  const count = useDeferredValue(useBenchState((s) => s.lines.size));
  const place = useBenchStateLater((s) => {
    if (s.lines.size === 0) return sheetOf(s.drawing, s.sheet)?.name;
    const sheets = [...chosenSheets(s)];
    return sheets.length === 1 ? sheetOf(s.drawing, sheets[0])?.name : `on ${sheets.length} sheets`;
  });
  return (
    <aside className="cards" aria-label="Figures and settings">
      <h2>
        {stage.heading ?? (count === 0 ? 'Sheet' : count === 1 ? 'Line' : 'Lines')}{' '}
        <span>{stage.heading ? '' : place}</span>
      </h2>
      <stage.cards />
    </aside>
  );
}
