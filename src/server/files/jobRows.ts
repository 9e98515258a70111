import { readdir, rm, stat } from 'node:fs/promises';
import path from 'node:path';
import { desc, eq, inArray } from 'drizzle-orm';
import { database } from '../database';
import { folder } from '../place';
import { notFound } from '../problem';
import { handIns, jobs } from '../tables';

export type Job = typeof jobs.$inferSelect;
/** A job as it is told. */
export type ShownJob = Omit<Job, 'drawingId'>;

const FRESH_MS = 60_000;
/** A drawing keeps so many of its files; the oldest go. */
const MOST_KEPT = 20;

export const jobFile = (id: string): string => path.join(folder('made'), id);

/** @throws Problem 404. */
export function jobOf(id: string): Job {
  const row = database().select().from(jobs).where(eq(jobs.id, id)).get();
  if (!row) throw notFound('file');
  return row;
}

export const shownJob = ({ drawingId: _, ...job }: Job): ShownJob => job;

/** The jobs of a drawing, the last asked for first. */
export const jobsOf = (drawing: string): Job[] =>
  database().select().from(jobs).where(eq(jobs.drawingId, drawing)).orderBy(desc(jobs.at), desc(jobs.id)).all();

export const addJob = (job: Job): void => void database().insert(jobs).values(job).run();

/** Nothing comes of it where the job is gone by now. */
export const setJob = (id: string, some: Partial<Job>): void =>
  void database().update(jobs).set(some).where(eq(jobs.id, id)).run();

/** Forgets a job, and its file. @throws Problem 404. */
export async function dropJob(id: string): Promise<void> {
  jobOf(id);
  database().delete(jobs).where(eq(jobs.id, id)).run();
  await rm(jobFile(id), { force: true });
}

/** Drops the oldest of a drawing's finished jobs, where it has many. */
export async function dropOldest(drawing: string): Promise<void> {
  const old = jobsOf(drawing)
    .filter((j) => j.endedAt !== null)
    .slice(MOST_KEPT);
  for (const { id } of old) await dropJob(id);
}

/** Jobs that another run of the server left under way are told as failed; files that no row speaks of any more go. */
export async function settleLeftovers(isUnderWay: (id: string) => boolean): Promise<void> {
  const store = database();
  const open = store
    .select({ id: jobs.id })
    .from(jobs)
    .where(inArray(jobs.state, ['waiting', 'working']))
    .all()
    .filter((j) => !isUnderWay(j.id));
  for (const { id } of open)
    setJob(id, {
      state: 'failed',
      reason: 'The program was stopped while it was being made. Make it again.',
      endedAt: Date.now(),
    });
  const known = new Set(
    store
      .select({ id: jobs.id })
      .from(jobs)
      .all()
      .map((j) => j.id),
  );
  for (const name of await readdir(folder('made'))) if (!known.has(name)) await rm(jobFile(name), { force: true });
  const handed = new Set(
    store
      .select({ id: handIns.id })
      .from(handIns)
      .all()
      .map((h) => h.id),
  );
  for (const name of await readdir(folder('outbox'))) {
    const file = path.join(folder('outbox'), name);
    // One that was just written gets its row in a moment.
    const { mtimeMs } = await stat(file);
    if (!handed.has(name) && Date.now() - mtimeMs > FRESH_MS) await rm(file, { force: true });
  }
}

/** How large a job's file is; null where it is gone. */
export const sizeOf = (id: string): Promise<number | null> =>
  stat(jobFile(id)).then(
    (s) => s.size,
    () => null,
  );
