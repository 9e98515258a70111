'use client';

import { useRef, type ReactNode } from 'react';

type Props = {
  title: string;
  disabled?: boolean;
  /** The hand has gone so many px to the right since it took hold; `done` when it lets go. */
  onScrub: (px: number, done: boolean) => void;
  /** The hand gave up. */
  onCancel: () => void;
  children: ReactNode;
};

/** A label that is dragged to and fro to change the figure beside it. */
export function Scrub({ title, disabled, onScrub, onCancel, children }: Props) {
  const from = useRef<number | null>(null);
  const end = (px: number | null): void => {
    if (from.current === null) return;
    from.current = null;
    if (px === null) onCancel();
    else onScrub(px, true);
  };
  return (
    <span
      className={disabled ? 'option-label' : 'option-label scrub'}
      title={title}
      onPointerDown={(e) => {
        if (disabled || e.button !== 0) return;
        from.current = e.clientX;
        e.currentTarget.setPointerCapture(e.pointerId);
      }}
      onPointerMove={(e) => from.current !== null && onScrub(e.clientX - from.current, false)}
      onPointerUp={(e) => end(from.current === null ? null : e.clientX - from.current)}
      onPointerCancel={() => end(null)}
    >
      {children}
    </span>
  );
}
