'use client';

import { useRef, type ReactNode } from 'react';
import { useBench, useBenchState } from '../benchContext';
import type { Bench, BenchState } from '../state/store';

/** A press shorter than this is a tap. */
const TAP_MS = 260;

/** Something of the bench that is on while it is held. */
export type Holding = { isOn: (s: BenchState) => boolean; set: (bench: Bench, on: boolean) => void };

/** What is shown for as long as it is held. */
export const shown = (key: 'peek' | 'lifted' | 'uncorrected'): Holding => ({
  isOn: (s) => s[key],
  set: (bench, on) => bench.setState({ [key]: on }),
});

type Props = Holding & {
  label: string;
  title?: string;
  className?: string;
  disabled?: boolean;
  /** A tap sets it until the next tap. */
  latches?: boolean;
  children: ReactNode;
};

/** Holds something for as long as it is pressed; by keys it is switched on and off. */
export function HoldButton({ label, title, className, disabled, latches = false, isOn, set, children }: Props) {
  const bench = useBench();
  const on = useBenchState(isOn);
  const pressed = useRef({ at: 0, was: false });
  const release = (e: React.PointerEvent): void => {
    if (!e.currentTarget.hasPointerCapture(e.pointerId)) return;
    const isTap = e.timeStamp - pressed.current.at < TAP_MS;
    set(bench, latches && isTap && !pressed.current.was);
  };
  return (
    <button
      type="button"
      className={className}
      aria-label={label}
      aria-pressed={on}
      title={title}
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
      {children}
    </button>
  );
}
