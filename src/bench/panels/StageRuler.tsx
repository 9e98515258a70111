'use client';

import { useMemo } from 'react';
import { useBench, useBenchState, useBenchStateLater } from '../benchContext';
import { goToStage } from '../commands/desk';
import { areasColoured, knownAreas } from '../state/areas';
import { useStored } from '../useStored';
import { stageTable } from '../stages/table';

/** The stages of the work, each with a word about how far it is. */
export function StageRuler() {
  const bench = useBench();
  const stage = useBenchState((s) => s.stage);
  const drawing = useBenchStateLater((s) => s.drawing);
  const known = useStored(knownAreas, (k) => k.known);
  const words = useMemo(() => {
    const areas = areasColoured(drawing, known);
    return stageTable.map((s) => s.progress(drawing, areas));
  }, [drawing, known]);
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
