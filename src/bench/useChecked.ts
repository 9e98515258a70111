'use client';

import { createStore } from 'zustand/vanilla';
import type { Following } from '@/ui/following';
import { useBench } from './benchContext';
import { nothingChecked, type Checked } from './state/checked';
import { checkingOf } from './state/checkingOf';
import { useStored } from './useStored';

const none = createStore<Checked>()(() => nothingChecked);

/** A part of what the checks found, kept up with. */
export function useChecked<T>(select: (c: Checked) => T): T {
  const bench = useBench();
  return useStored(checkingOf(bench)?.store ?? none, select);
}

/** What the checks found, as it keeps up with a moving hand. */
export function useFollowingChecks<T>(of: (c: Checked) => T): Following<T> {
  const bench = useBench();
  const store = checkingOf(bench)?.store ?? none;
  return { subscribe: store.subscribe, now: () => of(store.getState()) };
}
