'use client';

import { CaretDownOutlined, CaretRightOutlined } from '@ant-design/icons';
import { useDroppable } from '@dnd-kit/core';
import { useState } from 'react';
import type { Folder } from '@/core';
import { removeFolder, setFolder } from '@/core/edits/folders';
import { RemoveButton } from '@/ui/cardButtons';
import { formatCount } from '@/ui/format';
import { NameField } from '@/ui/NameField';
import { useBench, useBenchState } from '../benchContext';
import type { SheetLook } from '../state/sheetLooks';

export const folderPlace = (id: string): string => `folder:${id}`;

/** A folder's own card above those of its sheets: open or closed, its name, how far its parts are. */
export function FolderCard({ folder, sheets }: { folder: Folder; sheets: readonly SheetLook[] }) {
  const bench = useBench();
  const reading = useBenchState((s) => s.reading);
  const [renaming, setRenaming] = useState(false);
  const { setNodeRef, isOver } = useDroppable({ id: folderPlace(folder.id), disabled: reading });
  const set = (after: Parameters<typeof setFolder>[2], label: string): void =>
    void bench.commit(setFolder(bench.getState().drawing, folder.id, after, label));
  const traced = sheets.filter((s) => s.state === 'traced').length;
  return (
    <li ref={setNodeRef} className={`folder${isOver ? ' over' : ''}`} data-folder={folder.name}>
      <button
        type="button"
        className="fold"
        aria-expanded={folder.open}
        aria-label={`${folder.open ? 'Close' : 'Open'} ${folder.name}`}
        onClick={() => set({ open: !folder.open }, folder.open ? 'Close folder' : 'Open folder')}
      >
        {folder.open ? <CaretDownOutlined /> : <CaretRightOutlined />}
      </button>
      {renaming ? (
        <NameField
          label="Folder name"
          value={folder.name}
          onDone={(name) => {
            setRenaming(false);
            if (name) set({ name }, 'Rename folder');
          }}
        />
      ) : (
        <button
          type="button"
          className="name"
          title="F2 or double-click: rename"
          onDoubleClick={() => !reading && setRenaming(true)}
          onKeyDown={(e) => e.key === 'F2' && !reading && setRenaming(true)}
        >
          <span>{folder.name}</span>
          <small>
            {formatCount(sheets.length, 'part')}
            {traced > 0 ? ` · ${traced} traced` : ''}
          </small>
        </button>
      )}
      <RemoveButton
        what={folder.name}
        verb={['Take apart', '']}
        disabled={reading}
        onClick={() => bench.commit(removeFolder(bench.getState().drawing, folder.id))}
      />
    </li>
  );
}
