'use client';

import { useMemo } from 'react';
import { together, type DistanceFigures, type LineDistance } from '@/core/check/lineDistance';
import { setReference } from '@/core/change/referenceEdits';
import { Choice } from '@/ui/Chip';
import { formatNumber, formatShare } from '@/ui/format';
import { useBench, useBenchState } from '../../benchContext';
import { goTo } from '../../checkActions';
import { checkingOf } from '../../state/checking';
import { useChecked } from '../../useChecked';
import { DistancePlot } from './DistancePlot';

/** How far what is chosen lies from the ink, and how the sheet and the drawing do; along the line, where it is one. */
export function DistanceCard() {
  const bench = useBench();
  const state = useChecked((c) => c.state);
  const failed = useChecked((c) => c.failed);
  const references = useBenchState((s) => s.drawing.references);
  const reading = useBenchState((s) => s.reading);
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
          <Choice
            label={`What lines are measured from on ${r.name}`}
            value={r.target}
            options={[
              { value: 'ink', label: 'ink', title: 'The strokes of a sketch' },
              { value: 'edge', label: 'edges', title: 'Where the tone changes in a photo' },
            ]}
            onChange={(target) => {
              if (!reading) bench.commit(setReference(bench.getState().drawing, r.id, { target }, 'Measure from'));
            }}
          />
        </div>
      ))}
    </div>
  );
}

/** What follows a moving hand is drawn by itself, and nothing else with it. */
function Figures() {
  const own = useOwn();
  const sheet = useBenchState((s) => s.sheet);
  const ofSheet = useChecked((c) => c.sums?.sheets.get(sheet));
  const all = useChecked((c) => c.sums?.drawing);
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
        {own.length > 0 && (
          <Row
            name={own.length === 1 ? 'This line' : `${own.length} lines`}
            d={own.length === 1 ? own[0] : together(own)}
          />
        )}
        {ofSheet && <Row name="Sheet" d={ofSheet} />}
        {all && <Row name="Drawing" d={all} />}
      </tbody>
    </table>
  );
}

/** The plot of the one line that is chosen, and how much of it is invented. */
function AlongLine() {
  const bench = useBench();
  const own = useOwn();
  const moving = useBenchState((s) => s.preview !== null);
  if (own.length !== 1) return null;
  const [line] = own;
  const point = (at: { x: number; y: number } | null): void => {
    const store = checkingOf(bench)?.store;
    if (store && store.getState().pointed !== at) store.setState({ pointed: at });
  };
  return (
    <>
      {line.inked > 0 && (
        <DistancePlot
          line={line}
          moving={moving}
          onPoint={point}
          onGo={({ x, y }) => goTo(bench, { minX: x, minY: y, maxX: x, maxY: y }, 60)}
        />
      )}
      {line.inked < 0.995 && (
        <p className="quiet">
          {line.inked === 0
            ? 'Invented: there is no ink beneath it.'
            : `${formatShare(1 - line.inked, 0)} of it is invented: no ink beneath.`}
        </p>
      )}
    </>
  );
}

/** How the chosen lines lie, those that are known. */
function useOwn(): LineDistance[] {
  const distances = useChecked((c) => c.distances);
  const chosen = useBenchState((s) => s.lines);
  return useMemo(() => [...chosen].flatMap((id) => distances.get(id) ?? []), [chosen, distances]);
}

const Row = ({ name, d }: { name: string; d: DistanceFigures }) => (
  <tr>
    <th>{name}</th>
    {d.inked === 0 ? (
      <td colSpan={3}>invented</td>
    ) : (
      [d.mean, d.p95, d.max].map((v, i) => <td key={i}>{formatNumber(v, 1)}</td>)
    )}
  </tr>
);
