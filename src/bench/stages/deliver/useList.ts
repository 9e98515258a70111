import { useCallback, useEffect, useEffectEvent, useRef, useState } from 'react';

const LOOK_MS = 500;

/**
 * A list that the server keeps, read again after `look`, and while something of it is under way. Null until it is known; `key`
 * tells what it is of.
 */
export function useList<T>(
  key: string,
  read: () => Promise<readonly T[]>,
  isUnderWay: (entry: T) => boolean,
): { list: readonly T[] | null; look: () => void } {
  const [list, setList] = useState<readonly T[] | null>(null);
  const [asked, setAsked] = useState(0);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const readNow = useEffectEvent(read);
  const isOpen = useEffectEvent(isUnderWay);
  useEffect(() => {
    let isGone = false;
    const go = async (): Promise<void> => {
      const found = await readNow().catch(() => null);
      if (isGone) return;
      if (found) setList(found);
      if (!found || found.some((entry) => isOpen(entry))) timer.current = setTimeout(() => void go(), LOOK_MS);
    };
    void go();
    return () => {
      isGone = true;
      clearTimeout(timer.current);
    };
  }, [key, asked]);
  return { list, look: useCallback(() => setAsked((n) => n + 1), []) };
}
