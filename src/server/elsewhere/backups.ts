import { randomUUID } from 'node:crypto';
import { readFile, rm } from 'node:fs/promises';
import path from 'node:path';
import { backupFile, listBackups, outgrownBackups, slipFile, slipSchema, type Backup } from '../keeping/backups';
import { streamedSha256 } from '../keeping/digest';
import { putInPlace, writeWhole } from '../keeping/durable';
import { backupsFolder, made } from '../keeping/places';
import { configuredStore, type Kept, type ObjectStore } from './objectStore';
import { isHash, sendPictures } from './pictures';
import { forgetFailure, lastSeen, noteSeen, wordsOf, type Elsewhere } from './reach';

/** Backups elsewhere: a database and its slip, as here; a slip is sent last, so that what has one is whole. */

const nameOf = (name: string, kind: 'sqlite' | 'json'): string => `backups/${name}.${kind}`;

/**
 * Sends all that is kept here and not there, and takes away there what is outgrown; `known` are the pictures that the database
 * names. Null where no store is named. A store that fails is told of in what is given, and tried again the next time.
 */
export async function sendElsewhere(
  place: string,
  known: () => readonly string[],
  now = Date.now(),
): Promise<Elsewhere | null> {
  const before = lastSeen(place);
  if (!before) return null;
  try {
    const store = (await configuredStore())!;
    // What is there is listed before it is asked which pictures are known: one that came meanwhile is not taken away.
    const pictures = await store.list('pictures/');
    await sendPictures(store, place, pictures);
    const files = await store.list('backups/');
    for (const backup of listBackups(place)) await sendBackup(store, place, backup, files);
    const kept = await pruned(store, await slipsIn(store, place), pictures, known(), now);
    const all = await store.list('pictures/');
    const seen: Elsewhere = {
      where: store.where,
      at: now,
      pictures: all.size,
      backups: kept.map(({ pictures: _, ...rest }) => rest),
      bytes: [...all.values(), ...kept].reduce((sum, { bytes }) => sum + bytes, 0),
      trouble: null,
    };
    forgetFailure();
    noteSeen(place, seen);
    return seen;
  } catch (error) {
    const seen = { ...before, trouble: wordsOf(error) };
    noteSeen(place, seen);
    return seen;
  }
}

async function sendBackup(
  store: ObjectStore,
  place: string,
  { name, bytes, sha256 }: Backup,
  there: ReadonlyMap<string, Kept>,
): Promise<void> {
  if (there.has(nameOf(name, 'json')) && there.get(nameOf(name, 'sqlite'))?.bytes === bytes) return;
  // One that is damaged here by now is not sent.
  if ((await streamedSha256(backupFile(place, name))) !== sha256) return;
  await store.put(nameOf(name, 'sqlite'), backupFile(place, name), sha256);
  await store.put(nameOf(name, 'json'), slipFile(place, name), await streamedSha256(slipFile(place, name)));
}

/** The backups there, the newest first. @throws Error for a slip that cannot be read: then nothing is taken away. */
async function slipsIn(store: ObjectStore, place: string): Promise<Backup[]> {
  const files = await store.list('backups/');
  const found: Backup[] = [];
  for (const file of files.keys()) {
    if (!file.endsWith('.json')) continue;
    const slip = await slipOf(store, place, file);
    if (slip && files.has(nameOf(slip.name, 'sqlite'))) found.push(slip);
  }
  return found.sort((a, b) => b.at - a.at);
}

async function slipOf(store: ObjectStore, place: string, file: string): Promise<Backup | null> {
  const temporary = path.join(made(backupsFolder(place)), `${randomUUID()}.new`);
  try {
    if (!(await store.get(file, temporary))) return null;
    const slip = slipSchema.parse(JSON.parse(await readFile(temporary, 'utf8')));
    if (nameOf(slip.name, 'json') !== file) throw new Error(`The slip ${file} elsewhere is of another backup.`);
    return slip;
  } finally {
    await rm(temporary, { force: true });
  }
}

/** A picture that nothing names stays for so long: a browser may still give again what names it, ms. */
const PATIENCE_MS = 30 * 24 * 60 * 60 * 1000;

/** Takes away what no rule keeps, and old pictures that neither a backup nor the database names. Gives the backups that stay. */
async function pruned(
  store: ObjectStore,
  all: readonly Backup[],
  pictures: ReadonlyMap<string, Kept>,
  known: readonly string[],
  now: number,
): Promise<Backup[]> {
  const gone = new Set(outgrownBackups(all, now));
  const kept = all.filter((b) => !gone.has(b));
  const named = new Set([...known, ...kept.flatMap((b) => b.pictures)].map((hash) => `pictures/${hash}`));
  const unnamed = [...pictures].flatMap(([name, { at }]) =>
    isHash(path.posix.basename(name)) && !named.has(name) && now - at > PATIENCE_MS ? [name] : [],
  );
  // The slip goes first: what has one is whole.
  for (const kind of ['json', 'sqlite'] as const) await store.remove([...gone].map((b) => nameOf(b.name, kind)));
  await store.remove(unnamed);
  return kept;
}

/**
 * Brings a backup that is only elsewhere. @throws Error where it is not there, or not as it was taken; then nothing is kept of it.
 */
export async function bringBackup(place: string, name: string): Promise<Backup> {
  const store = await configuredStore();
  const slip = store && (await slipOf(store, place, nameOf(name, 'json')));
  if (!store || !slip) throw new Error(`There is no backup ${name} elsewhere.`);
  const temporary = `${backupFile(place, slip.name)}.new`;
  try {
    const isThere = await store.get(nameOf(name, 'sqlite'), temporary);
    if (!isThere || (await streamedSha256(temporary)) !== slip.sha256)
      throw new Error(`The backup ${name} elsewhere is damaged. Nothing was changed.`);
    putInPlace(temporary, backupFile(place, slip.name));
    writeWhole(slipFile(place, slip.name), JSON.stringify(slip));
    return slip;
  } finally {
    await rm(temporary, { force: true });
  }
}

/** All backups there are, here or elsewhere, the newest first. @throws what the store says. */
export async function allBackups(place: string): Promise<Backup[]> {
  const here = listBackups(place);
  const store = await configuredStore();
  const there = store ? await slipsIn(store, place) : [];
  const names = new Set(here.map((b) => b.name));
  return [...here, ...there.filter((b) => !names.has(b.name))].sort((a, b) => b.at - a.at);
}
