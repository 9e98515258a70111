'use client';

import { useLayoutEffect, useRef } from 'react';
import { keyOfLastSeen, putLastSeen } from '@/bench/state/lastSeen';
import { quillMark } from '@/ui/signs';
import './opening.css';

/**
 * While a drawing is on its way: its page as it was last seen here, in its place; else a word. The bench covers it. Where the page
 * comes as a whole, a script in it has put the picture there before any of this is run.
 */
export function Opening({ id }: { id: string }) {
  const seen = useRef<HTMLDivElement>(null);
  useLayoutEffect(() => {
    if (!seen.current!.hasChildNodes()) putLastSeen(seen.current!, keyOfLastSeen(id));
  }, [id]);
  return (
    <div className="opening" role="status" aria-label="Laying out the drawing">
      <div className="seen" ref={seen} suppressHydrationWarning dangerouslySetInnerHTML={{ __html: '' }} />
      <p>{quillMark} Laying out the drawing</p>
    </div>
  );
}
