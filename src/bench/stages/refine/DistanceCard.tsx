'use client';

import { useRef } from 'react';
import { together, type DistanceFigures, type LineDistance } from '@/core/check/lineDistance';
import { useFollowing, write } from '@/ui/following';
import { formatNumber } from '@/ui/format';
import { later } from '@/ui/later';
import { useBench, useBenchState } from '../../benchContext';
import { goTo } from '../../commands/checks';
import { checkingOf } from '../../state/checkingOf';
import type { Checked } from '../../state/checked';
import { useChecked, useFollowingChecks } from '../../useChecked';
import { TargetChoice } from '../shared/TargetChoice';

/** Charts come when they are first looked at. */
const DistancePlot = later(() => import('./DistancePlot').then((m) => m.DistancePlot), 84);

/** How far what is chosen lies from the ink, and how the sheet and the drawing do; along the line, where it is one. */
export function DistanceCard() {
  const state = useChecked((c) => c.state);
  const failed = useChecked((c) => c.failed);
  const references = useBenchState((s) => s.drawing.references);
  const seen = references.filter((r) => r.visible && !r.beside);
  if (seen.length === 0)
    return (
      <div className="card" role="group" aria-label="Distance from the ink">
        <p className="quiet">There is no picture under the lines to measure them against.</p>
      </div>
    );
  return (
    <div className="card" role="group" aria-label="Distance from the ink" data-state={state}>
      <Figures />
      {state !== 'ready' && (
        <p className="quiet">
          {failed ?? (state === 'preparing' ? 'Making the picture ready…' : state === 'measuring' ? 'Measuring…' : '')}
        </p>
      )}
      <AlongLine />
      {seen.map((r) => (
        <div className="row" key={r.id}>
          <span className="option-label" title={r.name}>
            {seen.length > 1 ? r.name : 'Measured from'}
          </span>
          <TargetChoice reference={r} label={`What lines are measured from on ${r.name}`} />
        </div>
      ))}
    </div>
  );
}

/** Those of the chosen lines that were measured. */
function useOwn(): (c: Checked) => LineDistance[] {
  const chosen = useBenchState((s) => s.lines);
  return (c) => [...chosen].flatMap((id) => c.distances.get(id) ?? []);
}

function Figures() {
  const own = useOwn();
  const count = useChecked((c) => own(c).length);
  const sheet = useBenchState((s) => s.sheet);
  const hasSums = useChecked((c) => c.sums !== null);
  const isSheetIn = useChecked((c) => c.sums?.sheets.has(sheet) ?? false);
  return (
    <table className="figures">
      <thead>
        <tr>
          <th>Distance, px</th>
          <th>mean</th>
          <th title="95 % of the length lies nearer">95 %</th>
          <th>worst</th>
        </tr>
      </thead>
      <tbody>
        {count > 0 && (
          <Row
            name={count === 1 ? 'This line' : `${count} lines`}
            of={(c) => (count === 1 ? own(c)[0] : together(own(c)))}
          />
        )}
        {isSheetIn && <Row name="Sheet" of={(c) => c.sums?.sheets.get(sheet)} />}
        {hasSums && <Row name="Drawing" of={(c) => c.sums?.drawing} />}
      </tbody>
    </table>
  );
}

/** A row of figures that follow a moving hand. */
function Row({ name, of }: { name: string; of: (c: Checked) => DistanceFigures | undefined }) {
  const row = useRef<HTMLTableRowElement>(null);
  useFollowing(useFollowingChecks(of), (d) => {
    if (!row.current || !d) return;
    const [, mean, p95, worst] = row.current.cells;
    const isInvented = d.inked === 0;
    mean.colSpan = isInvented ? 3 : 1;
    p95.hidden = worst.hidden = isInvented;
    write(mean.firstElementChild, isInvented ? 'invented' : formatNumber(d.mean, 1));
    write(p95.firstElementChild, formatNumber(d.p95, 1));
    write(worst.firstElementChild, formatNumber(d.max, 1));
  });
  const cell = (
    <td>
      <span className="written" />
    </td>
  );
  return (
    <tr ref={row}>
      <th>{name}</th>
      {cell}
      {cell}
      {cell}
    </tr>
  );
}

/** The plot of the one line that is chosen, and how much of it is invented. */
function AlongLine() {
  const bench = useBench();
  const own = useOwn();
  const moving = useBenchState((s) => s.preview !== null);
  const isOne = useChecked((c) => own(c).length === 1);
  const hasInk = useChecked((c) => own(c)[0]?.inked > 0);
  // In whole per cent.
  const invented = useChecked((c) => {
    const inked = own(c)[0]?.inked ?? 1;
    return inked === 0 ? 100 : inked < 0.995 ? Math.min(99, Math.round((1 - inked) * 100)) : null;
  });
  const line = useFollowingChecks((c): LineDistance | undefined => own(c)[0]);
  if (!isOne) return null;
  const point = (at: { x: number; y: number } | null): void => {
    const store = checkingOf(bench)?.store;
    if (store && store.getState().pointed !== at) store.setState({ pointed: at });
  };
  return (
    <>
      {hasInk && (
        <DistancePlot
          line={line}
          moving={moving}
          onPoint={point}
          onGo={({ x, y }) => goTo(bench, { minX: x, minY: y, maxX: x, maxY: y }, 60)}
        />
      )}
      {invented !== null && (
        <p className="quiet">
          {invented === 100
            ? 'Invented: there is no ink beneath it.'
            : `${formatNumber(invented)} % of it is invented: no ink beneath.`}
        </p>
      )}
    </>
  );
}
