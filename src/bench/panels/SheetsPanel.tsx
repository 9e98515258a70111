'use client';

import { PlusOutlined } from '@ant-design/icons';
import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type DragEndEvent,
} from '@dnd-kit/core';
import { SortableContext, sortableKeyboardCoordinates, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { Button } from 'antd';
import { nanoid } from 'nanoid';
import { addSheet, freeSheetName, moveSheet } from '@/core/change/sheetEdits';
import { useBench, useBenchState } from '../benchContext';
import { SheetCard } from './SheetCard';

/** The stack of sheets, the top one nearest the viewer. Dragged by its cards, or moved by keys from a card's grip. */
export function SheetsPanel() {
  const bench = useBench();
  const sheets = useBenchState((s) => s.drawing.sheets);
  const active = useBenchState((s) => s.sheet);
  const reading = useBenchState((s) => s.reading);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 5 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const fromTop = sheets.toReversed();

  const add = (): void => {
    const { drawing, sheet } = bench.getState();
    const id = nanoid(10);
    if (bench.commit(addSheet(drawing, id, freeSheetName(drawing), sheet))) bench.setState({ sheet: id });
  };
  const dropped = ({ active: dragged, over }: DragEndEvent): void => {
    if (!over || dragged.id === over.id) return;
    const { drawing } = bench.getState();
    bench.commit(
      moveSheet(
        drawing,
        String(dragged.id),
        drawing.sheets.findIndex((s) => s.id === over.id),
      ),
    );
  };

  return (
    <section className="sheets" aria-label="Sheets">
      <h2>
        Sheets <span>top is nearest you</span>
        <Button
          size="small"
          type="text"
          icon={<PlusOutlined />}
          aria-label="Add a sheet"
          title="Add a sheet"
          disabled={reading}
          onClick={add}
        />
      </h2>
      <DndContext id="sheets" sensors={sensors} collisionDetection={closestCenter} onDragEnd={dropped}>
        <SortableContext items={fromTop.map((s) => s.id)} strategy={verticalListSortingStrategy}>
          <ol>
            {fromTop.map((sheet) => (
              <SheetCard key={sheet.id} sheet={sheet} isActive={sheet.id === active} />
            ))}
          </ol>
        </SortableContext>
      </DndContext>
      {sheets.length === 0 && <p className="empty">No sheet to draw on. Add one with the plus.</p>}
    </section>
  );
}
