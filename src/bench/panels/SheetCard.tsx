'use client';

import {
  DeleteOutlined,
  EyeInvisibleOutlined,
  EyeOutlined,
  HolderOutlined,
  LockOutlined,
  UnlockOutlined,
} from '@ant-design/icons';
import { useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { Button, ColorPicker, Input } from 'antd';
import { useState, type CSSProperties } from 'react';
import type { Sheet } from '@/core';
import { removeSheet, setSheet, tagColours } from '@/core/change/sheetEdits';
import { formatCount } from '@/ui/format';
import { useBench, useBenchState } from '../benchContext';

/** One sheet as a paper card: its tag colour, name, what is on it, whether it can be seen and drawn on. */
export function SheetCard({ sheet, isActive }: { sheet: Sheet; isActive: boolean }) {
  const bench = useBench();
  const reading = useBenchState((s) => s.reading);
  const [name, setName] = useState<string | null>(null);
  const { setNodeRef, attributes, listeners, transform, transition, isDragging } = useSortable({
    id: sheet.id,
    disabled: reading,
  });
  const set = (after: Parameters<typeof setSheet>[2], label: string): void =>
    void bench.commit(setSheet(bench.getState().drawing, sheet.id, after, label));
  const rename = (): void => {
    const wanted = name?.trim();
    setName(null);
    if (wanted) set({ name: wanted.slice(0, 200) }, 'Rename sheet');
  };
  const remove = (): void => {
    bench.commit(removeSheet(bench.getState().drawing, sheet.id));
    bench.tell(
      `“${sheet.name}” was deleted${sheet.lines.length > 0 ? ` with ${formatCount(sheet.lines.length, 'line')}` : ''}.`,
      { label: 'Undo', run: () => bench.undo() },
    );
  };
  const style = { '--tag': sheet.tag, transform: CSS.Translate.toString(transform), transition } as CSSProperties;
  const state = [
    formatCount(sheet.lines.length, 'line'),
    ...(sheet.visible ? [] : ['hidden']),
    ...(sheet.locked ? ['locked'] : []),
    ...(isActive ? ['working here'] : []),
  ];
  return (
    <li
      ref={setNodeRef}
      style={style}
      className={`sheet${isActive ? ' now' : ''}${isDragging ? ' dragged' : ''}${sheet.visible ? '' : ' unseen'}`}
      data-sheet={sheet.name}
    >
      <ColorPicker
        value={sheet.tag}
        disabled={reading}
        disabledAlpha
        size="small"
        presets={[{ label: 'Tags', colors: [...tagColours] }]}
        onChangeComplete={(c) => set({ tag: c.toHexString().slice(0, 7).toLowerCase() }, 'Change tag colour')}
      >
        <button type="button" className="tag" aria-label={`Tag colour of ${sheet.name}`} title="Tag colour" />
      </ColorPicker>
      {name === null ? (
        <button
          type="button"
          className="name"
          aria-pressed={isActive}
          title="Work on this sheet (F2 or double-click: rename)"
          onClick={() => bench.setState({ sheet: sheet.id })}
          onDoubleClick={() => !reading && setName(sheet.name)}
          onKeyDown={(e) => e.key === 'F2' && !reading && setName(sheet.name)}
        >
          <span>{sheet.name}</span>
          <small>{state.join(' · ')}</small>
        </button>
      ) : (
        <Input
          size="small"
          autoFocus
          aria-label="Sheet name"
          value={name}
          maxLength={200}
          onFocus={(e) => e.target.select()}
          onChange={(e) => setName(e.target.value)}
          onBlur={rename}
          onPressEnter={rename}
          onKeyDown={(e) => {
            if (e.key === 'Escape') setName(null);
            e.stopPropagation();
          }}
        />
      )}
      <div className="sheet-buttons">
        <Button
          type="text"
          size="small"
          disabled={reading}
          icon={sheet.visible ? <EyeOutlined /> : <EyeInvisibleOutlined />}
          aria-label={`${sheet.visible ? 'Hide' : 'Show'} ${sheet.name}`}
          title={sheet.visible ? 'Hide' : 'Show'}
          onClick={() => set({ visible: !sheet.visible }, sheet.visible ? 'Hide sheet' : 'Show sheet')}
        />
        <Button
          type="text"
          size="small"
          disabled={reading}
          icon={sheet.locked ? <LockOutlined /> : <UnlockOutlined />}
          aria-label={`${sheet.locked ? 'Unlock' : 'Lock'} ${sheet.name}`}
          title={sheet.locked ? 'Unlock' : 'Lock'}
          onClick={() => set({ locked: !sheet.locked }, sheet.locked ? 'Unlock sheet' : 'Lock sheet')}
        />
        <Button
          type="text"
          size="small"
          className="quiet"
          disabled={reading}
          icon={<DeleteOutlined />}
          aria-label={`Delete ${sheet.name}`}
          title="Delete"
          onClick={remove}
        />
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
}
