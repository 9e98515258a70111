import type { Change, Drawing } from '@/core';
import { SCHEMA_VERSION } from '@/core/drawing/schema';
import { database } from './database';
import { changeAt, remember, remembered, stateOf } from './journal';
import { bearWitness } from './keeping/witness';
import { dataFolder } from './place';
import { asksForBase, planned, type Asked, type Before } from './planned';
import { prepared } from './prepared';
import { Problem } from './problem';
import { progressOf } from './progress';
import { oweSnapshot } from './snapshots';

type Done = { drawing: Drawing; revision: number; fresh: number; bytes: number; acknowledged: number };

/** Appends changes to a drawing, as `planned` says; on return they are on the disk. @throws Problem 404, 409, 422 */
export function appendChanges(
  id: string,
  base: number,
  changes: readonly Change[],
  after?: string,
): { revision: number } {
  const asked = { id, base, changes, after };
  const done = database().transaction(() => appended(asked), { behavior: 'immediate' });
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
      () => {
        for (const w of taken.values()) ends.push(endOf(w));
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
function endOf(w: Waiting): () => void {
  const { savepoint, release, back } = prepared();
  savepoint.run();
  try {
    const done = appended(w);
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
function appended(asked: Asked): Done | null {
  const { id } = asked;
  const plan = planned(before(asked), asked, Date.now());
  if (!plan) return null;
  const { drawing, revision, rows } = plan;
  const { append, card, count } = prepared();
  for (const row of rows) append.run({ ...row, id, schema: SCHEMA_VERSION });
  card.run({ id, revision, at: rows[0].at, ...progressOf(drawing) });
  const bytes = rows.reduce((n, { body }) => n + body.length, 0);
  const acknowledged = count.get({ more: rows.length }).count;
  return { drawing, revision, fresh: rows.length, bytes, acknowledged };
}

function before(asked: Asked): Before {
  const { id, base, changes } = asked;
  const { revision, drawing } = stateOf(id);
  const { row, made } = prepared();
  const known = changes.flatMap(({ id: change }): [string, number][] => {
    const found = made.get({ id, change });
    return found ? [[change, found.revision]] : [];
  });
  return {
    revision,
    drawing,
    digest: row.get({ id, revision })?.digest ?? null,
    atBase: asksForBase(asked, revision) ? changeAt(id, base) : undefined,
    made: new Map(known),
  };
}
