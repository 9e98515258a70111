import type { Point } from '@/core';
import type { Clipping } from '@/core/formats/keptClipping';
import type { ClippingWorker } from '@/workers/clipping.worker';
import { LazyWorker } from './lazyWorker';

const worker = new LazyWorker<ClippingWorker>(
  () => new Worker(new URL('../../workers/clipping.worker.ts', import.meta.url), { type: 'module' }),
  'the worker that reads SVG',
);

/** What the SVG on the clipboard stands for, read beside what the hand does. Rejects with words for a person. */
export const readingClipping = (text: string, kept: string | null, at: Point | null): Promise<Clipping> =>
  worker.ask((api) => api.read(text, kept, at));

/** Starts the worker, so that it is there when something is asked of it soon. */
export const readyToRead = (): void => void worker.start();
