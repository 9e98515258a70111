import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import type { Change } from '@/core';
import { changeText, isLong } from '@/core/change/changeText';
import { SCHEMA_VERSION } from '@/core/drawing/schema';

/**
 * A change that this browser has made and the server has not yet acknowledged. `stuck` says why the server will not have
 * it: it is kept to be saved as a file, and not sent again. `schema` is the number that it was written under; the first
 * programs did not say.
 */
export type Pending = {
  drawing: string;
  base: number;
  /** The change that made `base`, where it was known. */
  after?: string | undefined;
  change: Change;
  stuck?: string;
  schema?: number;
};
export type KeptPending = { key: number; pending: Pending };

/** As it lies in the store: a long change as its text, for to copy very many nodes takes long. */
type Stored = Omit<Pending, 'change'> & { change?: Change; text?: string };

const stored = ({ change, ...p }: Pending): Stored =>
  isLong(change) ? { ...p, text: changeText(change) } : { ...p, change };

const unstored = ({ change, text, ...p }: Stored): Pending => ({
  ...p,
  change: change ?? (JSON.parse(text!) as Change),
});

/**
 * A change that the server has acknowledged, as it was sent. It is kept here for a while all the same: a server can go back,
 * to a backup or because its disk lost what it had.
 */
export type Sent = { drawing: string; revision: number; id: string; text: string; schema: number };
export type KeptSent = { key: number; sent: Sent };

/** A drawing as it was when it was last opened here, packed. */
export type Seen = { drawing: string; revision: number; bytes: ArrayBuffer; at: number };

/** A drawing that was put aside from another, packed: kept a while, for the server that has it can go back. */
export type AsideCopy = { aside: string; of: string; bytes: ArrayBuffer; at: number };

interface Shape extends DBSchema {
  pending: { key: number; value: Stored; indexes: { drawing: string } };
  sent: { key: number; value: Sent; indexes: { place: [string, number] } };
  seen: { key: string; value: Seen; indexes: { at: number } };
  asides: { key: string; value: AsideCopy; indexes: { of: string; at: number } };
}

/** A browser's store that has not answered after so long will not, ms. */
const PATIENCE = 4_000;

let opened: Promise<IDBPDatabase<Shape>> | undefined;

function database(): Promise<IDBPDatabase<Shape>> {
  opened ??= openDB<Shape>('yellow-quill', 3, {
    upgrade: (db, before, _, tx) => {
      if (before < 1) db.createObjectStore('pending', { autoIncrement: true }).createIndex('drawing', 'drawing');
      if (before < 2) {
        db.createObjectStore('sent', { autoIncrement: true }).createIndex('place', ['drawing', 'revision']);
        db.createObjectStore('seen', { keyPath: 'drawing' });
        db.createObjectStore('asides', { keyPath: 'aside' }).createIndex('of', 'of');
      }
      tx.objectStore('seen').createIndex('at', 'at');
      tx.objectStore('asides').createIndex('at', 'at');
    },
    // A page of a newer program wants to change the store.
    blocking: () => void opened?.then((db) => db.close()).finally(() => (opened = undefined)),
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

/**
 * Keeps a change in the browser until it is acknowledged; for good once it is asked to, though the page goes the next moment.
 * @throws where this browser keeps nothing.
 */
export async function keepPending(p: Omit<Pending, 'schema'>): Promise<number> {
  const tx = (await database()).transaction('pending', 'readwrite');
  const key = tx.store.add(stored({ ...p, schema: SCHEMA_VERSION }));
  tx.commit();
  await Promise.all([key, tx.done]);
  return key;
}

export async function dropPending(keys: readonly number[]): Promise<void> {
  const tx = (await database()).transaction('pending', 'readwrite');
  await Promise.all([...keys.map((k) => tx.store.delete(k)), tx.done]);
}

/** Marks changes as ones that the server will not have. */
export async function markStuck(kept: readonly KeptPending[], why: string): Promise<void> {
  const tx = (await database()).transaction('pending', 'readwrite');
  await Promise.all([...kept.map((k) => tx.store.put(stored({ ...k.pending, stuck: why }), k.key)), tx.done]);
}

/** Keeps changes that the server will not have at all, to be saved as a file. */
export async function keepStuck(
  drawing: string,
  base: number,
  changes: readonly Change[],
  stuck: string,
): Promise<void> {
  const tx = (await database()).transaction('pending', 'readwrite');
  const all = changes.map((change) => tx.store.add(stored({ drawing, base, change, stuck, schema: SCHEMA_VERSION })));
  await Promise.all([...all, tx.done]);
}

/** What is kept for a drawing, in the order in which it was made. @throws where this browser keeps nothing. */
export async function pendingOf(drawing: string): Promise<KeptPending[]> {
  const tx = (await database()).transaction('pending');
  const found: KeptPending[] = [];
  const own = tx.store.index('drawing').iterate(drawing);
  for await (const { primaryKey, value } of own) found.push({ key: primaryKey, pending: unstored(value) });
  return found;
}

/** So many acknowledged changes of a drawing are kept, of so many characters together; it is looked at now and then. */
const MOST_SENT = 2_000;
const MOST_SENT_CHARACTERS = 12_000_000;
const LOOK_EVERY = 50;
let unlooked = LOOK_EVERY;

/** Changes are acknowledged: they wait no longer, and are kept as what the server once had. */
export async function keepSent(keys: readonly number[], sent: readonly Sent[]): Promise<void> {
  const tx = (await database()).transaction(['pending', 'sent'], 'readwrite');
  const [waiting, had] = [tx.objectStore('pending'), tx.objectStore('sent')];
  await Promise.all([...keys.map((k) => waiting.delete(k)), ...sent.map((s) => had.add(s)), tx.done]);
  unlooked += sent.length;
  if (unlooked < LOOK_EVERY || sent.length === 0) return;
  unlooked = 0;
  await dropOld(sent[0].drawing);
}

async function dropOld(drawing: string): Promise<void> {
  const tx = (await database()).transaction('sent', 'readwrite');
  let [count, characters] = [0, 0];
  for await (const cursor of tx.store.index('place').iterate(allOf(drawing), 'prev')) {
    characters += cursor.value.text.length;
    if (++count > MOST_SENT || characters > MOST_SENT_CHARACTERS) await cursor.delete();
  }
  await tx.done;
}

const allOf = (drawing: string): IDBKeyRange => IDBKeyRange.bound([drawing, 0], [drawing, Infinity]);

/** The changes of a drawing that the server once had, by their revisions. @throws where this browser keeps nothing. */
export async function sentOf(drawing: string): Promise<KeptSent[]> {
  const tx = (await database()).transaction('sent');
  const found: KeptSent[] = [];
  for await (const { primaryKey, value } of tx.store.index('place').iterate(allOf(drawing)))
    found.push({ key: primaryKey, sent: value });
  return found;
}

/** The one of the newest revision. */
export async function lastSent(drawing: string): Promise<Sent | undefined> {
  const cursor = await (await database()).transaction('sent').store.index('place').openCursor(allOf(drawing), 'prev');
  return cursor?.value;
}

/** The id of the change that made a revision, where this browser sent it. */
export async function sentAt(drawing: string, revision: number): Promise<string | undefined> {
  const index = (await database()).transaction('sent').store.index('place');
  const cursor = await index.openCursor(IDBKeyRange.only([drawing, revision]), 'prev');
  return cursor?.value.id;
}

export async function dropSent(keys: readonly number[]): Promise<void> {
  const tx = (await database()).transaction('sent', 'readwrite');
  await Promise.all([...keys.map((k) => tx.store.delete(k)), tx.done]);
}

/** So many drawings are kept as they were seen, and as many that were put aside; each of no more bytes than this. */
const MOST_COPIES = 24;
const MOST_COPY_BYTES = 40_000_000;

export const keepSeen = (seen: Seen): Promise<void> => keepCopy('seen', seen);
export const seenOf = async (drawing: string): Promise<Seen | undefined> => (await database()).get('seen', drawing);

export const keepAsideCopy = (copy: AsideCopy): Promise<void> => keepCopy('asides', copy);
export const asidesOf = async (of: string): Promise<AsideCopy[]> =>
  (await database()).getAllFromIndex('asides', 'of', of);
export const dropAsideCopy = async (aside: string): Promise<void> => (await database()).delete('asides', aside);

/** Keeps a copy; the oldest go where there are too many. */
async function keepCopy<N extends 'seen' | 'asides'>(name: N, copy: Shape[N]['value']): Promise<void> {
  if (copy.bytes.byteLength > MOST_COPY_BYTES) return;
  const tx = (await database()).transaction<'seen' | 'asides', 'readwrite'>(name, 'readwrite');
  await tx.store.put(copy);
  // By their keys alone: the copies themselves are large.
  let tooMany = (await tx.store.count()) - MOST_COPIES;
  const oldest = tooMany > 0 ? await tx.store.index('at').openKeyCursor() : null;
  for (let cursor = oldest; cursor && tooMany > 0; tooMany--, cursor = await cursor.continue())
    await tx.store.delete(cursor.primaryKey);
  await tx.done;
}
