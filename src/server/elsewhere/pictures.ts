import { randomUUID } from 'node:crypto';
import { existsSync, renameSync } from 'node:fs';
import { rm, stat } from 'node:fs/promises';
import path from 'node:path';
import { streamedSha256 } from '../keeping/digest';
import { putInPlace } from '../keeping/durable';
import { asideFolder, backupsFolder, made, namesIn, picturesFolder, stamp } from '../keeping/places';
import { dataFolder, folder } from '../place';
import type { Kept, ObjectStore } from './objectStore';
import { inPassing } from './reach';

/** Pictures elsewhere: by their SHA-256, as here. What is not as its name says is never sent, and never taken. */

const nameOf = (hash: string): string => `pictures/${hash}`;
export const isHash = (name: string): boolean => /^[0-9a-f]{64}$/.test(name);

/** Sends a picture that was just taken; whoever waits for it is not refused where that fails: the next round sends it. */
export const sendPicture = (hash: string): Promise<unknown> =>
  inPassing((store) => store.put(nameOf(hash), path.join(picturesFolder(dataFolder()), hash), hash));

const underway = new Map<string, Promise<boolean>>();

/** Brings a picture that is lost or damaged here; a damaged one is put aside. Whether it is here now. */
export function bringPicture(hash: string): Promise<boolean> {
  const known = underway.get(hash);
  if (known) return known;
  const bringing = inPassing((store) => brought(store, hash))
    .then((done) => done === true)
    .finally(() => underway.delete(hash));
  underway.set(hash, bringing);
  return bringing;
}

async function brought(store: ObjectStore, hash: string): Promise<boolean> {
  const place = dataFolder();
  const temporary = path.join(folder('incoming'), randomUUID());
  try {
    if (!(await store.get(nameOf(hash), temporary)) || (await streamedSha256(temporary)) !== hash) return false;
    const file = path.join(made(picturesFolder(place)), hash);
    if (existsSync(file)) renameSync(file, path.join(made(asideFolder(place)), `${stamp(Date.now())}-${hash}`));
    putInPlace(temporary, file);
    return true;
  } finally {
    await rm(temporary, { force: true });
  }
}

/** Brings those that are not here at all. */
export async function bringPictures(hashes: readonly string[]): Promise<void> {
  for (const hash of hashes) if (!existsSync(path.join(picturesFolder(dataFolder()), hash))) await bringPicture(hash);
}

/** Sends all pictures that are not there: those in use, and those that only backups name. */
export async function sendPictures(store: ObjectStore, place: string, there: ReadonlyMap<string, Kept>): Promise<void> {
  for (const from of [picturesFolder(place), path.join(backupsFolder(place), 'pictures')])
    for (const hash of namesIn(from)) {
      const file = path.join(from, hash);
      const bytes = isHash(hash) ? (await stat(file).catch(() => null))?.size : undefined;
      if (bytes === undefined || there.get(nameOf(hash))?.bytes === bytes) continue;
      if ((await streamedSha256(file)) === hash) await store.put(nameOf(hash), file, hash);
    }
}
