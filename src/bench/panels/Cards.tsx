'use client';

import { Suspense, useDeferredValue, useEffect } from 'react';
import { sheetOf } from '@/core/drawing/find';
import { useBenchState, useBenchStateLater } from '../benchContext';
import { whenIdleAfter } from '@/ui/whenIdle';
import { chosenSheets } from '../state/chosen';
import type { Stage } from '../stages/stage';
import { stageOf, stageTable } from '../stages/table';
import { FailsAlone } from './FailsAlone';

/** The right side: what is chosen, what it measures, what can be set. */
export function Cards() {
  const stage = stageOf(useDeferredValue(useBenchState((s) => s.stage)));
  const count = useDeferredValue(useBenchState((s) => s.lines.size));
  const place = useBenchStateLater((s) => {
    if (s.lines.size === 0) return sheetOf(s.drawing, s.sheet)?.name;
    const sheets = [...chosenSheets(s)];
    return sheets.length === 1 ? sheetOf(s.drawing, sheets[0])?.name : `on ${sheets.length} sheets`;
  });
  useEffect(readyCards, []);
  return (
    <aside className="cards" aria-label="Figures and settings">
      <h2>
        {stage.heading ?? (count === 0 ? 'Sheet' : count === 1 ? 'Line' : 'Lines')}{' '}
        <span>{stage.heading ? '' : place}</span>
      </h2>
      <FailsAlone what="The cards">
        <Suspense fallback={null}>
          <stage.cards />
        </Suspense>
      </FailsAlone>
    </aside>
  );
}

/** The page itself goes first, ms. */
const SETTLES = 2_500;

/** The cards of the other stages are asked for once there is time, so that they are there when they are gone to. */
const readyCards = (): (() => void) =>
  whenIdleAfter(SETTLES, () => stageTable.forEach(({ cards }: Stage) => cards.ahead?.()));
