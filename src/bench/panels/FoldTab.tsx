'use client';

import { LeftOutlined, RightOutlined } from '@ant-design/icons';
import { useRef } from 'react';
import { usePreference } from '../benchContext';
import { preferIn } from '../state/preferences';

/** A swipe is at least so long, CSS px. */
const SWIPE = 24;
const names = { left: 'sheets and references', right: 'figures and settings' };

/** The tab at the page's edge by which a panel is folded away, and comes out again: by a tap or a swipe. */
export function FoldTab({ side }: { side: 'left' | 'right' }) {
  const isFolded = usePreference('folded')[side];
  const swipe = useRef({ from: 0, done: false });
  const fold = (on: boolean): void => preferIn('folded', { [side]: on });
  const outwards = side === 'left' ? -1 : 1;
  const Arrow = (side === 'left') === isFolded ? RightOutlined : LeftOutlined;
  return (
    <button
      type="button"
      className={`fold-tab at-${side}`}
      aria-expanded={!isFolded}
      aria-label={`${isFolded ? 'Show' : 'Fold away'} ${names[side]}`}
      title={`${isFolded ? 'Show' : 'Fold away'} ${names[side]}`}
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        swipe.current = { from: e.clientX, done: false };
      }}
      onPointerUp={(e) => {
        const by = (e.clientX - swipe.current.from) * outwards;
        if (Math.abs(by) < SWIPE) return;
        swipe.current.done = true;
        fold(by > 0);
      }}
      onClick={(e) => {
        if (e.detail > 0) e.currentTarget.blur();
        if (!swipe.current.done) fold(!isFolded);
        swipe.current.done = false;
      }}
    >
      <Arrow />
    </button>
  );
}
