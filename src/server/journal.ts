import { and, asc, desc, eq, gt, lte } from 'drizzle-orm';
import { applyChange, ChangeError, type Change, type Drawing } from '@/core';
import { upgradedChange } from '@/core/change/upgradeChange';
import { SCHEMA_VERSION } from '@/core/drawing/schema';
import { upgradedDrawing } from '@/core/drawing/upgrade';
import { database, type Store } from './database';
import { notFound, Problem } from './problem';
import { drawings, journal, snapshots } from './tables';

/** A snapshot is taken each so many changes. */
const SNAPSHOT_EVERY = 100;
const MOST_CACHED = 16;

type State = { revision: number; drawing: Drawing };

/** The newest state of the drawings last used, so that a change costs no replay. Always what the disk holds. */
const newest = new Map<string, State>();

function remember(id: string, state: State): void {
  newest.delete(id);
  newest.set(id, state);
  if (newest.size > MOST_CACHED) newest.delete(newest.keys().next().value!);
}

export const forget = (id: string): boolean => newest.delete(id);

/** Records the first state of a drawing: revision 0. */
export function beginJournal(store: Store, id: string, drawing: Drawing): void {
  store
    .insert(snapshots)
    .values({ drawingId: id, revision: 0, body: JSON.stringify(drawing) })
    .run();
}

/**
 * A drawing as it is, or as it was at a revision: the last snapshot before it, and the changes since.
 * @throws Problem 404 for a drawing or a revision that is not there.
 */
export function stateOf(id: string, revision?: number): State {
  const store = database();
  const row = store.select().from(drawings).where(eq(drawings.id, id)).get();
  if (!row) throw notFound('drawing');
  const wanted = revision ?? row.revision;
  if (wanted > row.revision) throw notFound('revision');
  const cached = newest.get(id);
  if (cached?.revision === wanted) return cached;
  const snapshot = store
    .select()
    .from(snapshots)
    .where(and(eq(snapshots.drawingId, id), lte(snapshots.revision, wanted)))
    .orderBy(desc(snapshots.revision))
    .get()!;
  const since = store
    .select({ body: journal.body, schema: journal.schema })
    .from(journal)
    .where(and(eq(journal.drawingId, id), gt(journal.revision, snapshot.revision), lte(journal.revision, wanted)))
    .orderBy(asc(journal.revision))
    .all();
  const drawing = since.reduce(
    (d, c) => applyChange(d, upgradedChange(JSON.parse(c.body), c.schema)),
    upgradedDrawing(JSON.parse(snapshot.body)),
  );
  const state = { revision: wanted, drawing };
  if (wanted === row.revision) remember(id, state);
  return state;
}

/**
 * Appends changes to a drawing whose newest revision is `base`, all or none; on return they are on the disk. Changes
 * that are in the journal already (an answer was lost, and they were sent again) are not made twice.
 * @throws Problem 404, 409 when `base` is not the newest revision, 422 when a change does not fit the drawing.
 */
export function appendChanges(id: string, base: number, changes: readonly Change[]): { revision: number } {
  const store = database();
  const done = store.transaction(
    (tx) => {
      const before = stateOf(id);
      const fresh = changes.slice(alreadyThere(tx as unknown as Store, id, base, changes));
      const start = base + changes.length - fresh.length;
      if (start !== before.revision) {
        throw new Problem(
          409,
          'conflict',
          `The drawing is at revision ${before.revision}, not ${base}. Nothing was changed.`,
          {
            revision: before.revision,
          },
        );
      }
      const at = Date.now();
      let { drawing, revision } = before;
      for (const change of fresh) {
        drawing = fitting(drawing, change);
        revision++;
        tx.insert(journal)
          .values({
            drawingId: id,
            revision,
            changeId: change.id,
            label: change.label,
            body: JSON.stringify(change),
            at,
            schema: SCHEMA_VERSION,
          })
          .run();
        if (revision % SNAPSHOT_EVERY === 0)
          tx.insert(snapshots)
            .values({ drawingId: id, revision, body: JSON.stringify(drawing) })
            .run();
      }
      if (fresh.length > 0) tx.update(drawings).set({ revision, changedAt: at }).where(eq(drawings.id, id)).run();
      return { drawing, revision };
    },
    { behavior: 'immediate' },
  );
  remember(id, done);
  return { revision: done.revision };
}

/** How many of `changes`, from the first on, follow `base` in the journal already. */
function alreadyThere(store: Store, id: string, base: number, changes: readonly Change[]): number {
  const rows = store
    .select({ changeId: journal.changeId })
    .from(journal)
    .where(and(eq(journal.drawingId, id), gt(journal.revision, base), lte(journal.revision, base + changes.length)))
    .orderBy(asc(journal.revision))
    .all();
  const differs = rows.findIndex((r, i) => r.changeId !== changes[i].id);
  return differs < 0 ? rows.length : differs;
}

/** A drawing after a change. @throws Problem 422 when the change does not fit. */
export function fitting(drawing: Drawing, change: Change): Drawing {
  try {
    return applyChange(drawing, change);
  } catch (error) {
    if (error instanceof ChangeError) {
      throw new Problem(
        422,
        'does-not-fit',
        `“${change.label}” does not fit the drawing: ${error.message}. Nothing was changed.`,
      );
    }
    throw error;
  }
}
