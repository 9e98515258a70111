'use client';

import { QuestionCircleOutlined, RedoOutlined, UndoOutlined } from '@ant-design/icons';
import { Button } from 'antd';
import Link from 'next/link';
import { useState, type ReactNode } from 'react';
import { NameField } from '@/ui/NameField';
import { quillMark } from '@/ui/signs';
import { formatCount, formatNumber } from '@/ui/format';
import { useBench, useBenchState, useBenchStateLater } from '../benchContext';
import { askJson } from '../state/api';
import type { SaveState as Saving } from '../state/saver';
import { CompareMenu } from './CompareMenu';
import { StageRuler } from './StageRuler';
import { VersionsMenu } from './VersionsMenu';

const saveWords = (save: Saving, reading: boolean): string =>
  reading
    ? 'reading only'
    : save.kind === 'saved'
      ? `saved, change ${formatNumber(save.revision)}`
      : save.kind === 'sending'
        ? 'sending'
        : `${formatCount(save.waiting, 'change')} waiting here`;

export function TopBar({ showKeys }: { showKeys: () => void }) {
  return (
    <header className="top-bar">
      <div className="mark">
        <Link href="/" prefetch={false} aria-label="All drawings" title="All drawings">
          {quillMark}
        </Link>
        <div>
          <Title />
          <SaveState />
        </div>
      </div>
      <StageRuler />
      <div className="top-actions">
        <UndoButtons />
        <CompareMenu />
        <VersionsMenu />
        <Button
          shape="round"
          icon={<QuestionCircleOutlined />}
          onClick={showKeys}
          aria-label="Keys"
          title="All keys (?)"
        />
      </div>
    </header>
  );
}

function SaveState() {
  const save = useBenchState((s) => s.save);
  const reading = useBenchState((s) => s.reading);
  return (
    <small className={`save ${save.kind}`} role="status" aria-live="polite" data-save={save.kind}>
      {saveWords(save, reading)}
    </small>
  );
}

function UndoButtons() {
  const bench = useBench();
  const undoable = useBenchStateLater(
    (s) => s.undoable.at(-1)?.label ?? (s.hasPast ? 'what was done before' : undefined),
  );
  const redoable = useBenchStateLater((s) => s.redoable.at(-1)?.label);
  return (
    <>
      <StepButton name="Undo" icon={<UndoOutlined />} label={undoable} onClick={() => bench.undo()} />
      <StepButton name="Redo" icon={<RedoOutlined />} label={redoable} onClick={() => bench.redo()} />
    </>
  );
}

type Step = { name: string; icon: ReactNode; label: string | undefined; onClick: () => void };

function StepButton({ name, icon, label, onClick }: Step) {
  const reading = useBenchState((s) => s.reading);
  return (
    <Button
      shape="round"
      icon={icon}
      disabled={!label || reading}
      onClick={onClick}
      aria-label={name}
      title={label ? `${name}: ${label}` : `Nothing to ${name.toLowerCase()}`}
    />
  );
}

/** The drawing's title; a click makes it a field. */
function Title() {
  const bench = useBench();
  const title = useBenchState((s) => s.title);
  const id = useBenchState((s) => s.id);
  const [renaming, setRenaming] = useState(false);
  const keep = async (wanted: string | null): Promise<void> => {
    setRenaming(false);
    if (!wanted) return;
    bench.setState({ title: wanted });
    await askJson(`/api/drawings/${id}`, 'PATCH', { title: wanted }).catch((e: Error) => {
      bench.setState({ title });
      bench.tell(`The title stays “${title}”: ${e.message}`, undefined, 'warning');
    });
  };
  if (renaming) return <NameField label="Title" value={title} onDone={keep} />;
  return (
    <button type="button" className="title" title="Rename" onClick={() => setRenaming(true)}>
      {title}
    </button>
  );
}
