import { and, eq, sql, type Placeholder } from 'drizzle-orm';
import { database, type Store } from './database';
import { counts, drawings, journal } from './tables';

/** What is asked of the database with every change: put into words once, for as long as it is open. */

const at = (name: string): Placeholder => sql.placeholder(name);

function statements(store: Store) {
  const ofDrawing = eq(journal.drawingId, at('id'));
  return {
    revision: store
      .select({ revision: drawings.revision })
      .from(drawings)
      .where(eq(drawings.id, at('id')))
      .prepare(),
    /** The change that made a revision, and its digest. */
    row: store
      .select({ changeId: journal.changeId, digest: journal.digest })
      .from(journal)
      .where(and(ofDrawing, eq(journal.revision, at('revision'))))
      .prepare(),
    /** Whether a change was made in a drawing. */
    made: store
      .select({ revision: journal.revision })
      .from(journal)
      .where(and(ofDrawing, eq(journal.changeId, at('change'))))
      .prepare(),
    append: store
      .insert(journal)
      .values({
        drawingId: at('id'),
        revision: at('revision'),
        changeId: at('changeId'),
        label: at('label'),
        body: at('body'),
        at: at('at'),
        digest: at('digest'),
        schema: at('schema'),
      })
      .prepare(),
    card: store
      .update(drawings)
      .set({
        revision: sql`${at('revision')}`,
        changedAt: sql`${at('at')}`,
        sheets: sql`${at('sheets')}`,
        sheetsTraced: sql`${at('sheetsTraced')}`,
        lines: sql`${at('lines')}`,
      })
      .where(eq(drawings.id, at('id')))
      .prepare(),
    count: store
      .insert(counts)
      .values({ name: 'acknowledged', count: at('more') })
      .onConflictDoUpdate({ target: counts.name, set: { count: sql`${counts.count} + ${at('more')}` } })
      .returning({ count: counts.count })
      .prepare(),
    savepoint: store.$client.prepare('savepoint one'),
    release: store.$client.prepare('release one'),
    back: store.$client.prepare('rollback to one'),
  };
}

type Statements = ReturnType<typeof statements>;
const made = new WeakMap<Store, Statements>();

/** The statements of the open database; within a transaction of it they belong to that. */
export function prepared(): Statements {
  const store = database();
  let known = made.get(store);
  if (!known) made.set(store, (known = statements(store)));
  return known;
}
