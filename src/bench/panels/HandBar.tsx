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
import type { Bench, BenchState } from '../state/store';
import { pointerKind } from '../state/pointerKind';
import { useBench, useBenchState, usePreference } from '../benchContext';
import { useStored } from '../useStored';

/** A press shorter than this sets what it holds until the next one. */
const TAP_MS = 260;

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

type Holding = { isOn: (s: BenchState) => boolean; set: (bench: Bench, on: boolean) => void };

const finger = (key: keyof BenchState['heldByFinger']): Holding => ({
  isOn: (s) => !!s.heldByFinger[key],
  set: (bench, on) => bench.setState((s) => ({ heldByFinger: { ...s.heldByFinger, [key]: on } })),
});
const shown = (key: 'peek' | 'lifted' | 'uncorrected'): Holding => ({
  isOn: (s) => s[key],
  set: (bench, on) => bench.setState({ [key]: on }),
});

type Item = { label: string; title?: string; icon: ReactNode; disabled?: boolean };

const Deed = ({ label, icon, disabled, run }: Item & { run: () => void }) => (
  <button type="button" aria-label={label} disabled={disabled} onClick={run}>
    {icon}
    <span>{label}</span>
  </button>
);

/** Holds something for as long as it is pressed; a tap sets it until the next tap. */
function Held({ label, title, icon, disabled, isOn, set }: Item & Holding) {
  const bench = useBench();
  const on = useBenchState(isOn);
  const pressed = useRef({ at: 0, was: false });
  const release = (e: React.PointerEvent): void => {
    if (!e.currentTarget.hasPointerCapture(e.pointerId)) return;
    const isTap = e.timeStamp - pressed.current.at < TAP_MS;
    set(bench, isTap && !pressed.current.was);
  };
  return (
    <button
      type="button"
      className="held"
      aria-label={label}
      aria-pressed={on}
      title={title ?? 'Hold; a tap sets it until the next tap'}
      disabled={disabled}
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        pressed.current = { at: e.timeStamp, was: on };
        set(bench, true);
      }}
      onPointerUp={release}
      onPointerCancel={release}
      onKeyDown={(e) => {
        if (e.key === ' ' || e.key === 'Enter') set(bench, !on);
      }}
      onContextMenu={(e) => e.preventDefault()}
    >
      {icon}
      <span>{label}</span>
    </button>
  );
}
