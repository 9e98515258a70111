'use client';

import { closestCenter, DndContext, KeyboardSensor, PointerSensor, useSensor, useSensors } from '@dnd-kit/core';
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { Button } from 'antd';
import { colourName } from '@/core/colour/colourName';
import { findItem, listOf, placeOf } from '@/core/drawing/find';
import { moveBeside, moveToPlace } from '@/core/edits/arrange';
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
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 5 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
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
      <DndContext
        id="what-lies-here"
        autoScroll={false}
        sensors={sensors}
        collisionDetection={closestCenter}
        onDragEnd={({ active, over }) => {
          const place = (id: unknown): number => stack.findIndex(({ item }) => item.id === id);
          if (!over || place(over.id) < 0) return;
          const where = place(over.id) < place(active.id) ? 'over' : 'under';
          bench.commit(moveBeside(bench.getState().drawing, String(active.id), String(over.id), where));
        }}
      >
        <SortableContext items={stack.map(({ item }) => item.id)} strategy={verticalListSortingStrategy}>
          <ol className="stack-list">
            {stack.map((one) => (
              <StackRow
                key={one.item.id}
                one={one}
                drawing={drawing}
                isOn={flats.has(one.item.id) || lines.has(one.item.id)}
                onTake={() => take(one)}
                onMove={(by) => move(one.item.id, by)}
              />
            ))}
          </ol>
        </SortableContext>
      </DndContext>
    </div>
  );
}

type RowProps = {
  one: AtPlace;
  drawing: Drawing;
  isOn: boolean;
  onTake: () => void;
  onMove: (by: 1 | -1) => void;
};

/** One thing that lies there: a press takes it in hand, a drag puts it over or under another. */
function StackRow({ one, drawing, isOn, onTake, onMove }: RowProps) {
  const { item } = one;
  const reading = useBenchState((s) => s.reading);
  const { setNodeRef, attributes, listeners, transform, transition } = useSortable({ id: item.id, disabled: reading });
  const name = nameOf(drawing, one);
  const steps = [
    { by: 1, sign: '↑', what: 'over' },
    { by: -1, sign: '↓', what: 'under' },
  ] as const;
  return (
    <li
      ref={setNodeRef}
      className={isOn ? 'on' : ''}
      style={{ transform: CSS.Translate.toString(transform), transition }}
    >
      <button
        type="button"
        {...attributes}
        {...listeners}
        aria-pressed={isOn}
        title={`Take ${name} in hand, or drag it over or under another`}
        onClick={onTake}
      >
        <ItemPicture item={item} fill={item.kind === 'flat' ? opaqueColourOf(drawing, item.fill) : undefined} />
        <span>{name}</span>
      </button>
      {steps.map(({ by, sign, what }) => (
        <Button
          key={what}
          size="small"
          type="text"
          disabled={reading}
          aria-label={`${name}: ${what} the next`}
          onClick={() => onMove(by)}
        >
          {sign}
        </Button>
      ))}
    </li>
  );
}

function nameOf(d: Drawing, { item, sheet }: AtPlace): string {
  if (item.kind === 'flat') return item.name ?? `flat, ${colourName(opaqueColourOf(d, item.fill))}`;
  if (item.kind === 'picture') return item.name;
  return item.name ?? `line on ${sheet.name}`;
}
