import { existsSync, mkdirSync, readdirSync, statSync } from 'node:fs';
import path from 'node:path';

/** Where things lie in a data folder. */

export const databaseFile = (place: string): string => path.join(place, 'yellow-quill.sqlite');
/** The database and what goes with it while it is open. */
export const databaseFiles = (place: string): string[] =>
  ['', '-wal', '-shm'].map((end) => `${databaseFile(place)}${end}`);
export const picturesFolder = (place: string): string => path.join(place, 'pictures');
export const backupsFolder = (place: string): string => path.join(place, 'backups');
/** What was in the way of something that was put back; nothing in it is ever overwritten. */
export const asideFolder = (place: string): string => path.join(place, 'aside');
/** How many changes were acknowledged, kept beside the database. */
export const witnessFile = (place: string): string => path.join(place, 'acknowledged');
/** The number of the process that has the folder open. */
export const runningFile = (place: string): string => path.join(place, 'running');
export const reportFile = (place: string): string => path.join(place, 'checked.json');
/** What is kept elsewhere too, as it was last seen. */
export const elsewhereFile = (place: string): string => path.join(place, 'elsewhere.json');
export const lossFile = (place: string): string => path.join(place, 'lost.json');

export function made(folder: string): string {
  mkdirSync(folder, { recursive: true });
  return folder;
}

export const namesIn = (folder: string): string[] => (existsSync(folder) ? readdirSync(folder) : []);

/** A moment as it stands in names of files: `20261129-060730-120`. */
export const stamp = (at: number): string =>
  new Date(at).toISOString().replace(/[-:Z]/g, '').replace('T', '-').replace('.', '-');

/** The moment that a name has; NaN for another name. */
export function momentIn(name: string): number {
  const parts = /^(\d{4})(\d\d)(\d\d)-(\d\d)(\d\d)(\d\d)-(\d{3})$/.exec(name);
  if (!parts) return NaN;
  const [year, month, day, hour, minute, second, ms] = parts.slice(1).map(Number);
  return Date.UTC(year, month - 1, day, hour, minute, second, ms);
}

/** How many bytes a file has, or all that lies in a folder and the folders in it; 0 where nothing is there. */
export function bytesIn(place: string): number {
  const found = statSync(place, { throwIfNoEntry: false });
  if (!found?.isDirectory()) return found?.size ?? 0;
  return readdirSync(place).reduce((sum, name) => sum + bytesIn(path.join(place, name)), 0);
}
