'use client';

import type { Drawing } from '@/core';
import { nodeCount } from '@/core/drawing/find';
import { formatCount, formatLength } from '@/ui/format';
import { goToStage } from '../actions';
import { useBench, useBenchState } from '../benchContext';
import type { BenchState, StageId } from '../state/store';
import { shownStages } from '../useSession';

const names: Record<StageId, string> = {
  prepare: 'Prepare',
  trace: 'Trace',
  refine: 'Refine',
  ink: 'Ink',
  deliver: 'Deliver',
};

/** One word about each stage's progress. */
function progressOf(s: BenchState): Record<StageId, string> {
  const { drawing } = s;
  const lines = drawing.sheets.flatMap((x) => x.lines);
  const nodes = lines.reduce((n, l) => n + nodeCount(l), 0);
  const widths = new Set(lines.map((l) => l.style.width.toFixed(2)));
  const count = drawing.references.length;
  return {
    prepare: count === 0 ? 'no picture' : count === 1 ? 'reference ready' : `${count} references`,
    trace: traceProgress(drawing, lines.length),
    refine: nodes === 0 ? '–' : formatCount(nodes, 'node'),
    ink:
      widths.size === 0
        ? '–'
        : widths.size === 1
          ? formatLength(lines[0].style.width, 'pt', 1)
          : `${widths.size} widths`,
    deliver: lines.length === 0 ? '–' : 'SVG, PNG',
  };
}

/** Parts by their state where someone has set one; else how many lines there are. */
function traceProgress({ sheets, folders }: Drawing, lines: number): string {
  const isPlanned = folders.length > 0 || sheets.some((s) => s.state !== 'to do');
  if (isPlanned) return `${sheets.filter((s) => s.state === 'traced').length} of ${formatCount(sheets.length, 'part')}`;
  return lines === 0 ? 'not begun' : formatCount(lines, 'line');
}

export function StageRuler() {
  const bench = useBench();
  const stage = useBenchState((s) => s.stage);
  const progress = useBenchState((s) => JSON.stringify(progressOf(s)));
  const words = JSON.parse(progress) as Record<StageId, string>;
  return (
    <nav className="stages" aria-label="Stages">
      {shownStages.map((id) => (
        <button
          key={id}
          type="button"
          className={id === stage ? 'stage on' : 'stage'}
          aria-current={id === stage ? 'step' : undefined}
          onClick={() => goToStage(bench, id)}
        >
          <span>{names[id]}</span>
          <i>{words[id]}</i>
        </button>
      ))}
    </nav>
  );
}
