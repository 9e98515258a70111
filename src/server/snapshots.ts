import { and, asc, desc, eq, inArray, lte, sql } from 'drizzle-orm';
import type { Drawing } from '@/core';
import { database, type Store } from './database';
import { logError } from './log';
import { prepared } from './prepared';
import { bodyOf, bodySoon, drawingIn, isOf, packedIn } from './snapshotBody';
import { snapshots } from './tables';

/**
 * Whole drawings at some revisions, so that not all of the journal need be replayed. They are taken beside the saving, never
 * in its way: when one is missing a drawing only takes longer to open.
 */

/** A snapshot is due when the changes since the last come to as many bytes as it, but to no fewer than this... */
const LEAST_BYTES = 256 * 1024;
/** ... or when there are so many of them. */
const MOST_CHANGES = 1_000;
/** So long after the last change it is taken: while a hand is at work, saving goes first. */
const REST_MS = 1_500;

/** Keeps the first state of a drawing. */
export function keepFirst(store: Store, id: string, drawing: Drawing): void {
  store
    .insert(snapshots)
    .values({ drawingId: id, revision: 0, body: bodyOf(drawing) })
    .run();
}

/** The revisions that there are snapshots of, up to one, the newest first. */
export const snapshotsUpTo = (id: string, revision: number): number[] =>
  database()
    .select({ revision: snapshots.revision })
    .from(snapshots)
    .where(and(eq(snapshots.drawingId, id), lte(snapshots.revision, revision)))
    .orderBy(desc(snapshots.revision))
    .all()
    .map((s) => s.revision);

/** How many bytes the newest snapshot of a drawing takes, and of which revision it is; none where there is none. */
export const lastSize = (id: string): { revision: number; bytes: number } =>
  database()
    .select({ revision: snapshots.revision, bytes: sql<number>`length(${snapshots.body})` })
    .from(snapshots)
    .where(eq(snapshots.drawingId, id))
    .orderBy(desc(snapshots.revision))
    .limit(1)
    .get() ?? { revision: 0, bytes: 0 };

/** The drawing in a snapshot. @throws whatever a damaged one brings about, and for one of another past. */
export function snapshotAt(id: string, revision: number): Drawing {
  const body = keptBody(id, revision);
  if (!body) throw new Error('a snapshot is of another past');
  return drawingIn(body);
}

/** The packed drawing in a snapshot, sound or not; null where there is none of this past, or an earlier program took it. */
export async function packedSnapshot(id: string, revision: number): Promise<Buffer | null> {
  const body = keptBody(id, revision);
  return body && packedIn(body);
}

/** What a snapshot holds; null where it is of another change than the one in the journal. */
function keptBody(id: string, revision: number): Buffer | null {
  const kept = database()
    .select({ body: snapshots.body, digest: snapshots.digest })
    .from(snapshots)
    .where(and(eq(snapshots.drawingId, id), eq(snapshots.revision, revision)))
    .get();
  return kept && isOf(kept.digest, digestAt(id, revision)) ? kept.body : null;
}

const digestAt = (id: string, revision: number): string | null => prepared().row.get({ id, revision })?.digest ?? null;

type Owed = { bytes: number; changes: number; size: number; timer?: ReturnType<typeof setTimeout> };
const owed = new Map<string, Owed>();
const underway = new Set<Promise<void>>();

/** Changes have come since the last snapshot; `state` gives the newest state when one is to be taken. */
export function oweSnapshot(
  id: string,
  since: { bytes: number; changes: number },
  state: () => { revision: number; drawing: Drawing } | null,
): void {
  const due = owed.get(id) ?? { bytes: 0, changes: 0, size: 0 };
  due.bytes += since.bytes;
  due.changes += since.changes;
  owed.set(id, due);
  if (due.changes < MOST_CHANGES && due.bytes < Math.max(LEAST_BYTES, due.size)) return;
  clearTimeout(due.timer);
  due.timer = setTimeout(() => {
    const now = state();
    if (!now) return;
    const job = take(id, now)
      .then((size) => void (size !== null && owed.set(id, { bytes: 0, changes: 0, size })))
      // It is tried again when more has come; meanwhile the journal holds all.
      .catch((error: unknown) => logError(error))
      .finally(() => underway.delete(job));
    underway.add(job);
  }, REST_MS);
  due.timer.unref();
}

/** Forgets what is owed to a drawing that is gone. */
export function oweNothing(id: string): void {
  clearTimeout(owed.get(id)?.timer);
  owed.delete(id);
}

/** Waits for the snapshots that are being taken. */
export const snapshotsTaken = async (): Promise<void> => void (await Promise.all(underway));

/** Takes a snapshot; how many bytes the drawing has, null where the database is another by the time it is packed. */
async function take(id: string, { revision, drawing }: { revision: number; drawing: Drawing }): Promise<number | null> {
  const store = database();
  const digest = digestAt(id, revision);
  const { body, size } = await bodySoon(drawing);
  // In a backup that was put back meanwhile the drawing has another past, or will have.
  if (database() !== store) return null;
  store.transaction((tx) => {
    const of = { body, digest };
    tx.insert(snapshots)
      .values({ drawingId: id, revision, ...of })
      .onConflictDoUpdate({ target: [snapshots.drawingId, snapshots.revision], set: of })
      .run();
    const all = tx
      .select({ revision: snapshots.revision })
      .from(snapshots)
      .where(eq(snapshots.drawingId, id))
      .orderBy(asc(snapshots.revision))
      .all()
      .map((s) => s.revision);
    const gone = outgrown(all, body.length);
    if (gone.length > 0)
      tx.delete(snapshots)
        .where(and(eq(snapshots.drawingId, id), inArray(snapshots.revision, gone)))
        .run();
  });
  return size;
}

/** So many snapshots are kept in each doubling of the way back, if there is room for them; else fewer. */
const FINENESS = [3, 1.5, 1, 0.5];
/** The snapshots of a drawing together take about so many bytes; a few are kept however large they are. */
const MOST_BYTES = 24_000_000;
const FEWEST = 5;

/**
 * Of rising revisions, those whose snapshots can go where one takes so many bytes: the first and the last two stay, and of the
 * others a few in each doubling of the way back from the newest, the fewer the larger they are.
 */
export function outgrown(revisions: readonly number[], bytes = 0): number[] {
  const most = Math.max(FEWEST, Math.floor(MOST_BYTES / Math.max(1, bytes)));
  let gone: number[] = [];
  for (const fineness of FINENESS) {
    gone = outgrownBy(revisions, fineness);
    if (revisions.length - gone.length <= most) break;
  }
  return gone;
}

function outgrownBy(revisions: readonly number[], fineness: number): number[] {
  const newest = revisions.at(-1)!;
  const ageOf = (r: number): number => Math.floor(fineness * Math.log2(newest - r));
  // What is as old as the first need not be kept beside it.
  const kept = new Set([ageOf(revisions[0])]);
  return revisions.slice(1, -2).filter((r) => {
    const age = ageOf(r);
    if (kept.has(age)) return true;
    kept.add(age);
    return false;
  });
}
