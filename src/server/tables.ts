import { blob, index, integer, primaryKey, sqliteTable, text, uniqueIndex } from 'drizzle-orm/sqlite-core';

/** A drawing's card: what the home page shows of it. Its content is in the journal. Times are ms since 1970. */
export const drawings = sqliteTable('drawings', {
  id: text('id').primaryKey(),
  title: text('title').notNull(),
  stage: text('stage').notNull(),
  revision: integer('revision').notNull(),
  createdAt: integer('created_at').notNull(),
  changedAt: integer('changed_at').notNull(),
  binnedAt: integer('binned_at'),
  /** How far it is: its sheets, those that are traced, and its lines. Null until it was looked into. */
  sheets: integer('sheets'),
  sheetsTraced: integer('sheets_traced'),
  lines: integer('lines'),
});

/** Every change ever made, in its order: appended to, never rewritten. */
export const journal = sqliteTable(
  'journal',
  {
    drawingId: text('drawing_id')
      .notNull()
      .references(() => drawings.id, { onDelete: 'cascade' }),
    revision: integer('revision').notNull(),
    changeId: text('change_id').notNull(),
    label: text('label').notNull(),
    body: text('body').notNull(),
    at: integer('at').notNull(),
    /** The number of the schema that it was written under. */
    schema: integer('schema').notNull().default(1),
    /** Of this change and of all before it (`keeping/digest`); null where an earlier program wrote it. */
    digest: text('digest'),
  },
  (t) => [
    primaryKey({ columns: [t.drawingId, t.revision] }),
    uniqueIndex('journal_change').on(t.drawingId, t.changeId),
  ],
);

/** Whole drawings at some revisions, so that not all of the journal need be replayed. */
export const snapshots = sqliteTable(
  'snapshots',
  {
    drawingId: text('drawing_id')
      .notNull()
      .references(() => drawings.id, { onDelete: 'cascade' }),
    revision: integer('revision').notNull(),
    /** Packed (`core/formats/packed.ts`) and compressed; earlier programs compressed JSON, the first kept it as text. */
    body: blob('body', { mode: 'buffer' }).notNull(),
    /** That of the change that it was taken after, which tells which past it is of; null where an earlier program took it. */
    digest: text('digest'),
  },
  (t) => [primaryKey({ columns: [t.drawingId, t.revision] })],
);

/** Pictures as they came, by the SHA-256 of their bytes. Width and height are those of the upright picture. */
export const pictures = sqliteTable(
  'pictures',
  {
    hash: text('hash').primaryKey(),
    mime: text('mime').notNull(),
    bytes: integer('bytes').notNull(),
    width: integer('width').notNull(),
    height: integer('height').notNull(),
    dpi: integer('dpi'),
    at: integer('at').notNull(),
  },
  (t) => [index('pictures_at').on(t.at)],
);

/** States kept by name: each is a revision of its drawing. */
export const versions = sqliteTable(
  'versions',
  {
    id: text('id').primaryKey(),
    drawingId: text('drawing_id')
      .notNull()
      .references(() => drawings.id, { onDelete: 'cascade' }),
    name: text('name').notNull(),
    note: text('note').notNull().default(''),
    revision: integer('revision').notNull(),
    at: integer('at').notNull(),
  },
  (t) => [index('versions_drawing').on(t.drawingId, t.at)],
);

/** Files that were asked for, and how far they are; the files lie in the data folder, under the job's id. */
export const jobs = sqliteTable(
  'jobs',
  {
    id: text('id').primaryKey(),
    drawingId: text('drawing_id')
      .notNull()
      .references(() => drawings.id, { onDelete: 'cascade' }),
    /** The revision that it is of. */
    revision: integer('revision').notNull(),
    state: text('state', { enum: ['waiting', 'working', 'done', 'failed'] }).notNull(),
    /** How many of its files are made, of how many. */
    made: integer('made').notNull(),
    total: integer('total').notNull(),
    /** The file that comes of it: its name, its kind, and its size once it is there. */
    name: text('name').notNull(),
    mime: text('mime').notNull(),
    bytes: integer('bytes'),
    /** Why it failed, or what it was made without. */
    reason: text('reason'),
    at: integer('at').notNull(),
    endedAt: integer('ended_at'),
  },
  (t) => [index('jobs_drawing').on(t.drawingId, t.at)],
);

/** What was handed in, or is on its way: its file lies in the data folder, under the id, as it was sent. */
export const handIns = sqliteTable(
  'hand_ins',
  {
    id: text('id').primaryKey(),
    drawingId: text('drawing_id')
      .notNull()
      .references(() => drawings.id, { onDelete: 'cascade' }),
    revision: integer('revision').notNull(),
    /** Where it goes. */
    place: text('place').notNull(),
    state: text('state', { enum: ['sending', 'received', 'refused', 'failed'] }).notNull(),
    name: text('name').notNull(),
    mime: text('mime').notNull(),
    bytes: integer('bytes').notNull(),
    /** Of the file's bytes, hexadecimal. */
    sha256: text('sha256').notNull(),
    /** How many of its bytes have gone over. */
    sent: integer('sent').notNull(),
    tries: integer('tries').notNull(),
    /** The number and time on its receipt. */
    receipt: text('receipt'),
    receivedAt: integer('received_at'),
    /** Why it was refused, or did not go over. */
    reason: text('reason'),
    at: integer('at').notNull(),
  },
  (t) => [index('hand_ins_drawing').on(t.drawingId, t.at)],
);

/** What there is one of: how many changes were ever acknowledged. */
export const counts = sqliteTable('counts', {
  name: text('name', { enum: ['acknowledged'] }).primaryKey(),
  count: integer('count').notNull(),
});

/** Drawings that were deleted for good: one that is missing without that was lost. */
export const gone = sqliteTable('gone', {
  id: text('id').primaryKey(),
  at: integer('at').notNull(),
});
