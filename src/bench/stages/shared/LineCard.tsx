'use client';

import { useShallow } from 'zustand/react/shallow';
import type { Line } from '@/core';
import { findLine, nodeCount } from '@/core/drawing/find';
import { lineLength } from '@/core/drawing/run';
import { formatLength, formatNumber } from '@/ui/format';
import { Written } from '@/ui/following';
import { useBenchState, useFollowingBench } from '../../benchContext';
import type { BenchState } from '../../state/store';
import { StyleOptions } from '../ink/StyleOptions';

/** What is chosen: how much of it there is, and its stroke. */
export function LineCard() {
  const isAny = useBenchState((s) => [...s.lines].some((id) => findLine(s.drawing, id)));
  // In the Ink stage the tray has the stroke at hand.
  const stage = useBenchState((s) => s.stage);
  if (!isAny) return null;
  return (
    <div className="card" aria-label="What is chosen" role="group">
      <LineFigures />
      {stage !== 'ink' && (
        <div className="fields">
          <StyleOptions />
        </div>
      )}
    </div>
  );
}

/** Beyond this the sum of their lengths would be felt while dragging, and says little. */
const MOST_MEASURED = 300;

const linesOf = (s: BenchState): Line[] =>
  [...s.lines].flatMap((id) => findLine(s.preview ?? s.drawing, id)?.line ?? []);

function tallyOf(s: BenchState): { count: number; nodes: number; closed: number } {
  const lines = linesOf(s);
  const closed = lines.filter((l) => l.runs.every((r) => r.closed)).length;
  return { count: lines.length, nodes: lines.reduce((n, l) => n + nodeCount(l), 0), closed };
}

/** How much is chosen. The length follows a moving hand. */
function LineFigures() {
  const { count, nodes, closed } = useBenchState(useShallow(tallyOf));
  const length = useFollowingBench((s) => {
    const px = linesOf(s).reduce((sum, l) => sum + lineLength(l), 0);
    return formatLength(px, s.drawing.page.unit);
  });
  return (
    <>
      {count > 1 && <Row what="Lines" figure={formatNumber(count)} />}
      <Row what="Nodes" figure={formatNumber(nodes)} />
      {count <= MOST_MEASURED && (
        <div className="row">
          <span>Length</span>
          <Written text={length} />
        </div>
      )}
      <Row what="Closed" figure={count === 1 ? (closed ? 'yes' : 'no') : `${closed} of ${count}`} />
    </>
  );
}

export const Row = ({ what, figure }: { what: string; figure: string }) => (
  <div className="row">
    <span>{what}</span>
    <b>{figure}</b>
  </div>
);
