import Database from 'better-sqlite3';
import { drizzle, type BetterSQLite3Database } from 'drizzle-orm/better-sqlite3';
import { migrate } from 'drizzle-orm/better-sqlite3/migrator';
import path from 'node:path';
import { folder } from './place';
import * as tables from './tables';

export type Store = BetterSQLite3Database<typeof tables> & { $client: Database.Database };

const kept = globalThis as typeof globalThis & { yellowQuillStore?: { file: string; store: Store } };

/** The open database of the data folder; opened, and brought to the newest tables, on first use. */
export function database(): Store {
  const file = path.join(folder(), 'yellow-quill.sqlite');
  if (kept.yellowQuillStore?.file !== file) {
    kept.yellowQuillStore?.store.$client.close();
    kept.yellowQuillStore = { file, store: open(file) };
  }
  return kept.yellowQuillStore.store;
}

export function closeDatabase(): void {
  kept.yellowQuillStore?.store.$client.close();
  kept.yellowQuillStore = undefined;
}

/** What is acknowledged must outlive a loss of power: a write-ahead log, synced to the disk at each commit. */
function open(file: string): Store {
  const client = new Database(file);
  client.pragma('journal_mode = WAL');
  client.pragma('synchronous = FULL');
  client.pragma('foreign_keys = ON');
  client.pragma('busy_timeout = 5000');
  const store = drizzle(client, { schema: tables });
  migrate(store, { migrationsFolder: path.join(/*turbopackIgnore: true*/ process.cwd(), 'drizzle') });
  return store;
}
