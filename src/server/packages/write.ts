import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { stat } from 'node:fs/promises';
import { Readable } from 'node:stream';
import { ZipFile } from 'yazl';
import { cardPicture } from '../cards';
import { cardOf } from '../drawings';
import { rowsOf, stateOf } from '../journal';
import { originalFile, soundOriginal } from '../originals';
import { listVersions } from '../versions';
import { PACKAGE_VERSION, type Manifest } from './manifest';

/** The time of all files: the first that a zip can tell. When a drawing was changed is told in the manifest. */
const BEGINNING = new Date(1980, 0, 1);
const PICTURE = /"picture":"([0-9a-f]{64})"/g;

/**
 * Drawings as a package: each with its whole history, its versions, its pictures as they came, and a preview. The same drawings
 * give the same bytes, on whatever machine. @throws Problem 404 for a drawing that is not there, 409 for one that is damaged.
 */
export async function packageOf(ids: readonly string[]): Promise<ReadableStream<Uint8Array>> {
  const zip = new ZipFile();
  const pictures = new Set<string>();
  const manifest: Manifest = { format: 'yquill', version: PACKAGE_VERSION, drawings: [], files: {} };
  const parts: { name: string; bytes: Buffer }[] = [];
  const add = (name: string, bytes: Buffer): void => void parts.push({ name, bytes });
  for (const [i, id] of ids.entries()) {
    const { title, stage, revision, createdAt, changedAt } = cardOf(id);
    const folder = `drawings/${i + 1}`;
    const { drawing } = stateOf(id, revision);
    const rows = rowsOf(id, 1).filter((r) => r.revision <= revision);
    const changes = rows.map(
      ({ revision: at, changeId, label, body, at: time, schema }) =>
        // The change is put in as it was written.
        `{"revision":${at},"id":${JSON.stringify(changeId)},"label":${JSON.stringify(label)},"at":${time},"schema":${schema},"change":${body}}`,
    );
    const texts = { first: ordered(stateOf(id, 0).drawing), changes: changes.join('\n'), now: ordered(drawing) };
    for (const text of Object.values(texts)) for (const [, hash] of text.matchAll(PICTURE)) pictures.add(hash);
    add(`${folder}/first.json`, Buffer.from(texts.first));
    add(`${folder}/changes.jsonl`, Buffer.from(texts.changes));
    add(`${folder}/drawing.json`, Buffer.from(texts.now));
    add(`${folder}/preview.webp`, Buffer.from(await cardPicture(id, revision, () => drawing)));
    const versions = listVersions(id)
      .toReversed()
      .map(({ name, note, revision: at, at: time }) => ({ name, ...(note && { note }), revision: at, at: time }));
    manifest.drawings.push({ folder, title, stage, revision, createdAt, changedAt, versions });
  }
  for (const { name, bytes } of parts) manifest.files[name] = { bytes: bytes.length, sha256: digest(bytes) };
  const kept = await keptPictures([...pictures].sort());
  for (const { hash, bytes } of kept) manifest.files[`pictures/${hash}`] = { bytes, sha256: hash };
  const options = { mtime: BEGINNING, mode: 0o100644, forceDosTimestamp: true };
  zip.addBuffer(Buffer.from(JSON.stringify(manifest, null, 1)), 'manifest.json', options);
  for (const { name, bytes } of parts) zip.addBuffer(bytes, name, options);
  // Pictures are packed as they are.
  for (const { hash } of kept)
    zip.addReadStreamLazy(`pictures/${hash}`, { ...options, compress: false }, (take) =>
      take(null, createReadStream(originalFile(hash))),
    );
  zip.end();
  return Readable.toWeb(zip.outputStream as Readable) as ReadableStream<Uint8Array>;
}

/** JSON whose keys are in their order, so that what is the same is written the same. */
const ordered = (value: unknown): string =>
  JSON.stringify(value, (_, v: unknown) =>
    v !== null && typeof v === 'object' && !Array.isArray(v)
      ? Object.fromEntries(Object.entries(v).sort(([a], [b]) => (a < b ? -1 : 1)))
      : v,
  );

const digest = (bytes: Buffer): string => createHash('sha256').update(bytes).digest('hex');

/** The pictures that are there as they came; one that has been lost is not in the package. */
async function keptPictures(hashes: readonly string[]): Promise<{ hash: string; bytes: number }[]> {
  const found = await Promise.all(
    hashes.map(async (hash) => {
      const file = await soundOriginal(hash);
      return file ? [{ hash, bytes: (await stat(file)).size }] : [];
    }),
  );
  return found.flat();
}
