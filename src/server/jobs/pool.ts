import { execFile } from 'node:child_process';
import { existsSync, mkdirSync } from 'node:fs';
import { rm } from 'node:fs/promises';
import path from 'node:path';
import { promisify } from 'node:util';
import type { Pool } from 'workerpool';
import { Problem } from '../problem';
import type { Answer, Done, Jobs } from './work';

/**
 * Work that would hold up whoever saves, in processes of its own: a few at a time, each with a bound on time and memory, and all of
 * them after the server where it wants to go on. What makes a library fail takes nobody else along.
 */

const MOST_AT_ONCE = 2;
/** So many may wait; who comes then is told to come again. */
const MOST_WAITING = 40;
const MEMORY_MB = 2_048;
const RETIRED_MS = 1_000;

const kept = globalThis as typeof globalThis & { yellowQuillJobs?: Promise<Pool> };

/** Paths that the bundler is not to follow. */
const inRoot = (...names: string[]): string => path.join(/*turbopackIgnore: true*/ process.cwd(), ...names);

const ownScript = (): string => inRoot('.jobs', `work-${process.pid}.cjs`);

/** The file that they run: as it was built, or, while the program is being changed, put together anew. */
async function script(): Promise<string> {
  if (process.env.NODE_ENV === 'production') {
    const built = inRoot('.jobs', 'work.cjs');
    if (!existsSync(built)) throw new Error('The program is not built whole: run `npm run build`.');
    return built;
  }
  mkdirSync(inRoot('.jobs'), { recursive: true });
  const file = ownScript();
  await promisify(execFile)(process.execPath, [inRoot('scripts', 'jobs.mjs'), file]);
  return file;
}

async function begun(): Promise<Pool> {
  const [{ pool }, file] = await Promise.all([import('workerpool'), script()]);
  return pool(file, {
    maxWorkers: MOST_AT_ONCE,
    maxQueueSize: MOST_WAITING,
    workerType: 'process',
    // Bytes go over as bytes.
    forkOpts: { execArgv: [`--max-old-space-size=${MEMORY_MB}`], serialization: 'advanced' },
  });
}

export type JobWays = {
  /** Where nobody waits for it any more it is stopped. */
  signal?: AbortSignal;
  /** After so long it is stopped, ms. */
  within?: number;
  /** Hears what the job tells while it is at work. */
  onNews?: (news: unknown) => void;
};

/**
 * Does a job in a process of its own. @throws Problem 400 for input that is refused, 408 when called off, 413 when it takes too
 * long or too much memory, 503 when too many wait.
 */
export async function doneApart<K extends keyof Jobs>(
  job: K,
  args: Parameters<Jobs[K]>,
  { signal, within = 120_000, onNews }: JobWays = {},
): Promise<Done<K>> {
  kept.yellowQuillJobs ??= begun().catch((error: unknown) => {
    kept.yellowQuillJobs = undefined;
    throw error;
  });
  const processes = await kept.yellowQuillJobs;
  now = processes;
  if (signal?.aborted) throw calledOff();
  let asked: ReturnType<Pool['exec']>;
  try {
    asked = processes.exec(job, args, onNews && { on: onNews }).timeout(within);
  } catch (error) {
    throw problemOf(error);
  }
  const stop = (): void => void asked.cancel();
  signal?.addEventListener('abort', stop, { once: true });
  try {
    const answer = (await asked) as Answer<Done<K>>;
    if (answer.isSwollen) retire(processes);
    if ('refused' in answer) throw new Problem(400, 'refused', `${capital(answer.refused)}. Nothing was changed.`);
    return answer.done;
  } catch (error) {
    throw signal?.aborted && !(error instanceof Problem) ? calledOff() : problemOf(error);
  } finally {
    signal?.removeEventListener('abort', stop);
  }
}

let now: Pool | null = null;

/** How many jobs are at work, and how many wait. */
export const jobsNow = (): { working: number; waiting: number } => {
  const { activeTasks = 0, pendingTasks = 0 } = now?.stats() ?? {};
  return { working: activeTasks, waiting: pendingTasks };
};

const retired = new WeakSet<Pool>();

/** Has the next job begin others, and lets these end once they have nothing more to do. */
function retire(processes: Pool): void {
  const { activeTasks, pendingTasks } = processes.stats();
  if (activeTasks + pendingTasks > 0 || retired.has(processes)) return;
  retired.add(processes);
  kept.yellowQuillJobs = undefined;
  // Who had just been given them is waited for.
  setTimeout(() => void processes.terminate(false), RETIRED_MS).unref();
}

/** Ends the processes; the next job begins others, and those that a test began do not outlive it. */
export async function endJobs(): Promise<void> {
  const processes = await kept.yellowQuillJobs?.catch(() => undefined);
  kept.yellowQuillJobs = undefined;
  await processes?.terminate(true);
  await rm(ownScript(), { force: true });
}

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

const calledOff = (): Problem => new Problem(408, 'called-off', 'It was called off.');

function problemOf(error: unknown): unknown {
  const { name, message } = error as { name?: string; message?: string };
  // One that has taken too much memory, or met what a library fails at, ends without a word.
  if (name === 'TimeoutError' || /terminated unexpectedly/i.test(message ?? ''))
    return new Problem(
      413,
      'too-much',
      'It takes too long or too much memory to do, or something in it is damaged. Nothing was changed.',
    );
  if (/Max queue size/.test(message ?? ''))
    return new Problem(503, 'busy', 'Too much is being made just now. Try again in a moment.');
  return error;
}
