'use client';

import { Button } from 'antd';
import { findItem } from '@/core/drawing/find';
import { isFlat } from '@/core/drawing/items';
import { useBench, useBenchState } from '../../benchContext';
import { makeLine, takeFlatAway } from '../../commands/flats';
import { Row } from '../shared/LineCard';

/** The flat in hand: whether it is shut, and what can become of it. */
export function ThisFlatCard() {
  const bench = useBench();
  const reading = useBenchState((s) => s.reading);
  const item = useBenchState((s) => (s.flat === null ? undefined : findItem(s.drawing, s.flat)?.item));
  if (!item || !isFlat(item)) return null;
  return (
    <div className="card" role="group" aria-label="This flat">
      <Row what="This flat" figure={item.open ? 'not shut' : 'follows its lines'} />
      <div className="row">
        <Button size="small" disabled={reading} onClick={() => makeLine(bench, item.id)}>
          Into a line
        </Button>
        <Button size="small" disabled={reading} onClick={() => takeFlatAway(bench, item.id)}>
          Take away
        </Button>
      </div>
    </div>
  );
}
