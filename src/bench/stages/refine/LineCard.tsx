'use client';

import { useMemo } from 'react';
import { findLine, nodeCount } from '@/core/drawing/find';
import { lineLength } from '@/core/drawing/run';
import { formatLength, formatNumber } from '@/ui/format';
import { useBenchState } from '../../benchContext';
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

/** They follow a moving hand, and are drawn by themselves: the fields below them do not change with it. */
function LineFigures() {
  const drawing = useBenchState((s) => s.preview ?? s.drawing);
  const chosen = useBenchState((s) => s.lines);
  const figures = useMemo(() => {
    const lines = [...chosen].flatMap((id) => findLine(drawing, id)?.line ?? []);
    // Beyond this the sum would be felt while dragging, and says little.
    const length = lines.length <= 300 ? lines.reduce((sum, l) => sum + lineLength(l), 0) : null;
    const closed = lines.filter((l) => l.runs.every((r) => r.closed)).length;
    return { count: lines.length, nodes: lines.reduce((n, l) => n + nodeCount(l), 0), length, closed };
  }, [drawing, chosen]);
  const { unit } = drawing.page;
  return (
    <>
      {figures.count > 1 && <Row what="Lines" figure={formatNumber(figures.count)} />}
      <Row what="Nodes" figure={formatNumber(figures.nodes)} />
      {figures.length !== null && <Row what="Length" figure={formatLength(figures.length, unit)} />}
      <Row
        what="Closed"
        figure={figures.count === 1 ? (figures.closed ? 'yes' : 'no') : `${figures.closed} of ${figures.count}`}
      />
    </>
  );
}

export const Row = ({ what, figure }: { what: string; figure: string }) => (
  <div className="row">
    <span>{what}</span>
    <b>{figure}</b>
  </div>
);
