'use client';

import { Button } from 'antd';
import { useState } from 'react';
import { FEWEST_STEPS, MOST_STEPS } from '@/core/colour/tone';
import { formatCount } from '@/ui/format';
import { LengthField } from '@/ui/LengthField';
import { NumberField } from '@/ui/NumberField';
import { useBench, useBenchState, usePreference } from '../../benchContext';
import { onlyChosen } from '../../state/chosen';
import { tonesToPull } from '../../commands/shading';
import { useOffer } from './useOffer';

/** The picture's tones within the chosen flat, as shapes that are kept inside of it: shown first. */
export function PullTonesCard() {
  const bench = useBench();
  const reading = useBenchState((s) => s.reading);
  const flat = useBenchState((s) => (s.flats.size === 1 ? onlyChosen(s) : null));
  const how = usePreference('shade');
  const [steps, setSteps] = useState(3);
  const [smooth, setSmooth] = useState(6);
  const [busy, setBusy] = useState(false);
  const { offer, make, buttons } = useOffer<{ parts: number }>();
  if (!flat) return null;
  const ask = async (): Promise<void> => {
    setBusy(true);
    const found = await tonesToPull(bench, flat, { steps, smooth, how });
    setBusy(false);
    make(found);
  };
  return (
    <div className="card" role="group" aria-label="Pull tones">
      <div className="row">
        <b>Pull tones</b>
        <span>a start, from the picture</span>
      </div>
      <div className="row">
        <span>Tones</span>
        <NumberField label="Tones" value={steps} min={FEWEST_STEPS} max={MOST_STEPS} onCommit={setSteps} />
      </div>
      <div className="row">
        <span>Smoothed over</span>
        <LengthField label="Smoothed over" value={smooth} unit="px" min={1} max={100} onCommit={setSmooth} />
      </div>
      {!offer && (
        <Button size="small" disabled={reading} loading={busy} onClick={() => void ask()}>
          Show the tones
        </Button>
      )}
      {offer && (
        <>
          <span className="quiet">{formatCount(offer.parts, 'shape')}, kept inside of the flat</span>
          {buttons('Lay them')}
        </>
      )}
    </div>
  );
}
