import { and, asc, count, desc, eq, gt, lt, lte, max, sql } from 'drizzle-orm';
import type { Change, Drawing } from '@/core';
import { sizeOf } from '@/core/change/bounds';
import { packed, unpackedBare } from '@/core/formats/packed';
import { database, type Store } from './database';
import { prepared } from './prepared';
import { notFound } from './problem';
import { noneReadable, readBack, replayed, whole, type Damage, type Replayed, type State } from './replayed';
import { keepFirst, lastSize, oweNothing, oweSnapshot, packedSnapshot, snapshotAt, snapshotsUpTo } from './snapshots';
import { journal } from './tables';

/** So many drawings are remembered, of so many nodes together; a few whatever their size. */
const MOST_CACHED = 100;
const MOST_CACHED_NODES = 1_500_000;
const FEWEST_CACHED = 4;

/** Pages and routes are bundled each by themselves: what is remembered is the same for both. */
const kept = globalThis as typeof globalThis & { yellowQuillNewest?: Map<string, State>; yellowQuillLately?: Lately };
type Lately = { readonly id: string; readonly revision: number; readonly bytes: Promise<Uint8Array | null> };

/** The newest state of the drawings last used, so that a change costs no replay. Always what the disk holds. */
const newest = (kept.yellowQuillNewest ??= new Map<string, State>());

/** Remembers the newest state of a drawing, once the disk holds it. */
export function remember(id: string, state: State): void {
  newest.delete(id);
  newest.set(id, state);
  let nodes = 0;
  for (const { drawing } of newest.values()) nodes += sizeOf(drawing).nodes;
  for (const [old, { drawing }] of newest) {
    const isTooMuch = newest.size > MOST_CACHED || (newest.size > FEWEST_CACHED && nodes > MOST_CACHED_NODES);
    if (!isTooMuch) break;
    newest.delete(old);
    nodes -= sizeOf(drawing).nodes;
  }
}

export function forget(id: string): void {
  newest.delete(id);
  kept.yellowQuillLately = undefined;
  oweNothing(id);
}

/** The database is another by now. */
export function forgetAll(): void {
  for (const id of [...newest.keys()]) forget(id);
  kept.yellowQuillLately = undefined;
}

/** The newest state of a drawing, if it is remembered. */
export const remembered = (id: string): State | null => newest.get(id) ?? null;

/** Records the first state of a drawing: revision 0. */
export const beginJournal = (store: Store, id: string, drawing: Drawing): void => keepFirst(store, id, drawing);

/**
 * A drawing as it is, or as it was at a revision: the last snapshot before it, and the changes since.
 * @throws Problem 404 for a drawing or a revision that is not there, 409 where its journal is damaged before it.
 */
export function stateOf(id: string, revision?: number): State {
  return whole(readState(id, revision));
}

/** A drawing as it is, as far as it can be read. @throws Problem 404; 409 when nothing of it can be. */
export function readableState(id: string): State & { damaged?: Damage } {
  const { state, damage } = readState(id);
  return damage ? { ...state, damaged: damage } : state;
}

/**
 * The same, packed. Where the newest snapshot is of now it is handed on as it is kept, without a look into it; the drawing is
 * then read when there is time, for whoever changes it.
 */
export async function readableBytes(id: string): Promise<{ revision: number; bytes: Uint8Array; damaged?: Damage }> {
  const now = await packedNow(id);
  if (now) {
    setTimeout(() => newest.has(id) || quietly(() => readableState(id)), READ_LATER_MS).unref();
    return now;
  }
  const { drawing, ...state } = readableState(id);
  return { ...state, bytes: packed(drawing) };
}

/** The newest snapshot, packed, where it is of now; null elsewhere. @throws Problem 404. */
async function packedNow(id: string): Promise<{ revision: number; bytes: Uint8Array } | null> {
  const row = prepared().revision.get({ id });
  if (!row) throw notFound('drawing');
  const store = database();
  const bytes = await packedLately(id, row.revision);
  // A backup may have been put back meanwhile.
  return bytes && database() === store ? { revision: row.revision, bytes } : null;
}

/** A packed snapshot; the last one is at hand for a moment: a page that was told of its sight asks for all of it. */
function packedLately(id: string, revision: number): Promise<Uint8Array | null> {
  const last = kept.yellowQuillLately;
  if (last?.id === id && last.revision === revision) return last.bytes;
  const now: Lately = { id, revision, bytes: packedSnapshot(id, revision) };
  kept.yellowQuillLately = now;
  const letGo = (): void => void (kept.yellowQuillLately === now && (kept.yellowQuillLately = undefined));
  now.bytes.catch(letGo);
  setTimeout(letGo, READ_LATER_MS).unref();
  return now.bytes;
}

/**
 * A drawing's page and what lies under the work, where that can be told soon; its sheets may be missing. Null where much is to be
 * read first, or it cannot be: whoever opens it is told.
 */
export async function bareDrawing(id: string): Promise<Drawing | null> {
  try {
    const known = newest.get(id)?.drawing;
    if (known) return known;
    const now = await packedNow(id);
    if (now) return unpackedBare(now.bytes);
    return isSoonRead(id) ? stateOf(id).drawing : null;
  } catch {
    return null;
  }
}

/** So much is read before a page is answered: bytes of a snapshot and of the changes since, and so many of those. */
const SOON = { bytes: 400_000, changes: 400 };

function isSoonRead(id: string): boolean {
  const last = lastSize(id);
  const since = database()
    .select({ changes: count(), bytes: sql<number>`coalesce(sum(length(${journal.body})), 0)` })
    .from(journal)
    .where(and(eq(journal.drawingId, id), gt(journal.revision, last.revision)))
    .get()!;
  return since.changes <= SOON.changes && last.bytes + since.bytes <= SOON.bytes;
}

/** By then a bench has opened. */
const READ_LATER_MS = 2_000;

function quietly(run: () => unknown): void {
  try {
    run();
  } catch {
    // Whoever asks for it next is told.
  }
}

function readState(id: string, revision?: number): Replayed {
  const row = prepared().revision.get({ id });
  if (!row) throw notFound('drawing');
  const wanted = revision ?? row.revision;
  if (wanted > row.revision) throw notFound('revision');
  const cached = newest.get(id);
  if (cached?.revision === wanted) return { state: cached, damage: null };
  const start = lastSnapshot(id, wanted);
  const since = database()
    .select({ revision: journal.revision, body: journal.body, schema: journal.schema })
    .from(journal)
    .where(and(eq(journal.drawingId, id), gt(journal.revision, start.revision), lte(journal.revision, wanted)))
    .orderBy(asc(journal.revision))
    .all();
  const { state, damage } = replayed(start, since, wanted);
  if (damage) return { state, damage };
  if (wanted === row.revision) {
    remember(id, state);
    const bytes = since.reduce((n, c) => n + c.body.length, 0);
    oweNothing(id);
    oweSnapshot(id, { bytes, changes: since.length }, () => newest.get(id) ?? null);
  }
  return { state, damage: null };
}

/** The newest snapshot up to a revision that can be read. @throws Problem 409 where none can. */
function lastSnapshot(id: string, wanted: number): State {
  let why: string | undefined;
  for (const revision of snapshotsUpTo(id, wanted)) {
    try {
      return { revision, drawing: snapshotAt(id, revision) };
    } catch (error) {
      why = (error as Error).message;
    }
  }
  throw noneReadable(why);
}

/** The changes of a drawing before a revision, in their order, at most so many; as far back as they can be read. */
export function historyOf(id: string, before: number, most: number): { from: number; changes: Change[] } {
  const rows = database()
    .select({ body: journal.body, schema: journal.schema })
    .from(journal)
    .where(and(eq(journal.drawingId, id), lt(journal.revision, before)))
    .orderBy(desc(journal.revision))
    .limit(most)
    .all();
  const changes = readBack(rows);
  return { from: before - changes.length, changes };
}

/** The rows of a journal from a revision on, as they are kept, sound or not. */
export const rowsOf = (id: string, from: number): (typeof journal.$inferSelect)[] =>
  database()
    .select()
    .from(journal)
    .where(and(eq(journal.drawingId, id), gt(journal.revision, from - 1)))
    .orderBy(asc(journal.revision))
    .all();

/** The revision that a drawing had at a moment, ms since 1970; 0 before its first change. */
export const revisionAt = (id: string, at: number): number =>
  database()
    .select({ revision: max(journal.revision) })
    .from(journal)
    .where(and(eq(journal.drawingId, id), lte(journal.at, at)))
    .get()?.revision ?? 0;

/** The id of the change that made a revision; none where it is the first, or is missing. */
export const changeAt = (id: string, revision: number): string | undefined =>
  prepared().row.get({ id, revision })?.changeId;
