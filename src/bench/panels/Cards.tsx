'use client';

import { useDeferredValue } from 'react';
import { findLine, sheetOf } from '@/core/drawing/find';
import { useBenchState, useBenchStateLater } from '../benchContext';
import { stageOf } from '../stages/table';

/** The right side: what is chosen, what it measures, what can be set. */
export function Cards() {
  const stage = stageOf(useDeferredValue(useBenchState((s) => s.stage)));
  const count = useDeferredValue(useBenchState((s) => s.lines.size));
  const place = useBenchStateLater((s) => {
    if (s.lines.size === 0) return sheetOf(s.drawing, s.sheet)?.name;
    const names = new Set([...s.lines].flatMap((id) => findLine(s.drawing, id)?.sheet.name ?? []));
    return names.size === 1 ? [...names][0] : `on ${names.size} sheets`;
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
