import type { Point } from '@/core';
import { linesIn } from '@/core/drawing/items';
import { factsOf } from '@/core/drawing/runFacts';
import type { Clipping } from '@/core/formats/keptClipping';
import { unpackedItems } from '@/core/formats/packed';
import type { ClippingWorker } from '@/workers/clipping.worker';
import { LazyWorker } from './lazyWorker';

const worker = new LazyWorker<ClippingWorker>(
  () => new Worker(new URL('../../workers/clipping.worker.ts', import.meta.url), { type: 'module' }),
  'the worker that reads SVG',
);

/** What the SVG on the clipboard stands for, read beside what the hand does. Rejects with words for a person. */
export async function readingClipping(text: string, kept: string | null, at: Point | null): Promise<Clipping> {
  const { bytes, ...rest } = await worker.ask((api) => api.read(text, kept, at));
  const items = unpackedItems(bytes);
  // They were laid on it there.
  for (const { runs } of linesIn(items)) factsOf(runs).onGrid = true;
  return { ...rest, items };
}

/** Starts the worker, so that it is there when something is asked of it soon. */
export const readyToRead = (): void => void worker.start();

let hasPractised = false;

/** Has it practise, once: what is pasted first is not to take several times as long as what is pasted later. */
export function practiseReading(): void {
  if (hasPractised) return;
  hasPractised = true;
  void worker.ask((api) => api.warm()).catch(() => undefined);
}
