import { readFileSync } from 'node:fs';
import { z } from 'zod';
import { slipSchema } from '../keeping/backups';
import { writeWhole } from '../keeping/durable';
import { elsewhereFile } from '../keeping/places';
import { log } from '../log';
import { configuredStore, isElsewhere, whereOf, type ObjectStore } from './objectStore';

const seenSchema = z.object({
  where: z.string(),
  /** When all that is kept here was there last. */
  at: z.number().nullable(),
  pictures: z.number(),
  /** The backups there. */
  backups: z.array(slipSchema.omit({ pictures: true })),
  bytes: z.number(),
  /** What went wrong the last time, in words. */
  trouble: z.string().nullable(),
});

/** What is kept elsewhere too, as it was last seen. */
export type Elsewhere = z.infer<typeof seenSchema>;

export function lastSeen(place: string): Elsewhere | null {
  if (!isElsewhere()) return null;
  const none = {
    where: whereOf(String(process.env.YELLOW_QUILL_STORE)),
    at: null,
    pictures: 0,
    backups: [],
    bytes: 0,
    trouble: null,
  };
  try {
    return seenSchema.parse(JSON.parse(readFileSync(elsewhereFile(place), 'utf8')));
  } catch {
    return none;
  }
}

export const noteSeen = (place: string, seen: Elsewhere): void =>
  writeWhole(elsewhereFile(place), JSON.stringify(seen));

/** A store that did not answer is let alone for so long by those who only pass by, ms. */
const AGAIN_MS = 60_000;
let failedAt = -AGAIN_MS;

/** Does something with the store in passing; null where none is named, or it does not answer: nobody is refused for that. */
export async function inPassing<T>(deed: (store: ObjectStore) => Promise<T>): Promise<T | null> {
  if (!isElsewhere() || performance.now() - failedAt < AGAIN_MS) return null;
  try {
    const store = await configuredStore();
    return store && (await deed(store));
  } catch (error) {
    failedAt = performance.now();
    log('warn', `The store elsewhere: ${wordsOf(error)}`);
    return null;
  }
}

/** It may be tried again at once. */
export const forgetFailure = (): void => void (failedAt = -AGAIN_MS);

/** What a store's error says, in a line. */
export function wordsOf(error: unknown): string {
  const { name, message, code } = error as { name?: string; message?: string; code?: string };
  const said = message && message !== 'UnknownError' ? message : (code ?? name ?? 'it does not answer');
  return said.replace(/\s+/g, ' ').slice(0, 300);
}
