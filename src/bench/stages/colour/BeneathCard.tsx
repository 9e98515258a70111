'use client';

import { Button } from 'antd';
import { colourName } from '@/core/colour/colourName';
import { findItem, listOf, placeOf } from '@/core/drawing/find';
import { moveToPlace } from '@/core/edits/arrange';
import { stackAt, type AtPlace } from '@/core/edits/stackAt';
import { opaqueColourOf } from '@/core/scene/ink';
import type { Drawing } from '@/core';
import { useBench, useBenchState } from '../../benchContext';
import { ItemPicture } from '../shared/ItemPicture';

/** Lines as near as so many CSS px count as lying there. */
const REACH = 5;

/** All that lies where the page was pressed last, the uppermost first: taken in hand, put over or under its neighbours. */
export function BeneathCard() {
  const bench = useBench();
  const at = useBenchState((s) => s.lookedAt);
  const drawing = useBenchState((s) => s.drawing);
  const scale = useBenchState((s) => s.view.scale);
  const flats = useBenchState((s) => s.flats);
  const lines = useBenchState((s) => s.lines);
  const reading = useBenchState((s) => s.reading);
  if (!at) return null;
  const stack = stackAt(drawing, at, REACH / scale);
  if (stack.length < 2) return null;
  const take = ({ item }: AtPlace): void => {
    if (item.kind === 'flat') bench.chooseFlats([item.id]);
    else if (item.kind === undefined) bench.choose([item.id]);
  };
  const move = (id: string, by: 1 | -1): void => {
    const { drawing: now } = bench.getState();
    const found = findItem(now, id);
    if (!found) return;
    const index = Math.min(listOf(found).length - 1, Math.max(0, found.index + by));
    bench.commit(
      moveToPlace(now, id, { ...placeOf(found), index }),
      null,
      'It lies there already, within its sheet or group.',
    );
  };
  return (
    <div className="card" role="group" aria-label="What lies here">
      <div className="row">
        <b>What lies here</b>
        <span>top is nearest you</span>
      </div>
      <ol className="stack-list">
        {stack.map((one) => {
          const { item } = one;
          const isOn = flats.has(item.id) || lines.has(item.id);
          const name = nameOf(drawing, one);
          return (
            <li key={item.id} className={isOn ? 'on' : ''}>
              <button type="button" aria-pressed={isOn} title={`Take ${name} in hand`} onClick={() => take(one)}>
                <ItemPicture item={item} fill={item.kind === 'flat' ? opaqueColourOf(drawing, item.fill) : undefined} />
                <span>{name}</span>
              </button>
              <Button
                size="small"
                type="text"
                disabled={reading}
                aria-label={`${name}: over the next`}
                onClick={() => move(item.id, 1)}
              >
                ↑
              </Button>
              <Button
                size="small"
                type="text"
                disabled={reading}
                aria-label={`${name}: under the next`}
                onClick={() => move(item.id, -1)}
              >
                ↓
              </Button>
            </li>
          );
        })}
      </ol>
    </div>
  );
}

function nameOf(d: Drawing, { item, sheet }: AtPlace): string {
  if (item.kind === 'flat') return item.name ?? `flat, ${colourName(opaqueColourOf(d, item.fill))}`;
  if (item.kind === 'picture') return item.name;
  return item.name ?? `line on ${sheet.name}`;
}
