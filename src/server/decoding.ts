import path from 'node:path';
import type { Pool } from 'workerpool';
import { Problem } from './problem';

/** What a picture is, once all of it was decoded; or why it is not taken. */
export type Taken =
  | { refused: 'kind' | 'broken' }
  | { refused: 'pixels'; pixels: number }
  | { refused?: undefined; format: string; width: number; height: number; density?: number };

/** Whether it takes up more than it should while it rests. */
type Rest = { readonly isSwollen: boolean };

const MOST_MS = 30_000;
/** So many pictures may wait for their turn. */
const MOST_WAITING = 60;

const kept = globalThis as typeof globalThis & { yellowQuillDecoder?: Promise<Pool> | undefined };
const script = (): string => path.join(/*turbopackIgnore: true*/ process.cwd(), 'src', 'server', 'pictureDecoder.mjs');

async function begun(): Promise<Pool> {
  const { pool } = await import('workerpool');
  return pool(script(), { workerType: 'process', maxWorkers: 1, maxQueueSize: MOST_WAITING });
}

/**
 * Decodes a picture in a process of its own: one at a time, with bounds on time and memory; what was decoded lies in `to`,
 * upright, no longer than `longest`. @throws Problem 413 for what takes too long or too much memory, 503 when too many wait.
 */
export const decoded = (file: string, to: string, longest: number, mostPixels: number): Promise<Taken> =>
  asked<Taken>('take', [file, to, longest, mostPixels]);

/** Whether a picture decodes without a fault, so that anyone can be given its file. @throws Problem as for decoding. */
export const isClean = async (file: string): Promise<boolean> =>
  (await asked<{ isClean: boolean }>('isClean', [file])).isClean;

async function asked<T>(what: 'take' | 'isClean', args: unknown[]): Promise<T> {
  const decoder = await (kept.yellowQuillDecoder ??= begun());
  try {
    const answer = (await decoder.exec(what, args).timeout(MOST_MS)) as T & Rest;
    const { pendingTasks, activeTasks } = decoder.stats();
    if (answer.isSwollen && pendingTasks + activeTasks === 0) void endDecoding();
    return answer;
  } catch (error) {
    if (/queue size/i.test((error as Error).message))
      throw new Problem(503, 'busy', 'Too many pictures are being taken in just now. Try again in a moment.');
    throw new Problem(
      413,
      'too-much',
      'The picture takes too long or too much memory to read. Nothing was brought in; save it smaller and try again.',
    );
  }
}

/** Ends the process; the next picture begins another. */
export async function endDecoding(): Promise<void> {
  const ending = kept.yellowQuillDecoder;
  kept.yellowQuillDecoder = undefined;
  const decoder = await ending?.catch(() => undefined);
  await decoder?.terminate();
}
