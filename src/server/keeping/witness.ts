import { closeSync, existsSync, openSync, readFileSync, writeSync } from 'node:fs';
import type Database from 'better-sqlite3';
import { writeWhole } from './durable';
import { lossFile, witnessFile } from './places';

/**
 * How many changes were acknowledged is told twice: in the database, within the transaction of each, and in a small file beside
 * it. A database that has gone back without a word (its write-ahead log vanished, an old file was put in its place) has the
 * smaller number.
 */

const WIDTH = 16;
let handle: { place: string; fd: number } | null = null;

/** How many were acknowledged, as the file beside the database has it; 0 where there is none that can be read. */
export function witnessed(place: string): number {
  if (!existsSync(witnessFile(place))) return 0;
  const count = Number(readFileSync(witnessFile(place), 'utf8'));
  return Number.isSafeInteger(count) ? count : 0;
}

/** Notes how many are acknowledged by now. Not synced: it is to outlive the loss of the log, not of power. */
export function bearWitness(place: string, count: number): void {
  if (handle?.place !== place) {
    endWitness();
    handle = { place, fd: openSync(witnessFile(place), existsSync(witnessFile(place)) ? 'r+' : 'w+') };
  }
  writeSync(handle.fd, String(count).padStart(WIDTH, '0'), 0);
}

export function endWitness(): void {
  if (handle) closeSync(handle.fd);
  handle = null;
}

/** How many a database says were acknowledged. */
export const acknowledgedIn = (client: Database.Database): number =>
  (client.prepare(`select count from counts where name = 'acknowledged'`).get() as { count: number } | undefined)
    ?.count ?? 0;

/** Acknowledged changes that are gone from the database. */
export type Loss = { readonly at: number; readonly changes: number };

/** Looks whether a database that was just opened has gone back; what is found is kept, to be told of. */
export function noticeLoss(place: string, client: Database.Database, now = Date.now()): void {
  const [is, was] = [acknowledgedIn(client), witnessed(place)];
  if (is < was) writeWhole(lossFile(place), JSON.stringify({ at: now, changes: was - is } satisfies Loss));
  bearWitness(place, is);
}

export function lossOf(place: string): Loss | null {
  try {
    return JSON.parse(readFileSync(lossFile(place), 'utf8')) as Loss;
  } catch {
    return null;
  }
}
