'use client';

import { linesOf } from '@/core/drawing/items';
import { Button } from 'antd';
import { nodeCount, sheetOf } from '@/core/drawing/find';
import { formatNumber } from '@/ui/format';
import { useBench, useBenchState, useBenchStateLater, usePreference } from '../../benchContext';
import { startWalk } from '../../panels/WalkCard';
import { Row } from './LineCard';

/** What is on the sheet being worked on, while nothing is chosen. */
export function SheetFigures() {
  const sheet = useBenchStateLater((s) => sheetOf(s.drawing, s.sheet));
  const bench = useBench();
  const walk = usePreference('walk');
  const reading = useBenchState((s) => s.reading);
  const total = useBenchStateLater((s) => s.drawing.sheets.reduce((n, x) => n + linesOf(x).length, 0));
  if (!sheet) return <p className="empty">No sheet is chosen.</p>;
  return (
    <div className="card" role="group" aria-label="Sheet">
      <Row what="Lines here" figure={formatNumber(linesOf(sheet).length)} />
      <Row what="Nodes here" figure={formatNumber(linesOf(sheet).reduce((n, l) => n + nodeCount(l), 0))} />
      <Row what="Lines in the drawing" figure={formatNumber(total)} />
      {linesOf(sheet).length === 0 && (
        <>
          <p className="empty">
            Nothing on this sheet yet. Take the pen and click at each turn of the line, or press and drag for curves.
          </p>
          {walk === null && !reading && (
            <Button size="small" onClick={() => startWalk(bench)}>
              Show me a first trace
            </Button>
          )}
        </>
      )}
    </div>
  );
}
