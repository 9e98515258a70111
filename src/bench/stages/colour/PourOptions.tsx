'use client';

import { Button } from 'antd';
import { useState } from 'react';
import { ColourField } from '@/ui/ColourField';
import { LengthField } from '@/ui/LengthField';
import { useBench, useBenchState, usePreference } from '../../benchContext';
import { pourAllAreas } from '../../commands/flats';
import { preferIn } from '../../state/preferences';

/** The colour in hand, how wide a gap is closed, and all areas at once. */
export function PourOptions() {
  const bench = useBench();
  const { colour, gap } = usePreference('pour');
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
