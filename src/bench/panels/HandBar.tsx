'use client';

import {
  AimOutlined,
  BorderOutlined,
  CheckOutlined,
  DeleteOutlined,
  EyeInvisibleOutlined,
  HistoryOutlined,
  PlusSquareOutlined,
  RedoOutlined,
  RollbackOutlined,
  ScissorOutlined,
  StopOutlined,
  UndoOutlined,
} from '@ant-design/icons';
import { useEffect, useRef, type ReactNode } from 'react';
import type { BenchState } from '../state/store';
import { pointerKind } from '../state/pointerKind';
import { useBench, useBenchState, usePreference } from '../benchContext';
import { useStored } from '../useStored';
import { HoldButton, shown, type Holding } from './HoldButton';

/** What the other hand does where there is no keyboard: at the side that the drawing hand leaves free. */
export function HandBar({ onKey }: { onKey: (key: string) => void }) {
  const bench = useBench();
  const isCoarse = useStored(pointerKind, (s) => s.kind === 'coarse');
  const leftHanded = usePreference('mirrored');
  const isSelecting = useBenchState((s) => s.tool === 'select' || s.tool === 'nodes');
  const undoable = useBenchState((s) => s.undoable.length > 0);
  const redoable = useBenchState((s) => s.redoable.length > 0);
  useEffect(() => {
    // Nothing stays held when the bar goes.
    if (!isCoarse) bench.setState({ heldByFinger: {}, peek: false, lifted: false, uncorrected: false });
  }, [bench, isCoarse]);
  if (!isCoarse) return null;
  return (
    <div className={leftHanded ? 'hand-bar right' : 'hand-bar'} role="toolbar" aria-label="Hand bar">
      <Deed label="end" icon={<CheckOutlined />} run={() => onKey('Enter')} />
      <Deed label="take back" icon={<RollbackOutlined />} run={() => onKey('Backspace')} />
      <Deed label="undo" icon={<UndoOutlined />} disabled={!undoable} run={() => bench.undo()} />
      <Deed label="redo" icon={<RedoOutlined />} disabled={!redoable} run={() => bench.redo()} />
      <Deed label="delete" icon={<DeleteOutlined />} run={() => onKey('Delete')} />
      <Held label="choose more" icon={<PlusSquareOutlined />} disabled={!isSelecting} {...finger('more')} />
      <Held label="constrain" title="Hold: 15° steps, equal sides" icon={<BorderOutlined />} {...finger('shift')} />
      <Held
        label="free"
        title="Hold: handles part, lines are drawn on and joined"
        icon={<ScissorOutlined />}
        {...finger('alt')}
      />
      <Held label="keep to nothing" icon={<StopOutlined />} {...finger('mod')} />
      <Held label="lift reference" icon={<EyeInvisibleOutlined />} {...shown('peek')} />
      <Held label="lift lines" icon={<AimOutlined />} {...shown('lifted')} />
      <Held label="before" icon={<HistoryOutlined />} {...shown('uncorrected')} />
    </div>
  );
}

const finger = (key: keyof BenchState['heldByFinger']): Holding => ({
  isOn: (s) => !!s.heldByFinger[key],
  set: (bench, on) => bench.setState((s) => ({ heldByFinger: { ...s.heldByFinger, [key]: on } })),
});
type Item = { label: string; title?: string; icon: ReactNode; disabled?: boolean };

/** Done when the finger lifts: a browser may make no click of a tap that follows a quick drag. */
function Deed({ label, icon, disabled, run }: Item & { run: () => void }) {
  const pressed = useRef<number | null>(null);
  return (
    <button
      type="button"
      aria-label={label}
      disabled={disabled}
      onPointerDown={(e) => (pressed.current = e.pointerId)}
      onPointerUp={(e) => {
        const { left, right, top, bottom } = e.currentTarget.getBoundingClientRect();
        const isOn = e.clientX >= left && e.clientX <= right && e.clientY >= top && e.clientY <= bottom;
        if (pressed.current === e.pointerId && isOn) run();
        pressed.current = null;
      }}
      onClick={(e) => {
        // By keys, or by what reads the page aloud, there is only the click.
        if (e.detail === 0) run();
      }}
    >
      {icon}
      <span>{label}</span>
    </button>
  );
}

const Held = ({ label, title, icon, disabled, ...holding }: Item & Holding) => (
  <HoldButton
    className="held"
    label={label}
    title={title ?? 'Hold; a tap sets it until the next tap'}
    disabled={disabled}
    latches
    {...holding}
  >
    {icon}
    <span>{label}</span>
  </HoldButton>
);
