'use client';

import { useStore } from 'zustand';
import { createStore } from 'zustand/vanilla';
import { useBench } from './benchContext';
import { nothingChecked, type Checked } from './state/checked';
import { checkingOf } from './state/checking';

const none = createStore<Checked>()(() => nothingChecked);

/** A part of what the checks found, kept up with. */
export function useChecked<T>(select: (c: Checked) => T): T {
  const bench = useBench();
  return useStore(checkingOf(bench)?.store ?? none, select);
}
