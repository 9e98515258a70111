import type { readSvg } from '@/core';
import type { ReadSvgWorker } from '@/workers/readSvg.worker';
import { LazyWorker } from './lazyWorker';

const worker = new LazyWorker<ReadSvgWorker>(
  () => new Worker(new URL('../../workers/readSvg.worker.ts', import.meta.url), { type: 'module' }),
  'the worker that reads SVG',
);

/** An SVG's text as a drawing, read beside what the hand does. Rejects with words for a person. */
export const readingSvg = (text: string): Promise<ReturnType<typeof readSvg>> => worker.ask((api) => api.read(text));

/** Starts the worker, so that it is there when something is asked of it soon. */
export const readyToRead = (): void => void worker.start();
