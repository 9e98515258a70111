'use client';

import { useEffect, useState } from 'react';
import { lastSeen, type SeenPlace } from '@/bench/state/lastSeen';
import { quillMark } from '@/ui/signs';
import './opening.css';

/** While a drawing is on its way: its page as it was last seen here, in its place; else a word. The bench covers it. */
export function Opening({ id }: { id: string }) {
  const [seen, setSeen] = useState<{ url: string; place: SeenPlace } | null>(null);
  useEffect(() => {
    let url: string | null = null;
    let left = false;
    lastSeen(id).then(
      (found) => {
        if (!found || left) return;
        url = URL.createObjectURL(found.picture);
        setSeen({ url, place: found.place });
      },
      () => undefined,
    );
    return () => {
      left = true;
      if (url) URL.revokeObjectURL(url);
    };
  }, [id]);
  const place = seen?.place;
  return (
    <div className="opening" role="status" aria-label="Laying out the drawing">
      {seen && place ? (
        // eslint-disable-next-line @next/next/no-img-element -- a blob of this browser's own
        <img
          src={seen.url}
          alt=""
          style={{ left: place.left, top: place.top, width: place.width, height: place.height }}
        />
      ) : (
        <p>{quillMark} Laying out the drawing</p>
      )}
    </div>
  );
}
