'use client';

import { LeftOutlined, RightOutlined } from '@ant-design/icons';
import { useRef } from 'react';
import { usePreference } from '../benchContext';
import { pointerKind } from '../state/pointerKind';
import { preferIn } from '../state/preferences';
import { useStored } from '../useStored';

/** A swipe is at least so long, CSS px. */
const SWIPE = 24;
const names = { left: 'sheets and references', right: 'figures and settings' };

/**
 * The tab at the page's edge by which a panel is folded away, and comes out again: by a tap or a swipe; by fingers also by a
 * swipe from the edge, wherever along it.
 */
export function FoldTab({ side }: { side: 'left' | 'right' }) {
  const isFolded = usePreference('folded')[side];
  const isCoarse = useStored(pointerKind, (s) => s.kind === 'coarse');
  const from = useRef(0);
  const fold = (on: boolean): void => preferIn('folded', { [side]: on });
  const outwards = side === 'left' ? -1 : 1;
  const Arrow = (side === 'left') === isFolded ? RightOutlined : LeftOutlined;
  const tab = (
    <button
      type="button"
      className={`fold-tab at-${side}`}
      aria-expanded={!isFolded}
      aria-label={`${isFolded ? 'Show' : 'Fold away'} ${names[side]}`}
      title={`${isFolded ? 'Show' : 'Fold away'} ${names[side]}`}
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        from.current = e.clientX;
      }}
      onPointerUp={(e) => {
        const by = (e.clientX - from.current) * outwards;
        fold(Math.abs(by) < SWIPE ? !isFolded : by > 0);
        e.currentTarget.blur();
      }}
      onClick={(e) => {
        // By keys there is only the click; of a tap after a quick drag a browser may make none.
        if (e.detail === 0) fold(!isFolded);
      }}
    >
      <Arrow />
    </button>
  );
  if (!isFolded || !isCoarse) return tab;
  return (
    <>
      <div
        className={`edge-strip at-${side}`}
        onPointerDown={(e) => {
          e.currentTarget.setPointerCapture(e.pointerId);
          from.current = e.clientX;
        }}
        onPointerMove={(e) => {
          const inwards = (from.current - e.clientX) * outwards;
          if (e.currentTarget.hasPointerCapture(e.pointerId) && inwards > SWIPE) fold(false);
        }}
      />
      {tab}
    </>
  );
}
