'use client';

import { closestCenter, DndContext } from '@dnd-kit/core';
import { SortableContext, useSortable, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { Button } from 'antd';
import { colourName } from '@/core/colour/colourName';
import { moveBeside } from '@/core/edits/arrange';
import { stackAt, type AtPlace } from '@/core/edits/stackAt';
import { opaqueColourOf } from '@/core/scene/ink';
import type { Drawing } from '@/core';
import { useDragSensors } from '@/ui/dragSensors';
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
  const sensors = useDragSensors();
  if (!at) return null;
  const stack = stackAt(drawing, at, REACH / scale);
  if (stack.length < 2) return null;
  const take = ({ item }: AtPlace): void => {
    if (item.kind === 'flat') bench.chooseFlats([item.id]);
    else if (item.kind === undefined) bench.choose([item.id]);
  };
  /** Puts one right over another that lies above it, or right under one that lies below it. */
  const put = (from: number, to: number): void => {
    if (from < 0 || to < 0 || from === to) return;
    const [one, other] = [stack[from].item.id, stack[to].item.id];
    bench.commit(moveBeside(bench.getState().drawing, one, other, to < from ? 'over' : 'under'));
  };
  const placeOf = (id: unknown): number => stack.findIndex(({ item }) => item.id === id);
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
        onDragEnd={({ active, over }) => over && put(placeOf(active.id), placeOf(over.id))}
      >
        <SortableContext items={stack.map(({ item }) => item.id)} strategy={verticalListSortingStrategy}>
          <ol className="stack-list">
            {stack.map((one, i) => (
              <StackRow
                key={one.item.id}
                one={one}
                drawing={drawing}
                isOn={flats.has(one.item.id) || lines.has(one.item.id)}
                onTake={() => take(one)}
                isTop={i === 0}
                isLowest={i === stack.length - 1}
                onMove={(by) => put(i, i + by)}
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
  isTop: boolean;
  isLowest: boolean;
  onTake: () => void;
  onMove: (by: 1 | -1) => void;
};

/** One thing that lies there: a press takes it in hand, a drag puts it over or under another. */
function StackRow({ one, drawing, isOn, isTop, isLowest, onTake, onMove }: RowProps) {
  const { item } = one;
  const reading = useBenchState((s) => s.reading);
  const { setNodeRef, attributes, listeners, transform, transition } = useSortable({ id: item.id, disabled: reading });
  const name = nameOf(drawing, one);
  const steps = [
    { by: -1, sign: '↑', what: 'over', isEnd: isTop },
    { by: 1, sign: '↓', what: 'under', isEnd: isLowest },
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
      {steps.map(({ by, sign, what, isEnd }) => (
        <Button
          key={what}
          size="small"
          type="text"
          disabled={reading || isEnd}
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
