import { readdir, rm } from 'node:fs/promises';
import path from 'node:path';
import { eq, lt } from 'drizzle-orm';
import { database } from './database';
import { originalFile } from './originals';
import { folder } from './place';
import { inflated } from './snapshotBody';
import { drawings, journal, pictures, snapshots } from './tables';

/** A picture that no drawing names is kept for so long after it was brought in: it may be about to be placed. */
export const PATIENCE_MS = 7 * 24 * 60 * 60 * 1000;

const HASHES = /"picture":"([0-9a-f]{64})"/g;

/**
 * Frees the pictures that nothing names any more: no state of any drawing, in the bin or out of it, and nothing that could be
 * undone or gone back to. Gives their hashes.
 */
export async function freeUnnamedPictures(now = Date.now()): Promise<string[]> {
  const old = database()
    .select({ hash: pictures.hash })
    .from(pictures)
    .where(lt(pictures.at, now - PATIENCE_MS))
    .all();
  const unnamed = new Set(old.map((p) => p.hash));
  for (const { id } of database().select({ id: drawings.id }).from(drawings).all()) {
    if (unnamed.size === 0) return [];
    for (const hash of namedBy(id)) unnamed.delete(hash);
    // One drawing at a time: whoever saves goes in between.
    await new Promise((done) => setImmediate(done));
  }
  for (const hash of unnamed) await free(hash);
  return [...unnamed];
}

function namedBy(id: string): Set<string> {
  const named = new Set<string>();
  const read = (text: string): void => {
    for (const [, hash] of text.matchAll(HASHES)) named.add(hash);
  };
  for (const { body } of database()
    .select({ body: snapshots.body })
    .from(snapshots)
    .where(eq(snapshots.drawingId, id))
    .all())
    read(inflated(body).toString('latin1'));
  for (const { body } of database().select({ body: journal.body }).from(journal).where(eq(journal.drawingId, id)).all())
    read(body);
  return named;
}

async function free(hash: string): Promise<void> {
  database().delete(pictures).where(eq(pictures.hash, hash)).run();
  await rm(originalFile(hash), { force: true });
  const derived = folder('derived');
  for (const name of await readdir(derived))
    if (name.startsWith(hash)) await rm(path.join(derived, name), { force: true });
}
