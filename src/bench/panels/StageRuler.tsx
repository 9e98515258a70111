'use client';

import { useMemo } from 'react';
import { useBench, useBenchState, useBenchStateLater } from '../benchContext';
import { goToStage } from '../commands/desk';
import { stageTable } from '../stages/table';

/** The stages of the work, each with a word about how far it is. */
export function StageRuler() {
  const bench = useBench();
  const stage = useBenchState((s) => s.stage);
  const drawing = useBenchStateLater((s) => s.drawing);
  const words = useMemo(() => stageTable.map((s) => s.progress(drawing)), [drawing]);
  return (
    <nav className="stages" aria-label="Stages">
      {stageTable.map(({ id, label }, i) => (
        <button
          key={id}
          type="button"
          className={id === stage ? 'stage on' : 'stage'}
          aria-current={id === stage ? 'step' : undefined}
          onClick={() => goToStage(bench, id)}
        >
          <span>{label}</span>
          <i>{words[i]}</i>
        </button>
      ))}
    </nav>
  );
}
