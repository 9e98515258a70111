'use client';

import { Button } from 'antd';
import { useState } from 'react';
import { formatShare } from '@/ui/format';
import { useBench, useBenchState } from '../../benchContext';
import { goTo } from '../../commands/checks';
import { drawOutline, passOutline } from '../../commands/outlines';
import { useChecked } from '../../useChecked';

/** How much of the ink, or of a photo's outlines, has a line, whole and part by part; leads from one piece without to the next. */
export function CoverageCard() {
  const bench = useBench();
  const uncovered = useChecked((c) => c.uncovered);
  const reading = useBenchState((s) => s.reading);
  const [at, setAt] = useState(-1);
  const patches = uncovered.flatMap((c) => c.patches.map((p) => ({ ...p, reference: c.reference })));
  const here = at >= 0 && at < patches.length ? patches[at] : null;
  const show = (i: number): void => {
    setAt(i);
    if (patches[i]) goTo(bench, patches[i].box, 40);
  };
  const step = (by: number): void => show((at + by + patches.length) % patches.length);
  /** What was dealt with leaves the list: the next one comes in its place. */
  const then = (): void => show(patches.length > 1 ? at % (patches.length - 1) : -1);
  return (
    <div className="card" role="group" aria-label="Ink without a line">
      <Covers />
      {patches.length > 0 && (
        <div className="row">
          <span>{here ? `${nounOf(here)} ${at + 1} of ${patches.length}` : countOf(patches)}</span>
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
      {here?.outline && (
        <div className="row">
          <Button
            size="small"
            disabled={reading}
            onClick={() => void drawOutline(bench, here.reference, here.outline!).then(then)}
          >
            Make it a line
          </Button>
          <Button
            size="small"
            disabled={reading}
            onClick={() => {
              passOutline(bench, here.outline!);
              then();
            }}
          >
            Wave through
          </Button>
        </div>
      )}
    </div>
  );
}

type Piece = { readonly outline: string | null };
const nounOf = ({ outline }: Piece): string => (outline === null ? 'patch' : 'outline');
const countOf = (pieces: readonly Piece[]): string => {
  const all = pieces.every((p) => p.outline !== null) ? ['outline', 'outlines'] : ['patch', 'patches'];
  return pieces.length === 1 ? `one ${all[0]}` : `${pieces.length} ${all[1]}`;
};

/** The shares, which follow a moving hand and are drawn by themselves. */
function Covers() {
  const covers = useChecked((c) => c.covers);
  const sheets = useBenchState((s) => s.drawing.sheets);
  const references = useBenchState((s) => s.drawing.references);
  const isOf = (id: string, target: 'ink' | 'edge'): boolean => references.find((r) => r.id === id)?.target === target;
  return (
    <>
      {covers.length === 0 && <p className="quiet">Looking for what has no line…</p>}
      {covers.map((c) => (
        <div key={c.reference}>
          <div className="row">
            <span>
              {covers.length > 1
                ? references.find((r) => r.id === c.reference)?.name
                : isOf(c.reference, 'edge')
                  ? 'Outlines that have a line'
                  : 'Ink that has a line'}
            </span>
            <b data-testid="covered">{formatShare(c.covered, 1)}</b>
          </div>
          {c.parts.map((p) => (
            <div className="row" key={p.sheet}>
              <span>{sheets.find((s) => s.id === p.sheet)?.name}</span>
              <b>
                {p.covered === null
                  ? isOf(c.reference, 'edge')
                    ? 'no outlines'
                    : 'no ink'
                  : formatShare(p.covered, 0)}
              </b>
            </div>
          ))}
        </div>
      ))}
    </>
  );
}
