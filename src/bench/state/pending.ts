import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import type { Change } from '@/core';
import { SCHEMA_VERSION } from '@/core/drawing/schema';

/**
 * A change that this browser has made and the server has not yet acknowledged. `stuck` says why the server will not have
 * it: it is kept to be saved as a file, and not sent again. `schema` is the number that it was written under; the first
 * programs did not say.
 */
export type Pending = { drawing: string; base: number; change: Change; stuck?: string; schema?: number };
export type KeptPending = { key: number; pending: Pending };

interface Shape extends DBSchema {
  pending: { key: number; value: Pending; indexes: { drawing: string } };
}

/** A browser's store that has not answered after so long will not, ms. */
const PATIENCE = 4_000;

let opened: Promise<IDBPDatabase<Shape>> | undefined;

function database(): Promise<IDBPDatabase<Shape>> {
  opened ??= openDB<Shape>('yellow-quill', 1, {
    upgrade: (db) => {
      db.createObjectStore('pending', { autoIncrement: true }).createIndex('drawing', 'drawing');
    },
    terminated: () => (opened = undefined),
  });
  const known = opened;
  known.catch(() => opened === known && (opened = undefined));
  return answering(known);
}

/** @throws Error when the store does not answer. */
function answering<T>(asked: Promise<T>): Promise<T> {
  let timer: ReturnType<typeof setTimeout>;
  const late = new Promise<never>((_, reject) => {
    timer = setTimeout(() => reject(new Error('The browser’s own store does not answer.')), PATIENCE);
  });
  return Promise.race([asked, late]).finally(() => clearTimeout(timer));
}

/** Keeps a change in the browser until it is acknowledged. @throws where this browser keeps nothing. */
export const keepPending = async (p: Omit<Pending, 'schema'>): Promise<number> =>
  (await database()).add('pending', { ...p, schema: SCHEMA_VERSION });

export async function dropPending(keys: readonly number[]): Promise<void> {
  const tx = (await database()).transaction('pending', 'readwrite');
  await Promise.all([...keys.map((k) => tx.store.delete(k)), tx.done]);
}

/** Marks changes as ones that the server will not have. */
export async function markStuck(kept: readonly KeptPending[], why: string): Promise<void> {
  const tx = (await database()).transaction('pending', 'readwrite');
  await Promise.all([...kept.map((k) => tx.store.put({ ...k.pending, stuck: why }, k.key)), tx.done]);
}

/** What is kept for a drawing, in the order in which it was made. @throws where this browser keeps nothing. */
export async function pendingOf(drawing: string): Promise<KeptPending[]> {
  const tx = (await database()).transaction('pending');
  const found: KeptPending[] = [];
  const own = tx.store.index('drawing').iterate(drawing);
  for await (const { primaryKey, value } of own) found.push({ key: primaryKey, pending: value });
  return found;
}
