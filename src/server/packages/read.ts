import { createHash, randomUUID } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { rm } from 'node:fs/promises';
import path from 'node:path';
import { Readable, Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { nanoid } from 'nanoid';
import { openPromise, type Entry, type ZipFile } from 'yauzl';
import { upgradeDrawing, type Drawing } from '@/core';
import { upgradedChange } from '@/core/change/upgradeChange';
import { SCHEMA_VERSION } from '@/core/drawing/schema';
import { goneBackTo } from '@/core/edits/diff';
import { keepHistory, type KeptChange } from '../drawings';
import { fitting } from '../planned';
import { takePicture } from '../pictures';
import { folder } from '../place';
import { Problem } from '../problem';
import { FILE_NAME, manifestSchema, PACKAGE_VERSION, rowSchema, type Manifest } from './manifest';

const MOST_BYTES = 2 * 1024 ** 3;
const MOST_ENTRIES = 100_000;
/** A text in a package is no longer than this, bytes. */
const MOST_TEXT = 400 * 1024 ** 2;
/** Whoever saves goes in between so many changes. */
const AT_ONCE = 100;

/** What came in, and in words what of it was damaged. */
export type Unpacked = { drawings: { id: string; title: string }[]; lost: string[] };

/**
 * Takes a package in: each drawing with its history, as a new one. Of a damaged package all is kept that can be read, and the rest
 * is said. @throws Problem 400 for what is no package, or one of which nothing can be read; 413 for one that is too large.
 */
export async function unpackPackage(body: ReadableStream<Uint8Array> | null): Promise<Unpacked> {
  if (!body) throw new Problem(400, 'empty', 'The file is empty. Nothing was brought in.');
  const file = path.join(folder('incoming'), randomUUID());
  try {
    await pipeline(Readable.fromWeb(body as never), gauge(), createWriteStream(file));
    const zip = await openPromise(file, { lazyEntries: true, autoClose: false }).catch(() => {
      throw new Problem(400, 'no-package', 'This is no package, or it is cut short. Nothing was brought in.');
    });
    try {
      return await unpacked(new Files(zip));
    } finally {
      zip.close();
    }
  } finally {
    await rm(file, { force: true });
  }
}

function gauge(): Transform {
  let bytes = 0;
  return new Transform({
    transform(chunk: Buffer, _, done) {
      bytes += chunk.length;
      const isTooLarge = bytes > MOST_BYTES;
      done(isTooLarge ? new Problem(413, 'too-large', 'The package is larger than 2 GB.') : null, chunk);
    },
  });
}

/** The files of a package by name; only those that a package has. */
class Files {
  private readonly entries = new Map<string, Entry>();

  constructor(private readonly zip: ZipFile) {}

  async list(): Promise<void> {
    let count = 0;
    try {
      for await (const entry of this.zip.eachEntry()) {
        if (++count > MOST_ENTRIES) break;
        if (FILE_NAME.test(entry.fileName) && !this.entries.has(entry.fileName))
          this.entries.set(entry.fileName, entry);
      }
    } catch {
      // What was listed so far is there; the rest is missed where it is named.
    }
  }

  has = (name: string): boolean => this.entries.has(name);

  stream(name: string): Promise<Readable> {
    const entry = this.entries.get(name);
    return entry ? this.zip.openReadStreamPromise(entry) : Promise.reject(new Error('it is missing'));
  }

  /** A text, as far as it can be read, and whether it is what the manifest says. */
  async text(name: string, files: Manifest['files']): Promise<{ text: string; isWhole: boolean }> {
    const chunks: Buffer[] = [];
    let bytes = 0;
    let isWhole = true;
    try {
      for await (const chunk of (await this.stream(name)) as AsyncIterable<Buffer>) {
        bytes += chunk.length;
        if (bytes > MOST_TEXT) throw new Error('it is too long');
        chunks.push(chunk);
      }
    } catch {
      isWhole = false;
    }
    const all = Buffer.concat(chunks);
    const told = files[name];
    const isAsTold = !told || createHash('sha256').update(all).digest('hex') === told.sha256;
    return { text: all.toString('utf8'), isWhole: isWhole && isAsTold };
  }
}

async function unpacked(files: Files): Promise<Unpacked> {
  await files.list();
  const manifest = await manifestOf(files);
  const result: Unpacked = { drawings: [], lost: [] };
  await takePictures(files, manifest, result.lost);
  for (const told of manifest.drawings) {
    const id = await takeDrawing(files, manifest, told, result.lost);
    if (id) result.drawings.push({ id, title: told.title });
  }
  if (result.drawings.length === 0)
    throw new Problem(400, 'damaged', `Nothing in this package can be read: ${result.lost.join('; ')}.`);
  return result;
}

async function manifestOf(files: Files): Promise<Manifest> {
  const { text } = await files.text('manifest.json', {});
  let raw: unknown;
  try {
    raw = JSON.parse(text);
  } catch {
    throw new Problem(
      400,
      'no-package',
      'This is no package: what it holds is not told in it. Nothing was brought in.',
    );
  }
  const version = (raw as { version?: unknown } | null)?.version;
  const read = manifestSchema.safeParse(raw);
  if (read.success) return read.data;
  const isNewer = typeof version === 'number' && version > PACKAGE_VERSION;
  throw new Problem(
    400,
    isNewer ? 'newer' : 'no-package',
    isNewer
      ? 'This package was made by a newer program. Nothing was brought in.'
      : 'This is no package of drawings. Nothing was brought in.',
  );
}

async function takePictures(files: Files, manifest: Manifest, lost: string[]): Promise<void> {
  let missed = 0;
  for (const name of Object.keys(manifest.files)) {
    if (!name.startsWith('pictures/')) continue;
    try {
      const stream = Readable.toWeb(await files.stream(name)) as ReadableStream<Uint8Array>;
      const { hash } = await takePicture(stream, manifest.files[name].bytes);
      if (hash !== name.slice('pictures/'.length)) missed++;
    } catch (error) {
      if (error instanceof Problem && error.status >= 500) throw error;
      missed++;
    }
  }
  if (missed > 0) lost.push(`${missed} ${missed === 1 ? 'picture is' : 'pictures are'} damaged or missing`);
}

type Told = Manifest['drawings'][number];

async function takeDrawing(files: Files, manifest: Manifest, told: Told, lost: string[]): Promise<string | null> {
  const first = drawingIn(await files.text(`${told.folder}/first.json`, manifest.files));
  const newest = drawingIn(await files.text(`${told.folder}/drawing.json`, manifest.files));
  const named = `“${told.title || 'Untitled'}”`;
  if (!first && !newest) {
    lost.push(`${named} cannot be read`);
    return null;
  }
  const start = first ?? newest!;
  const { text, isWhole } = await files.text(`${told.folder}/changes.jsonl`, manifest.files);
  const history = first ? await replayed(start, text) : { changes: [], drawing: start };
  const isAll = isWhole && first !== null && history.changes.length === told.revision;
  if (!isAll) {
    const from = history.changes.length + 1;
    lost.push(first ? `of the history of ${named} the changes from ${from} on` : `the history of ${named}`);
    // What the drawing came to is there all the same.
    const edit = newest && first && goneBackTo(history.drawing, newest, 'the package');
    if (edit && edit.steps.length > 0) {
      const change = { id: nanoid(12), ...edit };
      history.drawing = fitting(history.drawing, change);
      history.changes.push({ change, at: told.changedAt, schema: SCHEMA_VERSION });
    }
  }
  const { title, stage, createdAt, changedAt } = told;
  const versions = told.versions.filter((v) => v.revision <= history.changes.length);
  return keepHistory({ title: title || 'Untitled', stage, createdAt, changedAt }, start, history, versions);
}

function drawingIn({ text }: { text: string }): Drawing | null {
  try {
    return upgradeDrawing(JSON.parse(text));
  } catch {
    return null;
  }
}

/** The changes of a history that follow each other and fit, from the first on, and what they come to. */
async function replayed(first: Drawing, text: string): Promise<{ changes: KeptChange[]; drawing: Drawing }> {
  const changes: KeptChange[] = [];
  let drawing = first;
  for (const line of text === '' ? [] : text.split('\n')) {
    try {
      const row = rowSchema.parse(JSON.parse(line));
      if (row.revision !== changes.length + 1) break;
      drawing = fitting(drawing, upgradedChange(row.change, row.schema));
      changes.push({ change: row.change as KeptChange['change'], at: row.at, schema: row.schema });
    } catch {
      break;
    }
    if (changes.length % AT_ONCE === 0) await new Promise((done) => setImmediate(done));
  }
  return { changes, drawing };
}
