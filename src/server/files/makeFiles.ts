import { createWriteStream } from 'node:fs';
import { rm, stat, writeFile } from 'node:fs/promises';
import { pipeline } from 'node:stream/promises';
import { nanoid } from 'nanoid';
import { ZipFile } from 'yazl';
import type { Drawing } from '@/core';
import type { Delivery } from '@/core/deliver/delivery';
import { fileName, filesOf, type WantedFile } from '@/core/deliver/files';
import { mimeOf } from '@/core/formats/fileFormats';
import { cardOf } from '../drawings';
import { stateOf } from '../journal';
import { Problem } from '../problem';
import { exportedDrawing } from '../render';
import { addJob, dropJob, dropOldest, jobFile, jobOf, setJob, settleLeftovers, type Job } from './jobRows';

/** What is asked for at once: a delivery, and what its files are called beside the drawing's title. */
export type WantedDelivery = { readonly name: string; readonly wanted: Delivery };

const MOST_FILES = 500;

type UnderWay = { stop: AbortController; done: Promise<void> };
const kept = globalThis as typeof globalThis & {
  yellowQuillFiles?: Map<string, UnderWay>;
  yellowQuillSettled?: boolean;
};
const underWay = (kept.yellowQuillFiles ??= new Map());

/**
 * Begins to make files of a drawing as it is now: one alone, several as a zip. It goes on when nobody looks, and is found again.
 * @throws Problem 400 when there is nothing to make or too much, 404 for a drawing that is not there.
 */
export async function beginFiles(drawingId: string, deliveries: readonly WantedDelivery[]): Promise<Job> {
  await settleOnce();
  const { title, revision } = cardOf(drawingId);
  const { drawing } = stateOf(drawingId, revision);
  const files = wantedFiles(drawing, title, deliveries);
  const [only] = files;
  const isOne = files.length === 1;
  const job: Job = {
    id: nanoid(16),
    drawingId,
    revision,
    state: 'waiting',
    made: 0,
    total: files.length,
    name: isOne ? only.name : fileName([title], 'zip'),
    mime: isOne ? mimeOf[only.wanted.format] : 'application/zip',
    bytes: null,
    reason: null,
    at: Date.now(),
    endedAt: null,
  };
  addJob(job);
  const stop = new AbortController();
  const done = make(job, title, files, stop.signal)
    .catch(async (error: unknown) => {
      await rm(jobFile(job.id), { force: true });
      const isTold = error instanceof Problem || error instanceof RangeError;
      if (!isTold) console.error(error);
      const reason = isTold ? error.message : 'It could not be made.';
      setJob(job.id, { state: 'failed', reason, endedAt: Date.now() });
    })
    .finally(() => underWay.delete(job.id));
  underWay.set(job.id, { stop, done });
  await dropOldest(drawingId);
  return job;
}

/** Calls a job off, or forgets one that has ended. @throws Problem 404. */
export async function dropFiles(id: string): Promise<void> {
  jobOf(id);
  const going = underWay.get(id);
  going?.stop.abort();
  await going?.done;
  await dropJob(id);
}

/** Whatever was under way when the program was stopped is told as failed, once. */
export async function settleOnce(): Promise<void> {
  if (kept.yellowQuillSettled) return;
  kept.yellowQuillSettled = true;
  await settleLeftovers((id) => underWay.has(id));
}

type NamedFile = WantedFile & { readonly wanted: Delivery };

function wantedFiles(drawing: Drawing, title: string, deliveries: readonly WantedDelivery[]): NamedFile[] {
  const taken = new Set<string>();
  try {
    const files = deliveries.flatMap(({ name, wanted }) =>
      filesOf(drawing, wanted).map((f) => ({
        ...f,
        wanted,
        name: fileName([title, name, f.name], wanted.format, taken),
      })),
    );
    if (files.length > MOST_FILES)
      throw new Problem(400, 'too-many', `These would be ${files.length} files; ${MOST_FILES} can be made at once.`);
    return files;
  } catch (error) {
    if (error instanceof RangeError) throw new Problem(400, 'nothing', `No file can be made: ${error.message}.`);
    throw error;
  }
}

async function make(job: Job, title: string, files: readonly NamedFile[], signal: AbortSignal): Promise<void> {
  const bytesOf = ({ drawing, beside, wanted }: NamedFile): Promise<Uint8Array> =>
    exportedDrawing(drawing, wanted, { title, ...(beside && { beside }) }, { signal });
  setJob(job.id, { state: 'working' });
  const place = jobFile(job.id);
  if (files.length === 1) await writeFile(place, await bytesOf(files[0]));
  else await zipped(place, files, bytesOf, (made) => setJob(job.id, { made }));
  const { size } = await stat(place);
  setJob(job.id, { state: 'done', made: files.length, bytes: size, endedAt: Date.now() });
}

/** Files put into a zip one after the other, so that no more than one of them is held. */
async function zipped(
  place: string,
  files: readonly NamedFile[],
  bytesOf: (file: NamedFile) => Promise<Uint8Array>,
  onMade: (count: number) => void,
): Promise<void> {
  const zip = new ZipFile();
  const written = pipeline(zip.outputStream, createWriteStream(place));
  // It is waited for at the end: until then a file that cannot be made goes before.
  written.catch(() => undefined);
  for (const [i, file] of files.entries()) {
    const bytes = await bytesOf(file);
    // Text is packed; pictures are already.
    zip.addBuffer(Buffer.from(bytes), file.name, { compress: file.wanted.format === 'svg' });
    onMade(i + 1);
  }
  zip.end();
  await written;
}
