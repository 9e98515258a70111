import type { Drawing } from '@/core';
import { boundsOf, type PlacedArea } from '@/core/edits/flats';
import type { AreasWorker } from '@/workers/areas.worker';
import { LazyWorker } from './lazyWorker';

const worker = new LazyWorker<AreasWorker>(
  () => new Worker(new URL('../../workers/areas.worker.ts', import.meta.url), { type: 'module' }),
  'the worker that finds areas',
);

/** All areas between the lines of a drawing that are seen. A worker that fails rejects. */
export const areasOf = (d: Drawing, gap: number): Promise<PlacedArea[]> =>
  worker.ask((api) =>
    api.areas(
      boundsOf(d).map((b) => b.run),
      gap,
    ),
  );
