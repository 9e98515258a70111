import { and, desc, eq, inArray, isNotNull, isNull, sql } from 'drizzle-orm';
import { nanoid } from 'nanoid';
import { z } from 'zod';
import { drawingSchema, emptyDrawing, type Change, type Drawing, type Page } from '@/core';
import { drawingOnGrid } from '@/core/change/onGrid';
import { tagColours } from '@/core/edits/sheets';
import { unpacked } from '@/core/formats/packed';
import { database } from './database';
import { digestOf } from './keeping/digest';
import { fitting } from './planned';
import { beginJournal, forget, stateOf } from './journal';
import { notFound, Problem } from './problem';
import { progressOf } from './progress';
import { drawings, gone, journal, versions } from './tables';

/** A stage of the work, which the bench knows more of. */
export const stageName = z.string().regex(/^[a-z]{1,20}$/);

export type DrawingCard = typeof drawings.$inferSelect;

/** The cards of all drawings, or of those in the bin; the last changed first. */
export function listDrawings(binned = false): DrawingCard[] {
  return database()
    .select()
    .from(drawings)
    .where(binned ? isNotNull(drawings.binnedAt) : isNull(drawings.binnedAt))
    .orderBy(desc(drawings.changedAt))
    .all();
}

/** What the home page shows, and when it was asked. */
export const homeShelf = (): { drawings: DrawingCard[]; binned: DrawingCard[]; now: number } => ({
  drawings: listDrawings(),
  binned: listDrawings(true),
  now: Date.now(),
});

export function cardOf(id: string): DrawingCard {
  const card = database().select().from(drawings).where(eq(drawings.id, id)).get();
  if (card) return card;
  const isDeleted = database().select().from(gone).where(eq(gone.id, id)).get() !== undefined;
  throw isDeleted ? new Problem(410, 'deleted', 'This drawing was deleted for good.') : notFound('drawing');
}

/** Keeps a drawing as a new one. */
export function keepDrawing(title: string, drawing: Drawing, stage = 'prepare'): { id: string; revision: number } {
  const id = nanoid(12);
  const now = Date.now();
  database().transaction((tx) => {
    tx.insert(drawings)
      .values({ id, title, stage, revision: 0, createdAt: now, changedAt: now, ...progressOf(drawing) })
      .run();
    beginJournal(tx as never, id, drawingOnGrid(drawing));
  });
  // Whoever has made it may let go of what it was made of: it is in the database itself from now on, not in its log alone.
  database().$client.pragma('wal_checkpoint(PASSIVE)');
  return { id, revision: 0 };
}

/** A change as it was kept, under the schema that it was written by. */
export type KeptChange = { change: { id: string; label: string }; at: number; schema: number };

/** Keeps a drawing with a history that it has already; `first` is what it began as. Gives its id. */
export function keepHistory(
  card: Pick<DrawingCard, 'title' | 'stage' | 'createdAt' | 'changedAt'>,
  first: Drawing,
  { changes, drawing }: { changes: readonly KeptChange[]; drawing: Drawing },
  named: readonly { name: string; note?: string | undefined; revision: number; at: number }[],
): string {
  const id = nanoid(12);
  database().transaction((tx) => {
    tx.insert(drawings)
      .values({ id, ...card, revision: changes.length, ...progressOf(drawing) })
      .run();
    beginJournal(tx as never, id, first);
    let digest: string | null = null;
    changes.forEach(({ change, at, schema }, i) => {
      const body = JSON.stringify(change);
      const row = { drawingId: id, revision: i + 1, changeId: change.id, label: change.label, body, at, schema };
      digest = digestOf(digest, row);
      tx.insert(journal)
        .values({ ...row, digest })
        .run();
    });
    for (const version of named)
      tx.insert(versions)
        .values({ id: nanoid(12), drawingId: id, ...version })
        .run();
  });
  return id;
}

export const createDrawing = (title: string, page: Page): { id: string; revision: number } =>
  keepDrawing(title, emptyDrawing(page, { id: nanoid(10), name: 'Sheet 1', tag: tagColours[0] }));

export function updateCard(id: string, card: { title?: string; stage?: string }): DrawingCard {
  cardOf(id);
  if (card.title !== undefined || card.stage !== undefined) {
    database().update(drawings).set(card).where(eq(drawings.id, id)).run();
  }
  return cardOf(id);
}

/**
 * A copy of a drawing as it is, or as it was at a revision, with all of its history and its versions up to there.
 * @throws Problem 404, 409 where it is damaged before.
 */
export function duplicateDrawing(id: string, wanted?: number): { id: string; revision: number } {
  const { title, stage } = cardOf(id);
  const { drawing, revision } = stateOf(id, wanted);
  const copy = nanoid(12);
  const now = Date.now();
  database().transaction((tx) => {
    const card = { title: `${title} (copy)`.slice(0, 200), stage, createdAt: now, changedAt: now };
    tx.insert(drawings)
      .values({ id: copy, ...card, revision, ...progressOf(drawing) })
      .run();
    const upTo = sql`where drawing_id = ${id} and revision <= ${revision}`;
    tx.run(
      sql`insert into journal (drawing_id, revision, change_id, label, body, at, schema, digest)
          select ${copy}, revision, change_id, label, body, at, schema, digest from journal ${upTo}`,
    );
    tx.run(
      sql`insert into snapshots (drawing_id, revision, body, digest)
          select ${copy}, revision, body, digest from snapshots ${upTo}`,
    );
    for (const { id: _, drawingId: __, ...version } of tx
      .select()
      .from(versions)
      .where(eq(versions.drawingId, id))
      .all())
      if (version.revision <= revision)
        tx.insert(versions)
          .values({ ...version, id: nanoid(12), drawingId: copy })
          .run();
  });
  return { id: copy, revision };
}

/** Notes how far a drawing is, where an earlier program has not. */
export function keepProgress(id: string): void {
  database()
    .update(drawings)
    .set(progressOf(stateOf(id).drawing))
    .where(eq(drawings.id, id))
    .run();
}

/** Into the bin (`true`) or out of it. */
export function binDrawing(id: string, binned: boolean): void {
  cardOf(id);
  doWithMany([id], binned ? 'bin' : 'put back');
}

export const deedsWithMany = ['bin', 'put back', 'delete for good', 'duplicate'] as const;
export type DeedWithMany = (typeof deedsWithMany)[number];

/**
 * One deed with many drawings, all or none; how many it was done with. Those that are not there any more are passed over,
 * and only what is in the bin is deleted for good.
 */
export function doWithMany(ids: readonly string[], deed: DeedWithMany): number {
  const store = database();
  const those = inArray(drawings.id, [...new Set(ids)]);
  if (deed === 'bin' || deed === 'put back') {
    const binnedAt = deed === 'bin' ? Date.now() : null;
    return store.update(drawings).set({ binnedAt }).where(those).run().changes;
  }
  if (deed === 'duplicate') {
    const known = store.select({ id: drawings.id }).from(drawings).where(those).all();
    store.transaction(() => known.forEach(({ id }) => duplicateDrawing(id)));
    return known.length;
  }
  const deleted = store.transaction((tx) => {
    const list = tx
      .delete(drawings)
      .where(and(those, isNotNull(drawings.binnedAt)))
      .returning({ id: drawings.id })
      .all();
    for (const { id } of list) tx.insert(gone).values({ id, at: Date.now() }).onConflictDoNothing().run();
    return list;
  });
  for (const { id } of deleted) forget(id);
  return deleted.length;
}

/** Deletes a drawing that is in the bin, with its history. Pictures stay: other drawings may show them. */
export function deleteForGood(id: string): void {
  if (doWithMany([id], 'delete for good') === 0)
    throw new Problem(409, 'not-in-bin', 'Only a drawing in the bin can be deleted for good.');
}

/**
 * Changes that came too late for a drawing, kept as a drawing of their own: the state they were made on, and they.
 * @throws Problem 404 when there is no such state, 422 when they do not fit even that.
 */
export function keepAside(
  id: string,
  base: number,
  changes: readonly Change[],
): { id: string; revision: number; title: string } {
  const { title, stage } = cardOf(id);
  const drawing = changes.reduce(fitting, stateOf(id, base).drawing);
  const aside = `${title} (kept aside)`.slice(0, 200);
  return { ...keepDrawing(aside, drawing, stage), title: aside };
}

/**
 * A drawing as someone last saw it, packed, kept as one of its own; the one that it was may be gone.
 * @throws Problem 400 for bytes that are none.
 */
export function keepWholeAside(id: string, bytes: Uint8Array): { id: string; revision: number; title: string } {
  const card = database().select().from(drawings).where(eq(drawings.id, id)).get();
  const aside = `${card?.title ?? 'Drawing'} (kept aside)`.slice(0, 200);
  return { ...keepDrawing(aside, soundDrawing(bytes), card?.stage ?? 'trace'), title: aside };
}

function soundDrawing(bytes: Uint8Array): Drawing {
  try {
    return drawingSchema.parse(unpacked(bytes)) as Drawing;
  } catch {
    throw new Problem(400, 'no-drawing', 'These bytes are no drawing. Nothing was kept.');
  }
}
