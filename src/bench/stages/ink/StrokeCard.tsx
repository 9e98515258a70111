'use client';

import { caps, joins, type Dash } from '@/core/drawing/schema';
import { Choice } from '@/ui/Chip';
import { NumberField } from '@/ui/NumberField';
import { useBench, useBenchState } from '../../benchContext';
import { setStyle, toShapes } from '../../commands/strokes';
import { sharedStyle } from '../../state/chosen';
import { useDeedButton } from '../../useDeedButton';
import { DashField } from './DashField';

const asOptions = <T extends string>(list: readonly T[]) => list.map((value) => ({ value, label: value }));
const orders = [
  { value: 'over', label: 'over the fill' },
  { value: 'under', label: 'under it' },
] as const;

/** How the strokes of the chosen lines end, turn, are broken, and lie to their fill. */
export function StrokeCard() {
  const bench = useBench();
  const button = useDeedButton();
  const count = useBenchState((s) => s.lines.size);
  const cap = useBenchState((s) => sharedStyle(s, (x) => x.cap) ?? null);
  const join = useBenchState((s) => sharedStyle(s, (x) => x.join) ?? null);
  const miterLimit = useBenchState((s) => sharedStyle(s, (x) => x.miterLimit ?? 4) ?? null);
  const dash = useBenchState((s) => sharedStyle(s, (x) => JSON.stringify(x.dash ?? null)) ?? null);
  const order = useBenchState((s) => sharedStyle(s, (x) => (x.strokeBelow ? 'under' : 'over')) ?? null);
  const hasFill = useBenchState((s) => sharedStyle(s, (x) => x.fill !== null) !== false);
  const reading = useBenchState((s) => s.reading);
  if (count === 0) return null;
  return (
    <div className="card stroke-card" role="group" aria-label="Stroke">
      <div className="row">
        <b>Stroke</b>
      </div>
      <div className="choices">
        <span className="option-label">Ends</span>
        <Choice
          label="Ends"
          options={asOptions(caps)}
          value={cap}
          disabled={reading}
          onChange={(v) => setStyle(bench, { cap: v }, 'ends')}
        />
        <span className="option-label">Corners</span>
        <Choice
          label="Corners"
          options={asOptions(joins)}
          value={join}
          disabled={reading}
          onChange={(v) => setStyle(bench, { join: v }, 'corners')}
        />
        {join !== 'round' && join !== 'bevel' && (
          <>
            <span className="option-label">Miter up to</span>
            <NumberField
              label="Miter limit"
              value={miterLimit}
              min={1}
              max={100}
              digits={1}
              unit="× width"
              disabled={reading}
              onCommit={(v) => setStyle(bench, { miterLimit: v }, 'miter limit')}
            />
          </>
        )}
        <DashField
          dash={dash === null ? 'mixed' : (JSON.parse(dash) as Dash | null)}
          disabled={reading}
          onCommit={(d) => setStyle(bench, { dash: d }, 'dashes')}
        />
        {hasFill && (
          <>
            <span className="option-label">Stroke</span>
            <Choice
              label="Stroke and fill"
              options={orders}
              value={order}
              disabled={reading}
              onChange={(v) => setStyle(bench, { strokeBelow: v === 'under' }, 'order')}
            />
          </>
        )}
      </div>
      <div className="buttons">
        {button('to shapes', 'Each stroke becomes a shape of its own outline', () => void toShapes(bench, false))}
        {button('melt together', 'Strokes of one colour that touch become one shape', () => void toShapes(bench, true))}
      </div>
    </div>
  );
}
