'use client';

import { useEffect, useEffectEvent, useReducer } from 'react';
import type { StoreApi } from 'zustand';

/**
 * A part of a store, as it is now; what uses it is drawn anew when that part changes. At once where a press or a key
 * changed it; else in a task of its own (React's own way to follow a store draws within the change itself), so that what
 * a worker brings, or a drag, does not hold up the hand for longer.
 */
export function useStored<S, T>(store: Pick<StoreApi<S>, 'getState' | 'subscribe'>, part: (s: S) => T): T {
  const [, drawAnew] = useReducer((n: number) => n + 1, 0);
  const shown = part(store.getState());
  const look = useEffectEvent(() => {
    if (!holds(() => Object.is(part(store.getState()), shown))) drawAnew();
  });
  useEffect(() => {
    look();
    return store.subscribe(() => look());
  }, [store]);
  return shown;
}

/** Whether something holds; not where that cannot be told: it fails once more when it is drawn, and there it fails alone. */
function holds(is: () => boolean): boolean {
  try {
    return is();
  } catch {
    return false;
  }
}
