'use client';

import { Button, Checkbox, Popover } from 'antd';
import { useState } from 'react';
import { boundingLines } from '@/core/drawing/items';
import { Choice } from '@/ui/Chip';
import { ColourField } from '@/ui/ColourField';
import { LengthField } from '@/ui/LengthField';
import { useBench, useBenchState, usePreference } from '../../benchContext';
import { pourAllAreas } from '../../commands/flats';
import { preferIn } from '../../state/preferences';

/** How far a flat goes beneath the lines that bound it. */
export const reaches = [
  { value: 'middles', label: 'middles', title: 'Beneath the lines, up to their middles' },
  { value: 'edges', label: 'edges', title: 'To the inner edges of the lines’ strokes, and a hair beneath' },
] as const;

/** The colour in hand, how wide a gap is closed, and all areas at once. */
export function PourOptions() {
  const bench = useBench();
  const { colour, gap, isInner } = usePreference('pour');
  const reading = useBenchState((s) => s.reading);
  const [busy, setBusy] = useState(false);
  return (
    <>
      <span className="option-label">Colour</span>
      <ColourField label="Colour to pour" value={colour} onCommit={(c) => preferIn('pour', { colour: c })} />
      <span className="option-label">closes gaps up to</span>
      <LengthField
        label="Widest gap"
        value={gap}
        unit="px"
        min={0}
        max={200}
        onCommit={(g) => preferIn('pour', { gap: g })}
      />
      <span className="option-label">to the lines’</span>
      <Choice
        label="How far flats go"
        options={reaches}
        value={isInner ? 'edges' : 'middles'}
        onChange={(v) => preferIn('pour', { isInner: v === 'edges' })}
      />
      <BoundingSheets />
      <Button
        size="small"
        disabled={reading || busy}
        loading={busy}
        onClick={async () => {
          setBusy(true);
          await pourAllAreas(bench);
          setBusy(false);
        }}
      >
        Fill all areas
      </Button>
    </>
  );
}

/** Which of the sheets that are seen bound what is poured: all, until some are left out. */
function BoundingSheets() {
  const bench = useBench();
  const out = useBenchState((s) => s.unbounding);
  const sheets = useBenchState((s) => s.drawing.sheets);
  const seen = sheets.filter((s) => s.visible && boundingLines(s.items).length > 0).toReversed();
  const count = seen.filter((s) => !out.has(s.id)).length;
  const set = (id: string, bounds: boolean): void => {
    const next = new Set(bench.getState().unbounding);
    if (bounds) next.delete(id);
    else next.add(id);
    bench.setState({ unbounding: next });
  };
  if (seen.length < 2) return null;
  return (
    <Popover
      trigger="click"
      title="Lines of these sheets bound areas"
      content={
        <div className="bounding">
          {seen.map((s) => (
            <Checkbox key={s.id} checked={!out.has(s.id)} onChange={(e) => set(s.id, e.target.checked)}>
              {s.name}
            </Checkbox>
          ))}
        </div>
      }
    >
      <Button size="small" title="Which sheets bound areas">
        {count === seen.length ? 'bounded by all' : `bounded by ${count} of ${seen.length}`}
      </Button>
    </Popover>
  );
}
