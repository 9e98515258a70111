import { whenIdle } from './whenIdle';

const DEEDS = ['pointerdown', 'pointermove', 'wheel', 'keydown'] as const;

/**
 * Does something once: after so long (`after`, ms) or later, when nobody has done anything for a while (`quiet`, ms) and the page
 * has nothing else to do. Gives what calls it off.
 */
export function whenQuiet({ after, quiet }: { after: number; quiet: number }, run: () => void): () => void {
  const listening = new AbortController();
  let last = performance.now();
  for (const type of DEEDS)
    window.addEventListener(type, () => (last = performance.now()), {
      capture: true,
      passive: true,
      signal: listening.signal,
    });
  const look = (): void => {
    const left = last + quiet - performance.now();
    const timer = setTimeout(left > 0 ? look : go, Math.max(0, left));
    stop = () => clearTimeout(timer);
  };
  const go = (): void => {
    listening.abort();
    stop = whenIdle(run);
  };
  const first = setTimeout(look, after);
  let stop = (): void => clearTimeout(first);
  return () => {
    listening.abort();
    stop();
  };
}
