import { useEffect, useRef, useState } from 'react';
import { useBench } from '../../benchContext';
import type { Pulling } from '../../state/corrections';

type Begin<T> = (onProgress: (share: number) => void) => Promise<Pulling<T>>;

/**
 * Something pulled from a picture for a card: how much of it is done (null while nothing is pulled), and what calls it off, as
 * leaving the card does. `what` cannot be pulled, is said where that fails.
 */
export function usePulling<T>(what: string) {
  const bench = useBench();
  const [share, setShare] = useState<number | null>(null);
  const job = useRef<Pulling<T> | null>(null);
  const isLeft = useRef(false);
  useEffect(() => {
    isLeft.current = false;
    return () => {
      isLeft.current = true;
      job.current?.stop();
    };
  }, []);

  /** What was pulled; null where it was called off, or failed. */
  const pull = async (begin: Begin<T>): Promise<T | null> => {
    setShare(0);
    try {
      job.current = await begin((done) => job.current && setShare(done));
      if (isLeft.current) job.current.stop();
      return await job.current.result;
    } catch (error) {
      if ((error as Error).message !== 'called off')
        bench.tell(`${what} could not be pulled: ${(error as Error).message}`, undefined, 'warning');
      return null;
    } finally {
      job.current = null;
      setShare(null);
    }
  };
  return { share, pull, stop: () => job.current?.stop() };
}
