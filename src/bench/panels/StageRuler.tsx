'use client';

import { linesOf } from '@/core/drawing/items';
import { useMemo } from 'react';
import type { Drawing, Line, Sheet } from '@/core';
import { nodeCount } from '@/core/drawing/find';
import { formatCount, formatLength } from '@/ui/format';
import { goToStage } from '../actions';
import { useBench, useBenchState, useBenchStateLater } from '../benchContext';
import type { StageId } from '../state/store';
import { shownStages } from '../useSession';

const names: Record<StageId, string> = {
  prepare: 'Prepare',
  trace: 'Trace',
  refine: 'Refine',
  ink: 'Ink',
  deliver: 'Deliver',
};

type Tally = { readonly nodes: number; readonly widths: ReadonlySet<string> };
const tallies = new WeakMap<readonly Line[], Tally>();

/** What a sheet's lines come to; counted once for as long as they are the same. */
function tallyOf(sheet: Sheet): Tally {
  const lines = linesOf(sheet);
  let tally = tallies.get(lines);
  if (!tally) {
    const nodes = lines.reduce((n, l) => n + nodeCount(l), 0);
    tally = { nodes, widths: new Set(lines.map((l) => l.style.width.toFixed(2))) };
    tallies.set(lines, tally);
  }
  return tally;
}

/** One word about each stage's progress. */
function progressOf(drawing: Drawing): Record<StageId, string> {
  const own = drawing.sheets.map(tallyOf);
  const nodes = own.reduce((n, t) => n + t.nodes, 0);
  const widths = new Set(own.flatMap((t) => [...t.widths]));
  const lines = drawing.sheets.reduce((n, x) => n + linesOf(x).length, 0);
  const first = drawing.sheets.flatMap((x) => linesOf(x).slice(0, 1))[0];
  const count = drawing.references.length;
  return {
    prepare: count === 0 ? 'no picture' : count === 1 ? 'reference ready' : `${count} references`,
    trace: traceProgress(drawing, lines),
    refine: nodes === 0 ? '–' : formatCount(nodes, 'node'),
    ink:
      widths.size === 0 || !first
        ? '–'
        : widths.size === 1
          ? formatLength(first.style.width, 'pt', 1)
          : `${widths.size} widths`,
    deliver: lines === 0 ? '–' : 'SVG, PNG',
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
  const drawing = useBenchStateLater((s) => s.drawing);
  const words = useMemo(() => progressOf(drawing), [drawing]);
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
