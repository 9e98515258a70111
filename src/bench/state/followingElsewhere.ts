import type { Drawing } from '@/core';
import { allFlats } from '@/core/edits/flats';
import type { FollowersWorker } from '@/workers/followers.worker';
import { whenIdle } from '@/ui/whenIdle';
import { LazyWorker } from './lazyWorker';
import type { Bench } from './store';

/** Has a worker hold the drawing, once it has flats, and work out there what follows from what a hand shows. Gives what ends it. */
export function startFollowing(bench: Bench): () => void {
  const worker = new LazyWorker<FollowersWorker>(
    () => new Worker(new URL('../../workers/followers.worker.ts', import.meta.url), { type: 'module' }),
    'the worker in which flats follow',
    () => (held = null),
  );
  /** The drawing that it holds. */
  let held: Drawing | null = null;
  let callOff = (): void => undefined;
  const hold = (): void => {
    const { drawing, preview } = bench.getState();
    // A hand that is at work goes first.
    if (preview) callOff = whenIdle(hold);
    else if (held !== drawing && allFlats(drawing).length > 0) {
      held = drawing;
      void worker.ask((api) => api.load(drawing)).catch(() => (held = null));
    }
  };
  const soon = (): void => {
    callOff();
    callOff = whenIdle(hold);
  };
  const stop = [
    bench.onChange(({ change, before, after }) => {
      if (held !== before) return;
      held = after;
      void worker.ask((api) => api.change(change)).catch(() => (held = null));
    }),
    // One that has come from elsewhere, or has its first flats, is not held.
    bench.subscribe((s, before) => s.drawing !== before.drawing && s.drawing !== held && soon()),
  ];
  soon();
  bench.followElsewhere((d, edit) => (held === d ? worker.ask((api) => api.following(edit)) : null));
  return () => {
    callOff();
    bench.followElsewhere(null);
    stop.forEach((f) => f());
    worker.end();
  };
}
