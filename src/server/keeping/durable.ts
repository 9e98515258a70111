import { closeSync, fsyncSync, openSync, renameSync, writeFileSync } from 'node:fs';
import path from 'node:path';

/** What must outlive a loss of power: a file's bytes are on the disk before it has its name, and then its name is. */

/** Has the disk hold what is in a file, or which names are in a folder. */
export function synced(file: string): void {
  const handle = openSync(file, 'r');
  try {
    fsyncSync(handle);
  } finally {
    closeSync(handle);
  }
}

/** Gives a file that is written whole its place. */
export function putInPlace(temporary: string, file: string): void {
  synced(temporary);
  renameSync(temporary, file);
  synced(path.dirname(file));
}

/** Writes a small file as a whole, or not at all. */
export function writeWhole(file: string, text: string): void {
  const temporary = `${file}.${process.pid}.new`;
  writeFileSync(temporary, text);
  putInPlace(temporary, file);
}
