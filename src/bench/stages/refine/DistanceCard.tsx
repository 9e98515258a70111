'use client';

import { useMemo } from 'react';
import { together, type DistanceFigures } from '@/core/check/lineDistance';
import { setReference } from '@/core/change/referenceEdits';
import { sheetOf } from '@/core/drawing/find';
import { Choice } from '@/ui/Chip';
import { formatNumber, formatShare } from '@/ui/format';
import { useBench, useBenchState } from '../../benchContext';
import { goTo } from '../../checkActions';
import { checkingOf } from '../../state/checking';
import { useChecked } from '../../useChecked';
import { DistancePlot } from './DistancePlot';

/** Beyond this many lines their sums are not worked out under a moving hand. */
const LIVE = 300;

/** How far what is chosen lies from the ink, and how the sheet and the drawing do; along the line, where it is one. */
export function DistanceCard() {
  const bench = useBench();
  const distances = useChecked((c) => c.distances);
  const state = useChecked((c) => c.state);
  const failed = useChecked((c) => c.failed);
  const chosen = useBenchState((s) => s.lines);
  const sheet = useBenchState((s) => sheetOf(s.drawing, s.sheet));
  const references = useBenchState((s) => s.drawing.references);
  const reading = useBenchState((s) => s.reading);
  const moving = useBenchState((s) => s.preview !== null);
  const own = useMemo(() => [...chosen].flatMap((id) => distances.get(id) ?? []), [chosen, distances]);
  const isCrowded = distances.size > LIVE && moving;
  const all = useMemo(() => (isCrowded ? null : together([...distances.values()])), [distances, isCrowded]);
  const ofSheet = useMemo(
    () => (isCrowded || !sheet ? null : together(sheet.lines.flatMap((l) => distances.get(l.id) ?? []))),
    [distances, sheet, isCrowded],
  );
  const seen = references.filter((r) => r.visible && !r.beside);
  if (seen.length === 0)
    return (
      <div className="card" role="group" aria-label="Distance from the ink">
        <p className="quiet">There is no picture under the lines to measure them against.</p>
      </div>
    );
  const one = own.length === 1 ? own[0] : null;
  const point = (at: { x: number; y: number } | null): void => {
    const store = checkingOf(bench)?.store;
    if (store && store.getState().pointed !== at) store.setState({ pointed: at });
  };
  return (
    <div className="card" role="group" aria-label="Distance from the ink" data-state={state}>
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
          {own.length > 0 && <Row name={own.length === 1 ? 'This line' : `${own.length} lines`} d={together(own)} />}
          {ofSheet && <Row name="Sheet" d={ofSheet} />}
          {all && <Row name="Drawing" d={all} />}
        </tbody>
      </table>
      {state !== 'ready' && (
        <p className="quiet">
          {failed ?? (state === 'preparing' ? 'Making the picture ready…' : state === 'measuring' ? 'Measuring…' : '')}
        </p>
      )}
      {one && one.inked > 0 && (
        <DistancePlot
          line={one}
          moving={moving}
          onPoint={point}
          onGo={({ x, y }) => goTo(bench, { minX: x, minY: y, maxX: x, maxY: y }, 60)}
        />
      )}
      {one && one.inked < 0.995 && (
        <p className="quiet">
          {one.inked === 0
            ? 'Invented: there is no ink beneath it.'
            : `${formatShare(1 - one.inked, 0)} of it is invented: no ink beneath.`}
        </p>
      )}
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
