import { bigint, customType, integer, pgTable, primaryKey, text, uniqueIndex } from 'drizzle-orm/pg-core';

/** The tables of a journal in PostgreSQL: what stands in `server/tables.ts` of drawings, their changes and their snapshots. */

const bytea = customType<{ data: Buffer }>({ dataType: () => 'bytea' });

/** A drawing's row is locked while changes are appended to it: that is what puts them in their order. */
export const drawings = pgTable('drawings', {
  id: text('id').primaryKey(),
  title: text('title').notNull(),
  revision: integer('revision').notNull(),
});

const drawingId = () =>
  text('drawing_id')
    .notNull()
    .references(() => drawings.id, { onDelete: 'cascade' });

/** A change's label is in its body: there it may hold what a column of text cannot. */
export const journal = pgTable(
  'journal',
  {
    drawingId: drawingId(),
    revision: integer('revision').notNull(),
    changeId: text('change_id').notNull(),
    body: text('body').notNull(),
    /** Ms since 1970. */
    at: bigint('at', { mode: 'number' }).notNull(),
    schema: integer('schema').notNull(),
    digest: text('digest').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.drawingId, t.revision] }),
    uniqueIndex('journal_change').on(t.drawingId, t.changeId),
  ],
);

export const snapshots = pgTable(
  'snapshots',
  {
    drawingId: drawingId(),
    revision: integer('revision').notNull(),
    body: bytea('body').notNull(),
    digest: text('digest'),
  },
  (t) => [primaryKey({ columns: [t.drawingId, t.revision] })],
);
