'use client';

import { Button, Checkbox } from 'antd';
import { useState } from 'react';
import { applyChange, type Drawing } from '@/core';
import type { Edit } from '@/core/change/edit';
import { allFlats } from '@/core/edits/flats';
import type { Joined } from '@/core/edits/takeColours';
import { opaqueColourOf } from '@/core/scene/ink';
import { Choice } from '@/ui/Chip';
import { formatCount } from '@/ui/format';
import { NumberField } from '@/ui/NumberField';
import { useBench, useBenchState } from '../../benchContext';
import { coloursToTake } from '../../commands/colours';
import { useOffer } from './useOffer';

const ways = [
  { value: 'own', label: 'each its own', title: 'Every flat takes the colour that is typical beneath it' },
  { value: 'few', label: 'few', title: 'They are joined to so many swatches' },
  { value: 'palette', label: 'the palette', title: 'Each takes the nearest swatch that there is' },
] as const;

/** So many changes are told one by one. */
const TOLD = 10;

/** Flats take the colours of the picture beneath: shown first, then taken or not. */
export function TakeColoursCard() {
  const bench = useBench();
  const chosen = useBenchState((s) => s.flats);
  const reading = useBenchState((s) => s.reading);
  const [to, setTo] = useState<Joined['to']>('few');
  const [count, setCount] = useState(6);
  const [only, setOnly] = useState(false);
  const [busy, setBusy] = useState(false);
  const { offer, make, buttons } = useOffer<object>();

  const ask = async (): Promise<void> => {
    setBusy(true);
    const joined: Joined = to === 'few' ? { to, count } : { to };
    const edit = await coloursToTake(bench, joined, only && chosen.size > 0 ? chosen : null);
    setBusy(false);
    make(edit && { edit });
  };
  return (
    <div className="card" role="group" aria-label="Take colours">
      <div className="row">
        <b>Take colours</b>
        <span>from the picture</span>
      </div>
      <Choice label="Joined to" options={ways} value={to} disabled={busy} onChange={setTo} />
      {to === 'few' && (
        <div className="row">
          <span>Swatches at most</span>
          <NumberField label="Swatches at most" value={count} min={1} max={64} onCommit={setCount} />
        </div>
      )}
      {chosen.size > 0 && (
        <Checkbox checked={only} onChange={(e) => setOnly(e.target.checked)}>
          {chosen.size === 1 ? 'Only the chosen flat' : `Only the ${chosen.size} chosen flats`}
        </Checkbox>
      )}
      {!offer && (
        <Button size="small" type="primary" disabled={reading} loading={busy} onClick={() => void ask()}>
          Show what they take
        </Button>
      )}
      {offer && (
        <>
          <Changes before={offer.of} edit={offer.edit} />
          {buttons('Take them')}
        </>
      )}
    </div>
  );
}

/** The colours before and after, those of the most flats first. */
function Changes({ before, edit }: { before: Drawing; edit: Edit }) {
  const after = applyChange(before, edit);
  const was = new Map(allFlats(before).map((f) => [f.id, f]));
  const pairs = new Map<string, { from: string; to: string; count: number }>();
  for (const flat of allFlats(after)) {
    const old = was.get(flat.id);
    if (!old || old.fill === flat.fill) continue;
    const [from, to] = [opaqueColourOf(before, old.fill), opaqueColourOf(after, flat.fill)];
    const pair = pairs.get(`${from} ${to}`) ?? { from, to, count: 0 };
    pair.count++;
    pairs.set(`${from} ${to}`, pair);
  }
  const list = [...pairs.values()].sort((a, b) => b.count - a.count);
  return (
    <ul className="colour-pairs" aria-label="Before and after">
      {list.slice(0, TOLD).map(({ from, to, count }) => (
        <li key={`${from} ${to}`}>
          <i style={{ background: from }} title={from} />→<i style={{ background: to }} title={to} />
          <span>{formatCount(count, 'flat')}</span>
        </li>
      ))}
      {list.length > TOLD && <li>and {list.length - TOLD} more</li>}
    </ul>
  );
}
