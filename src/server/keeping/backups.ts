import { copyFileSync, existsSync, linkSync, readFileSync, rmSync, statfsSync, statSync } from 'node:fs';
import path from 'node:path';
import Database from 'better-sqlite3';
import { z } from 'zod';
import { checkDrawings } from './checkDrawings';
import { sha256Of } from './digest';
import { putInPlace, synced, writeWhole } from './durable';
import { backupsFolder, bytesIn, databaseFile, databaseFiles, made, namesIn, picturesFolder, stamp } from './places';

/**
 * Backups of a data folder: the database as one file, checked, with a slip that says what it is; pictures once each, for they
 * never change. Taken while others write: a copy is of one moment (`VACUUM INTO`, SQLite).
 */

const reasons = ['daily', 'asked', 'before-upgrade', 'before-restore', 'rescued'] as const;
export type BackupReason = (typeof reasons)[number];

const NAME = /^\d{8}-\d{6}-\d{3}-[a-z-]{1,20}$/;

export const slipSchema = z.object({
  name: z.string().regex(NAME),
  at: z.number(),
  reason: z.enum(reasons),
  bytes: z.number(),
  sha256: z.string(),
  drawings: z.number(),
  changes: z.number(),
  /** How many of its drawings did not open as they should when it was taken. */
  findings: z.number().default(0),
  /** The hashes of the pictures that it knows. */
  pictures: z.array(z.string().regex(/^[0-9a-f]{64}$/)),
});
export type Backup = z.infer<typeof slipSchema>;

/** So many of each kind are kept; of the daily ones more, the older the farther apart. */
const MOST: Record<BackupReason, number> = {
  daily: 7,
  asked: 10,
  'before-upgrade': 3,
  'before-restore': 3,
  rescued: 5,
};
const MOST_DAMAGED = 3;
/** However little room there is, so many of the newest sound ones stay. */
const FEWEST = 2;
/** So many times what the database takes is left free for it, and for what is copied. */
const ROOM = 3;
const WEEKS = 4;
const DAY_MS = 24 * 60 * 60 * 1000;

export const backupFile = (place: string, name: string): string => path.join(backupsFolder(place), `${name}.sqlite`);
export const slipFile = (place: string, name: string): string => path.join(backupsFolder(place), `${name}.json`);
const keptPictures = (place: string): string => path.join(backupsFolder(place), 'pictures');

/**
 * Takes a backup of the data folder at `place`; `client` is its open database, or one is opened. Where room is short older ones
 * go first, but not the one that is named `sparing`.
 * @throws Error where the copy is not sound: then there is none.
 */
export function backupNow(
  place: string,
  reason: BackupReason,
  client: Database.Database = new Database(databaseFile(place), { fileMustExist: true }),
  now = Date.now(),
  sparing?: string,
): Backup {
  makeRoom(place, sparing);
  const name = `${stamp(now)}-${reason}`;
  made(backupsFolder(place));
  const temporary = `${backupFile(place, name)}.new`;
  try {
    client.prepare('vacuum into ?').run(temporary);
    const holds = lookInto(temporary);
    const slip: Backup = { name, at: now, reason, ...holds, ...measured(temporary) };
    keepPictures(place, slip.pictures);
    putInPlace(temporary, backupFile(place, name));
    writeWhole(slipFile(place, name), JSON.stringify(slip));
    prune(place, now);
    return slip;
  } finally {
    rmSync(temporary, { force: true });
  }
}

const measured = (file: string): Pick<Backup, 'bytes' | 'sha256'> => ({
  bytes: statSync(file).size,
  sha256: sha256Of(file),
});

/** What a database file holds. @throws Error where it is not sound. */
function lookInto(file: string): Pick<Backup, 'drawings' | 'changes' | 'findings' | 'pictures'> {
  const client = new Database(file, { readonly: true });
  try {
    const found = client.pragma('quick_check(1)', { simple: true });
    if (found !== 'ok') throw new Error(`The copy is damaged: ${String(found)}`);
    const pictures = client.prepare('select hash from pictures').pluck().all() as string[];
    let findings = 0;
    const counts = checkDrawings(client, (_, __, opens) => !opens && findings++);
    return { ...counts, findings, pictures };
  } finally {
    client.close();
  }
}

/** Pictures are linked: a backup takes no room for them until the one in use is gone. */
function keepPictures(place: string, hashes: readonly string[]): void {
  const to = made(keptPictures(place));
  for (const hash of hashes) {
    const [from, file] = [path.join(picturesFolder(place), hash), path.join(to, hash)];
    if (existsSync(file) || !existsSync(from)) continue;
    linkOrCopy(from, file);
  }
  synced(to);
}

function linkOrCopy(from: string, to: string): void {
  try {
    linkSync(from, to);
  } catch {
    copyFileSync(from, to);
  }
}

/** All backups that are there, the newest first. */
export function listBackups(place: string): Backup[] {
  return namesIn(backupsFolder(place))
    .flatMap((file): Backup[] => {
      const name = file.replace(/\.json$/, '');
      if (!file.endsWith('.json') || !NAME.test(name) || !existsSync(backupFile(place, name))) return [];
      try {
        return [slipSchema.parse(JSON.parse(readFileSync(slipFile(place, name), 'utf8')))];
      } catch {
        return [];
      }
    })
    .sort((a, b) => b.at - a.at);
}

/** Whether a backup's bytes are as they were when it was taken. */
export function isSound(place: string, { name, bytes, sha256 }: Backup): boolean {
  const now = measured(backupFile(place, name));
  return now.bytes === bytes && now.sha256 === sha256;
}

/** Which backups can go: each kind has its number, and of the daily ones one a week is kept for some weeks more. */
export function outgrownBackups(all: readonly Backup[], now: number): Backup[] {
  const kept = new Set<Backup>(
    reasons.flatMap((r) => all.filter((b) => b.reason === r && b.findings === 0).slice(0, MOST[r])),
  );
  // What is damaged does not push out what is sound; the newest such may hold what nothing else does.
  for (const b of all.filter((b) => b.findings > 0).slice(0, MOST_DAMAGED)) kept.add(b);
  const weeks = new Set<number>();
  for (const backup of all) {
    const week = Math.floor((now - backup.at) / (7 * DAY_MS));
    if (backup.reason !== 'daily' || backup.findings > 0 || week >= WEEKS || weeks.has(week)) continue;
    weeks.add(week);
    kept.add(backup);
  }
  return all.filter((b) => !kept.has(b));
}

function prune(place: string, now: number): void {
  for (const { name } of outgrownBackups(listBackups(place), now)) drop(place, name);
  const named = new Set(listBackups(place).flatMap((b) => b.pictures));
  for (const hash of namesIn(keptPictures(place)))
    if (!named.has(hash)) rmSync(path.join(keptPictures(place), hash), { force: true });
}

function drop(place: string, name: string): void {
  rmSync(slipFile(place, name), { force: true });
  rmSync(backupFile(place, name), { force: true });
}

const freeOn = (place: string): number => {
  const { bavail, bsize } = statfsSync(place);
  return bavail * bsize;
};

/**
 * Lets go of the oldest backups while there is not room enough for the drawings themselves: backups must not be what fills the
 * disk. The newest sound ones stay, and the one named `sparing`.
 */
export function makeRoom(place: string, sparing?: string, free: () => number = () => freeOn(place)): void {
  const needed = ROOM * databaseFiles(place).reduce((n, f) => n + bytesIn(f), 0);
  const all = listBackups(place);
  const kept = new Set(all.filter((b) => b.findings === 0).slice(0, FEWEST));
  const spare = all.filter((b) => !kept.has(b) && b.name !== sparing);
  while (spare.length > 0 && free() < needed) drop(place, spare.pop()!.name);
}

/** Gives back the pictures of a backup that are gone, or are not as they came. How many those were. */
export function putPicturesBack(place: string, { pictures }: Backup): number {
  const folder = made(picturesFolder(place));
  const missing = pictures.filter(
    (hash) => !existsSync(path.join(folder, hash)) && existsSync(path.join(keptPictures(place), hash)),
  );
  for (const hash of missing) linkOrCopy(path.join(keptPictures(place), hash), path.join(folder, hash));
  synced(folder);
  return missing.length;
}

/** When the next daily one is due: a day after the last of any kind. */
export const isBackupDue = (place: string, now: number): boolean => {
  const [last] = listBackups(place);
  return !last || now - last.at >= DAY_MS;
};
