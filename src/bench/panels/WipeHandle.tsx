'use client';

import { useEffect } from 'react';
import { useBench, useBenchState } from '../benchContext';

const BLINK_MS = 700;

/** The handle between the reference and the lines when they are wiped, and the clock when they blink. */
export function WipeHandle() {
  const bench = useBench();
  const compare = useBenchState((s) => s.compare);
  const isBlinking = compare?.kind === 'blink';
  useEffect(() => {
    if (!isBlinking) return;
    const timer = setInterval(() => bench.setState((s) => ({ lifted: !s.lifted })), BLINK_MS);
    return () => {
      clearInterval(timer);
      bench.setState({ lifted: false });
    };
  }, [bench, isBlinking]);
  if (compare?.kind !== 'wipe') return null;
  const set = (at: number): void =>
    bench.setState({ compare: { kind: 'wipe', at: Math.min(0.98, Math.max(0.02, at)) } });
  return (
    <div
      className="wipe"
      role="slider"
      tabIndex={0}
      aria-label="Between the reference and the lines"
      aria-valuemin={0}
      aria-valuemax={100}
      aria-valuenow={Math.round(compare.at * 100)}
      style={{ left: `${compare.at * 100}%` }}
      onKeyDown={(e) => {
        if (e.key !== 'ArrowLeft' && e.key !== 'ArrowRight') return;
        e.preventDefault();
        e.stopPropagation();
        set(compare.at + (e.key === 'ArrowLeft' ? -0.02 : 0.02));
      }}
      onPointerDown={(e) => e.currentTarget.setPointerCapture(e.pointerId)}
      onPointerMove={(e) => {
        if (!e.currentTarget.hasPointerCapture(e.pointerId)) return;
        const box = e.currentTarget.parentElement!.getBoundingClientRect();
        set((e.clientX - box.left) / box.width);
      }}
    >
      <span>
        reference <b>│</b> lines
      </span>
    </div>
  );
}
