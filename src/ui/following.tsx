'use client';

import { useEffect, useEffectEvent, useLayoutEffect, useRef } from 'react';
import { alone } from './alone';

/** A value that may change with every move of a hand. */
export type Following<T> = { subscribe(listener: () => void): () => void; now(): T };

const waiting = new Set<() => void>();

/** Does it with the next frame, all that wait together: what is written in one go is laid out once. */
function withFrame(task: () => void): void {
  if (waiting.size === 0)
    requestAnimationFrame(() => {
      const tasks = [...waiting];
      waiting.clear();
      tasks.forEach(alone);
    });
  waiting.add(task);
}

/**
 * Tells of a value in each frame in which it may have changed, and whenever what uses it is drawn: for figures that keep
 * up with a hand, which are written straight into the page. Drawing their components anew in each frame costs too much.
 */
export function useFollowing<T>(following: Following<T> | undefined, tell: (value: T) => void): void {
  const now = useEffectEvent(() => following && tell(following.now()));
  useLayoutEffect(() => {
    now();
  });
  const subscribe = following?.subscribe;
  useEffect(() => {
    if (!subscribe) return;
    const tellNow = (): void => now();
    const stop = subscribe(() => withFrame(tellNow));
    return () => {
      stop();
      waiting.delete(tellNow);
    };
  }, [subscribe]);
}

/** Writes a text where none or another is. An element that is written to has no content of React's. */
export function write(element: Element | null | undefined, text: string): void {
  if (!element || element.textContent === text) return;
  if (element.firstChild) element.firstChild.nodeValue = text;
  else element.textContent = text;
}

/** A short figure that keeps up with a hand, at the right end of a row: it has its room, so that nothing else is laid out with it. */
export function Written({ text }: { text: Following<string> }) {
  const element = useRef<HTMLElement>(null);
  useFollowing(text, (t) => write(element.current, t));
  return <b ref={element} className="written" />;
}
