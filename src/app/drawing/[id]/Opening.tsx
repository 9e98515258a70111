'use client';

import { useLayoutEffect, useRef } from 'react';
import { showSight } from '@/bench/state/firstSight';
import type { Sight } from '@/core/scene/sight';
import { quillMark } from '@/ui/signs';
import './opening.css';

/**
 * While a drawing is on its way: its page as it was last seen here, else its paper and the pictures under the work, in their place,
 * and the lines once they are painted; where nothing is known of it a word. The bench covers it. Where the page comes as a whole,
 * scripts in it have put all that where it belongs before any of this is run.
 */
export function Opening({ id, sight }: { id: string; sight: Sight | null }) {
  const cover = useRef<HTMLDivElement>(null);
  useLayoutEffect(() => void showSight(cover.current!, id), [id]);
  return (
    <div className="opening" role="status" aria-label="Laying out the drawing" ref={cover}>
      <div className="seen" suppressHydrationWarning dangerouslySetInnerHTML={{ __html: '' }} />
      {sight && <Paper {...sight} />}
      <p>{quillMark} Laying out the drawing</p>
    </div>
  );
}

function Paper({ page: { width, height, ground }, pictures }: Sight) {
  return (
    <div className="felt" suppressHydrationWarning>
      <div className="paper" style={{ width, height, background: ground ?? undefined }} suppressHydrationWarning>
        {pictures.map(({ picture, at, width: w, height: h, turn, flipX, flipY, opacity, blend }, i) => (
          // eslint-disable-next-line @next/next/no-img-element -- the server has it in this size
          <img
            key={i}
            src={`/api/pictures/${picture}?size=quarter`}
            alt=""
            style={{
              left: at.x,
              top: at.y,
              width: w,
              height: h,
              transform: `rotate(${turn}deg) scale(${flipX ? -1 : 1}, ${flipY ? -1 : 1})`,
              opacity,
              mixBlendMode: blend,
            }}
          />
        ))}
      </div>
      <div className="lines" suppressHydrationWarning dangerouslySetInnerHTML={{ __html: '' }} />
    </div>
  );
}
