'use client';

import { PlusOutlined, UnorderedListOutlined } from '@ant-design/icons';
import { closestCenter, DndContext, type DragEndEvent } from '@dnd-kit/core';
import { SortableContext, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { Button } from 'antd';
import { nanoid } from 'nanoid';
import { Fragment, useMemo, useState } from 'react';
import { moveSheetInto } from '@/core/edits/folders';
import { addSheet, freeSheetName } from '@/core/edits/sheets';
import { useDragSensors } from '@/ui/dragSensors';
import { useBench, useBenchState } from '../benchContext';
import { sheetLooks } from '../state/sheetLooks';
import { FolderCard, folderPlace } from './FolderCard';
import { PlanDialog } from './PlanDialog';
import { SheetCard } from './SheetCard';

/** The stack of sheets, the top one nearest the viewer. Dragged by its cards, or moved by keys from a card's grip. */
export function SheetsPanel() {
  const bench = useBench();
  const sheets = useBenchState((s) => sheetLooks(s.drawing.sheets));
  const active = useBenchState((s) => s.sheet);
  const reading = useBenchState((s) => s.reading);
  const sensors = useDragSensors();
  const folders = useBenchState((s) => s.drawing.folders);
  const [planning, setPlanning] = useState(false);
  const fromTop = sheets.toReversed();
  // The same list for as long as the sheets look the same, or every card would be drawn anew with any of them.
  const ids = useMemo(() => sheets.map((s) => s.id).reverse(), [sheets]);

  const add = (): void => {
    const { drawing, sheet } = bench.getState();
    const id = nanoid(10);
    if (bench.commit(addSheet(drawing, id, freeSheetName(drawing), sheet))) bench.setState({ sheet: id });
  };
  const dropped = ({ active: dragged, over }: DragEndEvent): void => {
    if (!over || dragged.id === over.id) return;
    const { drawing } = bench.getState();
    const place = String(over.id);
    const folder = drawing.folders.find((f) => folderPlace(f.id) === place);
    const from = drawing.sheets.findIndex((s) => s.id === dragged.id);
    if (folder) {
      // Onto a folder's own card: on top of what is in it.
      const top = drawing.sheets.findLastIndex((s) => s.folder === folder.id);
      bench.commit(moveSheetInto(drawing, String(dragged.id), top < 0 ? from : top < from ? top + 1 : top, folder.id));
      return;
    }
    const to = drawing.sheets.findIndex((s) => s.id === place);
    bench.commit(moveSheetInto(drawing, String(dragged.id), to, drawing.sheets[to].folder));
  };

  return (
    <section className="sheets" aria-label="Sheets">
      <h2>
        Sheets <span>top is nearest you</span>
        <Button
          size="small"
          type="text"
          icon={<UnorderedListOutlined />}
          aria-label="Plan the parts"
          title="Plan the parts: sheets and folders in one go"
          disabled={reading}
          onClick={() => setPlanning(true)}
        />
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
        <SortableContext items={ids} strategy={verticalListSortingStrategy}>
          <ol>
            {fromTop.map((sheet, i) => {
              const folder = folders.find((f) => f.id === sheet.folder);
              const isFirst = folder && fromTop[i - 1]?.folder !== folder.id;
              return (
                <Fragment key={sheet.id}>
                  {isFirst && <FolderCard folder={folder} sheets={sheets.filter((s) => s.folder === folder.id)} />}
                  {(!folder || folder.open) && <SheetCard sheet={sheet} isActive={sheet.id === active} />}
                </Fragment>
              );
            })}
            {folders
              .filter((f) => !sheets.some((s) => s.folder === f.id))
              .map((f) => (
                <FolderCard key={f.id} folder={f} sheets={[]} />
              ))}
          </ol>
        </SortableContext>
      </DndContext>
      {sheets.length === 0 && <p className="empty">No sheet to draw on. Add one with the plus.</p>}
      <PlanDialog open={planning} onClose={() => setPlanning(false)} />
    </section>
  );
}
