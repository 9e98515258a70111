'use client';

import { createContext, startTransition, useContext, useEffect, useEffectEvent, useState } from 'react';
import type { Following } from '@/ui/following';
import { whenDone, whenIdle } from '@/ui/whenIdle';
import { preferences, type Preferences } from './state/preferences';
import type { Bench, BenchState } from './state/store';
import { useStored } from './useStored';

const Context = createContext<Bench | null>(null);
export const BenchProvider = Context.Provider;

/** The bench that the panels stand around. */
export function useBench(): Bench {
  const bench = useContext(Context);
  if (!bench) throw new Error('there is no bench around this');
  return bench;
}

/** A part of the bench's state; the panel is drawn anew when that part changes. */
export const useBenchState = <T,>(part: (s: BenchState) => T): T => useStored(useBench(), part);

/**
 * The same for panels that tell of the whole drawing: they are drawn anew when there is time, a little at a time, so that
 * what they tell never holds up a hand. Long lists wait until the page is `idle`, and are drawn by themselves then.
 */
export function useBenchStateLater<T>(part: (s: BenchState) => T, when: 'soon' | 'idle' = 'soon'): T {
  const bench = useBench();
  const [shown, show] = useState(() => part(bench.getState()));
  const look = useEffectEvent(() => {
    let next: () => T;
    try {
      const now = part(bench.getState());
      if (now === shown) return;
      next = () => now;
    } catch (error) {
      // It is thrown where it is drawn: there it fails alone.
      next = () => {
        throw error;
      };
    }
    startTransition(() => show(next));
  });
  useEffect(() => {
    look();
    const then = when === 'soon' ? whenDone : whenIdle;
    let waiting: (() => void) | null = null;
    const stop = bench.subscribe(() => {
      waiting ??= then(() => {
        waiting = null;
        look();
      });
    });
    return () => {
      stop();
      waiting?.();
    };
  }, [bench, when]);
  return shown;
}

/** A value of the bench's state that keeps up with a moving hand. */
export function useFollowingBench<T>(of: (s: BenchState) => T): Following<T> {
  const bench = useBench();
  return { subscribe: bench.subscribe, now: () => of(bench.getState()) };
}

/** One of the things that a person has set for their own hand. */
export const usePreference = <K extends keyof Preferences>(key: K): Preferences[K] =>
  useStored(preferences, (p) => p[key]);
