'use client';

import { useState, useSyncExternalStore } from 'react';
import { lastSeen } from '@/bench/state/lastSeen';
import { quillMark } from '@/ui/signs';
import './opening.css';

const never = () => () => undefined;

function readOnce(id: string): () => ReturnType<typeof lastSeen> {
  let kept: ReturnType<typeof lastSeen> | undefined;
  return () => (kept === undefined ? (kept = lastSeen(id)) : kept);
}

/** While a drawing is on its way: its page as it was last seen here, in its place; else a word. The bench covers it. */
export function Opening({ id }: { id: string }) {
  // What this browser keeps is not known where the page's HTML is made.
  const [read] = useState(() => readOnce(id));
  const seen = useSyncExternalStore(never, read, () => null);
  if (!seen)
    return (
      <div className="opening" role="status" aria-label="Laying out the drawing">
        <p>{quillMark} Laying out the drawing</p>
      </div>
    );
  const { left, top, width, height } = seen.place;
  return (
    <div className="opening" role="status" aria-label="Laying out the drawing">
      {/* eslint-disable-next-line @next/next/no-img-element -- kept by this browser itself */}
      <img src={seen.src} alt="" style={{ left, top, width, height }} />
    </div>
  );
}
