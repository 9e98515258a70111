import { copyFileSync, existsSync, renameSync, rmSync } from 'node:fs';
import path from 'node:path';
import { backupFile, isSound, makeRoom, putPicturesBack, type Backup } from './backups';
import { putInPlace, synced } from './durable';
import { asideFolder, databaseFile, databaseFiles, lossFile, made, stamp, witnessFile } from './places';
import { endWitness } from './witness';

/**
 * Puts a backup in the place of the database, which nobody has open; what was there goes aside, and is not lost. Gives the
 * folder that it went to, null where nothing was there. @throws Error for a backup that is not as it was taken: then nothing is done.
 */
export function restoreBackup(place: string, backup: Backup, now = Date.now()): { aside: string | null } {
  if (!isSound(place, backup)) throw new Error(`The backup ${backup.name} is damaged. Nothing was changed.`);
  makeRoom(place, backup.name);
  const fresh = `${databaseFile(place)}.restored`;
  try {
    copyFileSync(backupFile(place, backup.name), fresh);
    putPicturesBack(place, backup);
    const aside = putAside(place, now);
    putInPlace(fresh, databaseFile(place));
    return { aside };
  } finally {
    rmSync(fresh, { force: true });
  }
}

/** Moves the database out of the way, with what goes with it. */
export function putAside(place: string, now = Date.now()): string | null {
  endWitness();
  const files = [...databaseFiles(place), witnessFile(place), lossFile(place)].filter((f) => existsSync(f));
  if (files.length === 0) return null;
  const to = made(path.join(asideFolder(place), stamp(now)));
  for (const file of files) renameSync(file, path.join(to, path.basename(file)));
  synced(to);
  synced(place);
  return to;
}
