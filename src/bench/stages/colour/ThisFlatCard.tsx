'use client';

import { Button } from 'antd';
import { keepWithinBodies } from '@/core/edits/innerOutlines';
import { Choice } from '@/ui/Chip';
import { formatCount } from '@/ui/format';
import { useBench, useBenchState } from '../../benchContext';
import { chosenFlats } from '../../commands/colours';
import { makeLines, takeFlatsAway } from '../../commands/flats';
import { reaches } from './PourOptions';
import { Row } from '../shared/LineCard';

/** The chosen flats: whether they are shut, and what can become of them. */
export function ThisFlatCard() {
  const bench = useBench();
  const reading = useBenchState((s) => s.reading);
  const flats = useBenchState((s) => s.flats);
  const drawing = useBenchState((s) => s.drawing);
  const chosen = chosenFlats({ drawing, flats });
  if (chosen.length === 0) return null;
  const inner = chosen.filter((f) => f.inner).length;
  const open = chosen.filter((f) => f.open).length;
  const state = open === 0 ? (chosen.length === 1 ? 'follows its lines' : 'follow their lines') : 'not shut';
  return (
    <div className="card" role="group" aria-label="Chosen flats">
      <Row
        what={chosen.length === 1 ? 'This flat' : formatCount(chosen.length, 'flat')}
        figure={open > 0 && chosen.length > 1 ? `${open} not shut` : state}
      />
      <div className="row">
        <span>up to the lines’</span>
        <Choice
          label="How far these flats go"
          options={reaches}
          value={inner === 0 ? 'middles' : inner === chosen.length ? 'edges' : null}
          disabled={reading}
          onChange={(v) => bench.commit(keepWithinBodies(drawing, flats, v === 'edges'))}
        />
      </div>
      <div className="row">
        <Button size="small" disabled={reading} onClick={() => makeLines(bench)}>
          {chosen.length === 1 ? 'Into a line' : 'Into lines'}
        </Button>
        <Button size="small" disabled={reading} onClick={() => takeFlatsAway(bench)}>
          Take away
        </Button>
      </div>
    </div>
  );
}
