'use client';

import { HolderOutlined } from '@ant-design/icons';
import { useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { memo, useState, type CSSProperties } from 'react';
import { removeSheet, setSheet, tagColours } from '@/core/edits/sheets';
import { LockButton, RemoveButton, ShowButton } from '@/ui/cardButtons';
import { formatCount } from '@/ui/format';
import { ColourPicker } from '@/ui/ColourPicker';
import { NameField } from '@/ui/NameField';
import { lineCount, sheetOf } from '@/core/drawing/find';
import { flatsIn } from '@/core/drawing/items';
import { sheetStates } from '@/core/drawing/schema';
import { workOn } from '../commands/desk';
import { useBench, useBenchState, useBenchStateLater } from '../benchContext';
import type { SheetLook } from '../state/sheetLooks';

/** One sheet as a paper card: its tag colour, name, what is on it, whether it can be seen and drawn on. */
export const SheetCard = memo(function SheetCard({ sheet, isActive }: { sheet: SheetLook; isActive: boolean }) {
  const bench = useBench();
  const reading = useBenchState((s) => s.reading);
  const [renaming, setRenaming] = useState(false);
  const { setNodeRef, attributes, listeners, transform, transition, isDragging } = useSortable({
    id: sheet.id,
    disabled: reading,
  });
  const set = (after: Parameters<typeof setSheet>[2], label: string): void =>
    void bench.commit(setSheet(bench.getState().drawing, sheet.id, after, label));
  const rename = (name: string | null): void => {
    setRenaming(false);
    if (name) set({ name }, 'Rename sheet');
  };
  const remove = (): void => {
    const { drawing } = bench.getState();
    const count = lineCount(drawing, sheet.id);
    bench.commit(removeSheet(drawing, sheet.id));
    bench.tell(`“${sheet.name}” was deleted${count > 0 ? ` with ${formatCount(count, 'line')}` : ''}.`, {
      label: 'Undo',
      run: () => bench.undo(),
    });
  };
  const next = sheetStates[(sheetStates.indexOf(sheet.state) + 1) % sheetStates.length];
  const style = { '--tag': sheet.tag, transform: CSS.Translate.toString(transform), transition } as CSSProperties;
  return (
    <li
      ref={setNodeRef}
      style={style}
      className={`sheet${sheet.folder ? ' within' : ''}${isActive ? ' now' : ''}${isDragging ? ' dragged' : ''}${sheet.visible ? '' : ' unseen'}`}
      data-sheet={sheet.name}
    >
      <TagButton id={sheet.id} name={sheet.name} tag={sheet.tag} />
      {!renaming ? (
        <button
          type="button"
          className="name"
          aria-pressed={isActive}
          title="Work on this sheet (F2 or double-click: rename)"
          onClick={() => workOn(bench, sheet.id)}
          onDoubleClick={() => !reading && setRenaming(true)}
          onKeyDown={(e) => e.key === 'F2' && !reading && setRenaming(true)}
        >
          <span>{sheet.name}</span>
          <SheetState sheet={sheet} isActive={isActive} />
        </button>
      ) : (
        <NameField label="Sheet name" value={sheet.name} onDone={rename} />
      )}
      <div className="sheet-buttons">
        <button
          type="button"
          className={`state ${sheet.state.replace(' ', '-')}`}
          disabled={reading}
          aria-label={`Mark ${sheet.name} ${next}, now ${sheet.state}`}
          title={`${sheet.state}; a click: ${next}`}
          onClick={() => set({ state: next }, `Mark ${next}`)}
        />
        <ShowButton
          what={sheet.name}
          shown={sheet.visible}
          disabled={reading}
          onClick={() => set({ visible: !sheet.visible }, sheet.visible ? 'Hide sheet' : 'Show sheet')}
        />
        <LockButton
          what={sheet.name}
          locked={sheet.locked}
          disabled={reading}
          onClick={() => set({ locked: !sheet.locked }, sheet.locked ? 'Unlock sheet' : 'Lock sheet')}
        />
        <RemoveButton what={sheet.name} verb={['Delete', '']} disabled={reading} onClick={remove} />
        <button
          type="button"
          className="grip"
          aria-label={`Move ${sheet.name}`}
          title="Drag, or press Space and use the arrows"
          {...attributes}
          {...listeners}
        >
          <HolderOutlined />
        </button>
      </div>
    </li>
  );
});

/** How far a sheet is, how many lines it has, and what is up with it. */
function SheetState({ sheet, isActive }: { sheet: SheetLook; isActive: boolean }) {
  const count = useBenchStateLater((s) => lineCount(s.drawing, sheet.id));
  const flats = useBenchStateLater((s) => flatsIn(sheetOf(s.drawing, sheet.id)?.items ?? []).length);
  const state = [
    ...(sheet.state === 'to do' ? [] : [sheet.state]),
    ...(count > 0 || flats === 0 ? [formatCount(count, 'line')] : []),
    ...(flats > 0 ? [formatCount(flats, 'flat')] : []),
    ...(sheet.visible ? [] : ['hidden']),
    ...(sheet.locked ? ['locked'] : []),
    ...(isActive ? ['here'] : []),
  ];
  return <small>{state.join(' · ')}</small>;
}

/** The sheet's colour; by itself, so that it is not drawn anew with every line that is laid on the sheet. */
const TagButton = memo(function TagButton({ id, name, tag }: { id: string; name: string; tag: string }) {
  const bench = useBench();
  const reading = useBenchState((s) => s.reading);
  const set = (to: string): void =>
    void bench.commit(setSheet(bench.getState().drawing, id, { tag: to }, 'Change tag colour'));
  return (
    <ColourPicker
      label={`tag of ${name}`}
      value={tag}
      disabled={reading}
      size="small"
      presets={{ label: 'Tags', colors: [...tagColours] }}
      onCommit={set}
    >
      <button type="button" className="tag" aria-label={`Tag colour of ${name}`} title="Tag colour" />
    </ColourPicker>
  );
});
