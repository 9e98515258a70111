import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import type { Change } from '@/core';

/** A change that this browser has made and the server has not yet acknowledged. */
export type Pending = { drawing: string; base: number; change: Change };

interface Shape extends DBSchema {
  pending: { key: number; value: Pending; indexes: { drawing: string } };
}

let opened: Promise<IDBPDatabase<Shape>> | undefined;

const database = (): Promise<IDBPDatabase<Shape>> =>
  (opened ??= openDB<Shape>('yellow-quill', 1, {
    upgrade: (db) => {
      db.createObjectStore('pending', { autoIncrement: true }).createIndex('drawing', 'drawing');
    },
  }));

/** Keeps a change in the browser until it is acknowledged. */
export const keepPending = async (p: Pending): Promise<number> => (await database()).add('pending', p);

export async function dropPending(keys: readonly number[]): Promise<void> {
  const tx = (await database()).transaction('pending', 'readwrite');
  await Promise.all([...keys.map((k) => tx.store.delete(k)), tx.done]);
}

/** What is kept for a drawing, in the order in which it was made. */
export async function pendingOf(drawing: string): Promise<{ key: number; pending: Pending }[]> {
  const tx = (await database()).transaction('pending');
  const found: { key: number; pending: Pending }[] = [];
  for (let cursor = await tx.store.openCursor(); cursor; cursor = await cursor.continue()) {
    if (cursor.value.drawing === drawing) found.push({ key: cursor.primaryKey, pending: cursor.value });
  }
  return found;
}
