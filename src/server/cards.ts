import { createHash } from 'node:crypto';
import { readdir, readFile, rm, writeFile } from 'node:fs/promises';
import path from 'node:path';
import type { Drawing } from '@/core';
import { isKept, keepDerived } from './derived';
import { folder } from './place';
import { prepared } from './prepared';
import { renderCard } from './render';

/** What a drawing's picture at a revision is of: its past counts as well, for a backup that is put back gives it another. */
export function stateKey(id: string, revision: number): string {
  const last = prepared().row.get({ id, revision });
  // None of it comes from the row as it stands: it goes into the name of a file.
  const past = last && createHash('sha256').update(`${last.changeId} ${last.digest}`).digest('hex').slice(0, 16);
  return `${revision}-${past ?? 'first'}`;
}

const fileOf = (id: string, revision: number): string =>
  path.join(folder('derived'), `${id}-${stateKey(id, revision)}-card.webp`);
const underway = new Map<string, Promise<Uint8Array>>();

/** The picture on a drawing's card as it was at a revision: made once, and kept. WebP. */
export async function cardPicture(id: string, revision: number, drawing: () => Drawing): Promise<Uint8Array> {
  const file = fileOf(id, revision);
  if (await isKept(file)) return readFile(file);
  let making = underway.get(file);
  if (!making) {
    making = make(file, drawing).finally(() => underway.delete(file));
    underway.set(file, making);
  }
  return making;
}

async function make(file: string, drawing: () => Drawing): Promise<Uint8Array> {
  const made = await renderCard(drawing());
  await keepDerived(file, (temporary) => writeFile(temporary, made));
  return made;
}

/** Throws away a drawing's pictures of other revisions than these. */
export async function dropCardPictures(id: string, except: ReadonlySet<number> = new Set()): Promise<void> {
  const place = folder('derived');
  const own = new RegExp(`^${id}-(\\d+)(-\\w+)?-card\\.webp$`);
  for (const name of await readdir(place)) {
    const revision = own.exec(name)?.[1];
    if (revision !== undefined && !except.has(Number(revision))) await rm(path.join(place, name), { force: true });
  }
}
