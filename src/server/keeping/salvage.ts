import { existsSync, rmSync } from 'node:fs';
import path from 'node:path';
import Database from 'better-sqlite3';
import { drizzle } from 'drizzle-orm/better-sqlite3';
import { migrate } from 'drizzle-orm/better-sqlite3/migrator';
import { putInPlace } from './durable';
import { databaseFile } from './places';
import { putAside } from './restore';

/** The tables of a database, those first that others name. */
const TABLES = [
  'drawings',
  'pictures',
  'snapshots',
  'journal',
  'versions',
  'jobs',
  'hand_ins',
  'counts',
  'gone',
] as const;
/** So often reading a damaged table is begun again behind the place where it broke off. */
const MOST_TRIES = 2_000;

export type Salvaged = { readonly rows: number; readonly aside: string | null };

/**
 * Reads of a damaged database whatever can be read, row by row, into a new one that takes its place; the damaged one goes aside as
 * it is. Rows are searched for behind each place that cannot be read. Nobody has it open. @throws Error where nothing can be read.
 */
export function salvageDatabase(place: string, migrations = path.join(process.cwd(), 'drizzle')): Salvaged {
  const file = databaseFile(place);
  if (!existsSync(file)) throw new Error('There is no database to read from.');
  const fresh = `${file}.salvaged`;
  for (const end of ['', '-wal', '-shm']) rmSync(`${fresh}${end}`, { force: true });
  const to = new Database(fresh);
  let rows = 0;
  try {
    migrate(drizzle(to), { migrationsFolder: migrations });
    to.pragma('foreign_keys = OFF');
    const from = new Database(file, { readonly: true });
    try {
      to.transaction(() => {
        for (const table of TABLES) rows += copied(from, to, table);
      })();
    } finally {
      from.close();
    }
    if (rows === 0) throw new Error('Nothing of the database can be read. Nothing was changed.');
    nameTheNameless(to);
    to.pragma('journal_mode = DELETE');
  } catch (error) {
    to.close();
    rmSync(fresh, { force: true });
    throw error;
  }
  to.close();
  const aside = putAside(place);
  putInPlace(fresh, file);
  return { rows, aside };
}

type Row = Record<string, unknown> & { rowNumber: number };

/** Copies the rows of a table that can be read; how many. */
function copied(from: Database.Database, to: Database.Database, table: string): number {
  const put = putter(to, table);
  const last = lastRow(from, table);
  let [at, step, count] = [0, 1, 0];
  for (let tries = 0; tries < MOST_TRIES && at <= last; tries++) {
    try {
      const rows = from
        .prepare(`select rowid as rowNumber, * from ${table} not indexed where rowid > ? order by rowid`)
        .iterate(at) as IterableIterator<Row>;
      for (const { rowNumber, ...row } of rows) {
        count += put(row);
        [at, step] = [rowNumber, 1];
      }
      break;
    } catch {
      // Behind the damage, farther and farther, until something can be read again.
      at += step;
      step *= 2;
    }
  }
  return count;
}

/** Puts a row into a table, as far as the table has its columns; gives 1 where it fits. */
function putter(to: Database.Database, table: string): (row: Record<string, unknown>) => number {
  const columns = (to.pragma(`table_info(${table})`) as { name: string }[]).map((c) => c.name);
  let put: { names: string[]; insert: Database.Statement } | null = null;
  return (row) => {
    if (!put) {
      const names = columns.filter((n) => n in row);
      const sql = `insert or ignore into ${table} (${names.join(', ')}) values (${names.map(() => '?').join(', ')})`;
      put = { names, insert: to.prepare(sql) };
    }
    try {
      return put.insert.run(put.names.map((n) => row[n])).changes;
    } catch {
      return 0;
    }
  };
}

function lastRow(from: Database.Database, table: string): number {
  try {
    return (from.prepare(`select max(rowid) from ${table}`).pluck().get() as number | null) ?? 0;
  } catch {
    return 1_000_000_000;
  }
}

/** A drawing whose card cannot be read, but something of it can, gets another card; what belongs to none any more goes. */
function nameTheNameless(to: Database.Database): void {
  const now = Date.now();
  to.prepare(
    `insert into drawings (id, title, stage, revision, created_at, changed_at)
     select s.drawing_id, 'Found again', 'trace',
       max(max(s.revision), coalesce((select max(j.revision) from journal j where j.drawing_id = s.drawing_id), 0)), ?, ?
     from snapshots s where s.drawing_id not in (select id from drawings) group by s.drawing_id`,
  ).run(now, now);
  for (const table of ['journal', 'snapshots', 'versions', 'jobs', 'hand_ins'])
    to.prepare(`delete from ${table} where drawing_id not in (select id from drawings)`).run();
}
