'use client';

import { Button } from 'antd';
import { seenFlats } from '@/core/edits/flats';
import { opaqueColourOf } from '@/core/scene/ink';
import type { Paint } from '@/core';
import { formatCount } from '@/ui/format';
import { ColourField } from '@/ui/ColourField';
import { useBench, useBenchState, useBenchStateLater } from '../../benchContext';
import { repaintAlike, visitFlat } from '../../commands/flats';
import { onlyChosen } from '../../state/chosen';
import { preferIn } from '../../state/preferences';
import { Row } from '../shared/LineCard';

/** So many colours are listed. */
const LISTED = 12;

/** The flats of the drawing: their colours, each changed wherever it is; those that are not shut. */
export function FlatsCard() {
  const bench = useBench();
  const drawing = useBenchStateLater((s) => s.drawing);
  const chosen = useBenchState((s) => onlyChosen(s));
  const reading = useBenchState((s) => s.reading);
  const flats = seenFlats(drawing);
  const open = flats.filter((f) => f.open);
  const fills = new Map<string, { fill: Paint; count: number }>();
  for (const { fill } of flats) {
    const key = typeof fill === 'string' ? fill : JSON.stringify(fill);
    fills.set(key, { fill, count: (fills.get(key)?.count ?? 0) + 1 });
  }
  const list = [...fills].sort(([, a], [, b]) => b.count - a.count);
  if (flats.length === 0)
    return (
      <div className="card" role="group" aria-label="Flats">
        <p className="empty">No area is filled yet. Take Pour, choose a colour, and press inside the lines.</p>
      </div>
    );
  return (
    <>
      <div className="card" role="group" aria-label="Flats">
        <Row what="Flats" figure={String(flats.length)} />
        {open.length > 0 && (
          <div className="row">
            <span>{open.length === 1 ? 'One is not shut any more' : `${open.length} are not shut any more`}</span>
            <Button
              size="small"
              onClick={() => visitFlat(bench, open[(open.findIndex((f) => f.id === chosen) + 1) % open.length].id)}
            >
              Show
            </Button>
          </div>
        )}
        {list.slice(0, LISTED).map(([key, { fill, count }]) => {
          const colour = opaqueColourOf(drawing, fill);
          return (
            <div className="row" key={key}>
              {typeof fill === 'object' && 'gradient' in fill ? (
                <span className="option-label">gradient</span>
              ) : (
                <ColourField
                  label={`All flats in ${colour}`}
                  value={colour}
                  disabled={reading}
                  onCommit={(to) => repaintAlike(bench, fill, to)}
                />
              )}
              <span className="flat-count">{formatCount(count, 'flat')}</span>
              <Button size="small" aria-label={`Pour ${colour}`} onClick={() => preferIn('pour', { colour })}>
                pour
              </Button>
            </div>
          );
        })}
        {list.length > LISTED && <span className="quiet">and {list.length - LISTED} more colours</span>}
      </div>
    </>
  );
}
