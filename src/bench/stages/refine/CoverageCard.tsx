'use client';

import { Button } from 'antd';
import { useState } from 'react';
import { formatShare } from '@/ui/format';
import { useBench, useBenchState } from '../../benchContext';
import { goTo } from '../../commands/checks';
import { useChecked } from '../../useChecked';

/** How much of the ink has a line, whole and part by part; leads from one patch without to the next. */
export function CoverageCard() {
  const bench = useBench();
  const uncovered = useChecked((c) => c.uncovered);
  const [at, setAt] = useState(-1);
  const patches = uncovered.flatMap((c) => c.patches);
  const step = (by: number): void => {
    const next = (at + by + patches.length) % patches.length;
    setAt(next);
    goTo(bench, patches[next], 40);
  };
  return (
    <div className="card" role="group" aria-label="Ink without a line">
      <Covers />
      {patches.length > 0 && (
        <div className="row">
          <span>
            {at >= 0 && at < patches.length
              ? `patch ${at + 1} of ${patches.length}`
              : patches.length === 1
                ? 'one patch'
                : `${patches.length} patches`}
          </span>
          <span className="buttons">
            <Button size="small" aria-label="The patch before" onClick={() => step(at < 0 ? 0 : -1)}>
              ‹
            </Button>
            <Button size="small" aria-label="The next patch" onClick={() => step(1)}>
              ›
            </Button>
          </span>
        </div>
      )}
    </div>
  );
}

/** The shares, which follow a moving hand and are drawn by themselves. */
function Covers() {
  const covers = useChecked((c) => c.covers);
  const sheets = useBenchState((s) => s.drawing.sheets);
  const references = useBenchState((s) => s.drawing.references);
  return (
    <>
      {covers.length === 0 && <p className="quiet">Looking for ink without a line…</p>}
      {covers.map((c) => (
        <div key={c.reference}>
          <div className="row">
            <span>
              {covers.length > 1 ? references.find((r) => r.id === c.reference)?.name : 'Ink that has a line'}
            </span>
            <b data-testid="covered">{formatShare(c.covered, 1)}</b>
          </div>
          {c.parts.map((p) => (
            <div className="row" key={p.sheet}>
              <span>{sheets.find((s) => s.id === p.sheet)?.name}</span>
              <b>{p.covered === null ? 'no ink' : formatShare(p.covered, 0)}</b>
            </div>
          ))}
        </div>
      ))}
    </>
  );
}
