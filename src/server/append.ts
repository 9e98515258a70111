import { and, asc, eq, gt, lte } from 'drizzle-orm';
import { applyChange, ChangeError, type Change, type Drawing } from '@/core';
import { beyondBounds } from '@/core/change/bounds';
import { SCHEMA_VERSION } from '@/core/drawing/schema';
import { database, type Store } from './database';
import { changeAt, remember, remembered, stateOf } from './journal';
import { digestOf } from './keeping/digest';
import { bearWitness } from './keeping/witness';
import { dataFolder } from './place';
import { prepared } from './prepared';
import { Problem } from './problem';
import { progressOf } from './progress';
import { oweSnapshot } from './snapshots';
import { journal } from './tables';

/** Changes of a drawing whose newest revision is `base`; `after` is the change that made it, as far as the sender knows. */
type Asked = {
  readonly id: string;
  readonly base: number;
  readonly changes: readonly Change[];
  readonly after?: string | undefined;
};
type Done = { drawing: Drawing; revision: number; fresh: number; bytes: number; acknowledged: number };

/**
 * Appends changes to a drawing whose newest revision is `base`, all or none; on return they are on the disk. Changes
 * that are in the journal already (an answer was lost, and they were sent again) are not made twice. A drawing that went back and
 * on again has another change than `after` there.
 * @throws Problem 404, 409 when `base` is not the newest revision, 422 when a change does not fit the drawing.
 */
export function appendChanges(
  id: string,
  base: number,
  changes: readonly Change[],
  after?: string,
): { revision: number } {
  const asked = { id, base, changes, after };
  const store = database();
  const done = store.transaction((tx) => appended(tx as unknown as Store, asked), { behavior: 'immediate' });
  return answered(asked, done);
}

type Waiting = Asked & { answer(answer: { revision: number }): void; refuse(why: unknown): void };
let waiting: Waiting[] = [];

/**
 * The same for many who ask at once: what comes together goes to the disk together, for the disk takes as long for one as for
 * all; each is refused by itself.
 */
export function appendSoon(asked: Asked): Promise<{ revision: number }> {
  return new Promise((answer, refuse) => {
    waiting.push({ ...asked, answer, refuse });
    if (waiting.length === 1) setImmediate(appendWaiting);
  });
}

function appendWaiting(): void {
  // One of each drawing: what the next is made on is remembered only once the disk holds it.
  const taken = new Map<string, Waiting>();
  const later: Waiting[] = [];
  for (const w of waiting) {
    if (taken.has(w.id)) later.push(w);
    else taken.set(w.id, w);
  }
  waiting = later;
  if (later.length > 0) setImmediate(appendWaiting);
  const ends: (() => void)[] = [];
  try {
    database().transaction(
      (tx) => {
        for (const w of taken.values()) ends.push(endOf(w, tx as unknown as Store));
      },
      { behavior: 'immediate' },
    );
  } catch (error) {
    for (const w of taken.values()) w.refuse(error);
    return;
  }
  for (const end of ends) end();
}

/** Appends within a transaction of many; what is to be said of it once the disk holds all. @throws what the disk says. */
function endOf(w: Waiting, tx: Store): () => void {
  const { savepoint, release, back } = prepared();
  savepoint.run();
  try {
    const done = appended(tx, w);
    release.run();
    return () => w.answer(answered(w, done));
  } catch (error) {
    // A disk that is full has ended all of it by now.
    if (!(error instanceof Problem)) throw error;
    back.run();
    release.run();
    return () => w.refuse(error);
  }
}

/** They are on the disk by now. */
function answered({ id, base, changes }: Asked, done: Done | null): { revision: number } {
  if (!done) return { revision: base + changes.length };
  const { drawing, revision, fresh, bytes, acknowledged } = done;
  bearWitness(dataFolder(), acknowledged);
  remember(id, { drawing, revision });
  oweSnapshot(id, { bytes, changes: fresh }, () => remembered(id));
  return { revision };
}

/** Appends within a transaction; null where all of them are there. */
function appended(tx: Store, { id, base, changes, after }: Asked): Done | null {
  const before = stateOf(id);
  if (after !== undefined && base > 0 && base <= before.revision && changeAt(id, base) !== after)
    throw new Problem(
      409,
      'another-past',
      `The drawing has another change ${base} than the one that these were made on. Nothing was changed.`,
      { revision: base - 1 },
    );
  const fresh = base < before.revision ? changes.slice(alreadyThere(tx, id, base, changes)) : changes;
  // All of them are there, and perhaps others since: whoever lost the answer is given it again.
  if (fresh.length === 0) return null;
  if (base + changes.length - fresh.length !== before.revision)
    throw new Problem(
      409,
      'conflict',
      `The drawing is at revision ${before.revision}, not ${base}. Nothing was changed.`,
      { revision: before.revision },
    );
  refuseUsed(id, fresh);
  const at = Date.now();
  let { drawing, revision } = before;
  const { row: last, append, card, count } = prepared();
  let digest = last.get({ id, revision })?.digest ?? null;
  let bytes = 0;
  for (const change of fresh) {
    drawing = fitting(drawing, change);
    revision++;
    const body = JSON.stringify(change);
    bytes += body.length;
    const row = { revision, changeId: change.id, label: change.label, body, at };
    digest = digestOf(digest, row);
    append.run({ ...row, id, digest, schema: SCHEMA_VERSION });
  }
  card.run({ id, revision, at, ...progressOf(drawing) });
  const acknowledged = count.get({ more: fresh.length }).count;
  return { drawing, revision, fresh: fresh.length, bytes, acknowledged };
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

/** A change's id is its own in its drawing. @throws Problem 422 where one was used before. */
function refuseUsed(id: string, fresh: readonly Change[]): void {
  const ids = fresh.map((c) => c.id);
  const { made } = prepared();
  if (new Set(ids).size < ids.length || ids.some((change) => made.get({ id, change }) !== undefined))
    throw new Problem(
      422,
      'used-before',
      'A change with that id was made in this drawing before. Nothing was changed.',
    );
}

/** A drawing after a new change. @throws Problem 422 when the change does not fit, or the drawing would be too large. */
export function fitting(drawing: Drawing, change: Change): Drawing {
  try {
    const after = applyChange(drawing, change);
    const why = beyondBounds(drawing, after, change);
    if (why) throw new ChangeError(why);
    return after;
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
