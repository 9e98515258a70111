import { once } from 'node:events';
import { createWriteStream } from 'node:fs';
import { rm, stat, writeFile } from 'node:fs/promises';
import { pipeline } from 'node:stream/promises';
import { nanoid } from 'nanoid';
import { ZipFile } from 'yazl';
import { cardOf } from '../drawings';
import { stateOf } from '../journal';
import { logError } from '../log';
import { Problem } from '../problem';
import { leftOut } from './leftOut';
import { addJob, dropJob, dropOldest, jobFile, jobOf, setJob, settleLeftovers, type Job } from './jobRows';
import { isTextFile, piecesOf, wantedFiles, type NamedFile, type WantedDelivery } from './wantedFiles';

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
  const { files, name, mime } = wantedFiles(drawing, title, deliveries);
  const job: Job = {
    id: nanoid(16),
    drawingId,
    revision,
    state: 'waiting',
    made: 0,
    total: files.reduce((n, f) => n + f.weight, 0),
    name,
    mime,
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
      if (!(error instanceof Problem)) logError(error);
      const reason = error instanceof Problem ? error.message : 'It could not be made.';
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

async function make(job: Job, title: string, files: readonly NamedFile[], signal: AbortSignal): Promise<void> {
  setJob(job.id, { state: 'working' });
  const place = jobFile(job.id);
  const pieces = piecesOf(title, files, signal, (made) => setJob(job.id, { made }));
  if (job.mime !== 'application/zip') for await (const { bytes } of pieces) await writeFile(place, bytes);
  else await zipped(place, pieces);
  const { size } = await stat(place);
  const missing = await leftOut(files);
  const reason = missing && `Made without ${missing}.`;
  setJob(job.id, { state: 'done', made: job.total, bytes: size, reason, endedAt: Date.now() });
}

/** Files put into a zip one after the other, so that no more than one of them is held. */
async function zipped(place: string, pieces: AsyncIterable<{ name: string; bytes: Uint8Array }>): Promise<void> {
  const zip = new ZipFile();
  const file = createWriteStream(place);
  const written = pipeline(zip.outputStream, file);
  // It is waited for at the end: until then a file that cannot be made goes before.
  written.catch(() => undefined);
  try {
    for await (const { name, bytes } of pieces) zip.addBuffer(Buffer.from(bytes), name, { compress: isTextFile(name) });
    zip.end();
    await written;
  } catch (error) {
    // It may only be about to come: whoever takes it away finds it there, and closed.
    file.destroy();
    if (!file.closed) await once(file, 'close');
    throw error;
  }
}
