import { existsSync, readFileSync, statSync } from 'node:fs';
import path from 'node:path';
import Database from 'better-sqlite3';
import { drizzle, type BetterSQLite3Database } from 'drizzle-orm/better-sqlite3';
import { migrate } from 'drizzle-orm/better-sqlite3/migrator';
import { backupNow } from './keeping/backups';
import { backupsFolder, databaseFile, namesIn, picturesFolder, witnessFile } from './keeping/places';
import { endWitness, noticeLoss } from './keeping/witness';
import { dataFolder, folder } from './place';
import { Problem } from './problem';
import * as tables from './tables';

export type Store = BetterSQLite3Database<typeof tables> & { $client: Database.Database };

type Kept = { file: string; inode: number; store: Store; isGone?: string };
const kept = globalThis as typeof globalThis & { yellowQuillStore?: Kept | undefined };

/**
 * The open database of the data folder; opened, and brought to the newest tables, on first use.
 * @throws Problem 503 where it is missing beside what it kept, was taken away, or is of a newer program.
 */
export function database(): Store {
  const file = databaseFile(dataFolder());
  const known = kept.yellowQuillStore;
  if (known?.file === file) return stillThere(known).store;
  return opened(isUnused(dataFolder()));
}

/** Begins with an empty database, whatever lies beside it; one that is there is opened. */
export const beginDatabase = (): Store => opened(true);

function opened(mayBegin: boolean): Store {
  closeDatabase();
  const store = open(folder(), mayBegin);
  const file = databaseFile(dataFolder());
  kept.yellowQuillStore = { file, inode: statSync(file).ino, store };
  return store;
}

export function closeDatabase(): void {
  kept.yellowQuillStore?.store.$client.close();
  kept.yellowQuillStore = undefined;
  endWitness();
}

/** Whether a database may be begun in a folder: there is nothing that one has kept. */
const isUnused = (place: string): boolean =>
  namesIn(picturesFolder(place)).length === 0 &&
  namesIn(backupsFolder(place)).length === 0 &&
  !existsSync(witnessFile(place));

/** A file that was taken away is still there for whoever has it open: what is written then, nobody finds again. */
function stillThere(known: Kept): Kept {
  if (statSync(known.file, { throwIfNoEntry: false })?.ino === known.inode) return known;
  known.isGone ??= rescued(known);
  throw new Problem(503, 'taken-away', known.isGone);
}

function rescued({ store }: Kept): string {
  const said = 'The database was taken away or exchanged while the program ran. Nothing can be saved just now.';
  try {
    const { name } = backupNow(dataFolder(), 'rescued', store.$client);
    return `${said} What it held is kept as the backup ${name}: put it back under Safe-keeping, or start the program anew.`;
  } catch {
    return `${said} What it held could not be read.`;
  }
}

/** What is acknowledged must outlive a loss of power: a write-ahead log, synced to the disk at each commit. */
function open(place: string, mayBegin: boolean): Store {
  const file = databaseFile(place);
  const isThere = (statSync(file, { throwIfNoEntry: false })?.size ?? 0) > 0;
  if (!isThere && !mayBegin)
    throw new Problem(
      503,
      'no-database',
      'The database is missing, or empty, though there are pictures or backups beside it. Nothing was begun in its place: put a backup back, or begin anew, under Safe-keeping.',
    );
  const client = new Database(file);
  try {
    client.pragma('busy_timeout = 5000');
    client.pragma('journal_mode = WAL');
    client.pragma('synchronous = FULL');
    client.pragma('foreign_keys = ON');
    const store = drizzle(client, { schema: tables });
    if (isThere) prepareUpgrade(place, client);
    migrate(store, { migrationsFolder: MIGRATIONS });
    noticeLoss(place, client);
    return store;
  } catch (error) {
    client.close();
    throw error;
  }
}

const MIGRATIONS = path.join(/*turbopackIgnore: true*/ process.cwd(), 'drizzle');

/** Before tables are changed a backup is taken. @throws Problem 503 for a database of a newer program. */
function prepareUpgrade(place: string, client: Database.Database): void {
  const known = JSON.parse(readFileSync(path.join(MIGRATIONS, 'meta', '_journal.json'), 'utf8')) as {
    entries: { when: number }[];
  };
  const hasTable = (name: string): boolean =>
    client.prepare(`select 1 from sqlite_master where type = 'table' and name = ?`).get(name) !== undefined;
  if (!hasTable('__drizzle_migrations')) return;
  const { last } = client.prepare('select max(created_at) as last from __drizzle_migrations').get() as {
    last: number | null;
  };
  const newest = known.entries.at(-1)!.when;
  if (last !== null && Number(last) > newest)
    throw new Problem(
      503,
      'newer-program',
      'The database was written by a newer program than this one. Nothing was changed; start the newer one.',
    );
  if (Number(last ?? 0) < newest && hasTable('drawings')) backupNow(place, 'before-upgrade', client);
}
