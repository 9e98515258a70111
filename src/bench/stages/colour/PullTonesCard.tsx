'use client';

import { Button } from 'antd';
import { useEffect, useRef, useState } from 'react';
import type { Drawing } from '@/core';
import type { Edit } from '@/core/change/edit';
import { FEWEST_STEPS, MOST_STEPS } from '@/core/colour/tone';
import { formatCount } from '@/ui/format';
import { LengthField } from '@/ui/LengthField';
import { NumberField } from '@/ui/NumberField';
import { useBench, useBenchState, usePreference } from '../../benchContext';
import { tonesToPull } from '../../commands/shading';
import { HoldButton, shown } from '../../panels/HoldButton';

/** The picture's tones within the flat in hand, as shapes that are kept inside of it: shown first. */
export function PullTonesCard() {
  const bench = useBench();
  const reading = useBenchState((s) => s.reading);
  const drawing = useBenchState((s) => s.drawing);
  const flat = useBenchState((s) => s.flat);
  const how = usePreference('shade');
  const [steps, setSteps] = useState(3);
  const [smooth, setSmooth] = useState(6);
  const [busy, setBusy] = useState(false);
  const [offer, setOffer] = useState<{ edit: Edit; parts: number; of: Drawing } | null>(null);
  const offered = useRef(offer);
  useEffect(() => {
    offered.current = offer;
  }, [offer]);
  useEffect(() => () => void (offered.current && bench.show(null)), [bench]);
  const current = offer?.of === drawing ? offer : null;
  if (!flat) return null;
  const ask = async (): Promise<void> => {
    setBusy(true);
    const found = await tonesToPull(bench, flat, { steps, smooth, how });
    setBusy(false);
    setOffer(found && { ...found, of: bench.getState().drawing });
    bench.show(found?.edit ?? null);
  };
  const end = (take: boolean): void => {
    if (take && current) bench.commit(current.edit);
    else bench.show(null);
    setOffer(null);
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
      {!current && (
        <Button size="small" disabled={reading} loading={busy} onClick={() => void ask()}>
          Show the tones
        </Button>
      )}
      {current && (
        <>
          <span className="quiet">{formatCount(current.parts, 'shape')}, kept inside of the flat</span>
          <div className="row">
            <Button size="small" type="primary" onClick={() => end(true)}>
              Lay them
            </Button>
            <HoldButton className="chip" label="Hold to see it without" {...shown('uncorrected')}>
              before
            </HoldButton>
            <Button size="small" onClick={() => end(false)}>
              Leave it
            </Button>
          </div>
        </>
      )}
    </div>
  );
}
