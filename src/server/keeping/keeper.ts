import { execFile } from 'node:child_process';
import { existsSync, rmSync, statSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { promisify } from 'node:util';
import { beginDatabase, closeDatabase, database } from '../database';
import { forgetAll } from '../journal';
import { log, logError } from '../log';
import { dataFolder } from '../place';
import { notFound, Problem, storeTrouble } from '../problem';
import { bringBackup, sendElsewhere } from '../elsewhere/backups';
import { isElsewhere } from '../elsewhere/objectStore';
import { bringPictures } from '../elsewhere/pictures';
import { lastSeen, wordsOf, type Elsewhere } from '../elsewhere/reach';
import { soundOriginal } from '../originals';
import { adoptPictures, knownPictures } from '../pictures';
import { deleteAside, listAsides, type Aside } from './asides';
import { backupNow, isBackupDue, listBackups, type Backup } from './backups';
import { checkData, lastReport, type Report } from './check';
import { backupsFolder, lossFile, namesIn, runningFile } from './places';
import { putAside, restoreBackup } from './restore';
import { salvageDatabase } from './salvage';
import { lossOf, type Loss } from './witness';

/** What a data folder's keeping looks like. */
export type Keeping = {
  readonly place: string;
  readonly now: number;
  readonly report: Report | null;
  readonly backups: readonly Omit<Backup, 'pictures'>[];
  readonly asides: readonly Aside[];
  readonly loss: Loss | null;
  /** What is kept in a store elsewhere too; null where none is named. */
  readonly elsewhere: Elsewhere | null;
  /** Why nothing can be opened or kept just now. */
  readonly trouble: { readonly code: string; readonly message: string } | null;
};

export function keepingNow(): Keeping {
  const place = dataFolder();
  const backups = listBackups(place).map(({ pictures: _, ...rest }) => rest);
  return {
    place,
    now: Date.now(),
    report: lastReport(place),
    backups,
    asides: listAsides(place),
    loss: lossOf(place),
    elsewhere: lastSeen(place),
    trouble: troubleNow(),
  };
}

/** Whether nothing is known to be wrong with what is kept. */
export const keptWell = (): boolean =>
  lossOf(dataFolder()) === null && (lastReport(dataFolder())?.findings.length ?? 0) === 0;

/** Why the database cannot be used; null where it can. */
export function troubleNow(): Keeping['trouble'] {
  try {
    database().$client.prepare('select count(*) from drawings').get();
    return null;
  } catch (error) {
    const trouble = error instanceof Problem ? error : storeTrouble(error);
    const { code, message } = trouble ?? {
      code: 'failed',
      message: `The database cannot be opened (${(error as Error).message}).`,
    };
    return { code, message };
  }
}

const script = (): string => path.join(/*turbopackIgnore: true*/ process.cwd(), '.jobs', 'keep.cjs');

/** Long work is done in a process of its own, so that nobody who saves waits for it. */
async function apart<T>(deed: 'check' | 'daily' | 'backup', here: () => T): Promise<T> {
  if (process.env.NODE_ENV !== 'production' || !existsSync(script())) return here();
  const { stdout } = await promisify(execFile)(process.execPath, [script(), deed, '--json'], {
    env: { ...process.env, YELLOW_QUILL_DATA: dataFolder() },
    maxBuffer: 64 * 1024 * 1024,
  });
  return JSON.parse(stdout) as T;
}

export const checkNow = (): Promise<Report> => apart('check', () => checkData(dataFolder()));

/** Takes a backup, and sends it elsewhere where that is asked for. */
export async function backUpNow(): Promise<void> {
  await apart('backup', () => backupNow(dataFolder(), 'asked'));
  await sendNow();
}

/** Sends elsewhere what is not there yet. */
export const sendNow = (): Promise<Elsewhere | null> => sendElsewhere(dataFolder(), knownPictures);

/**
 * Puts a backup in the place of the database. What was there is kept: as a backup of its own where it can be read, else aside as
 * it is. @throws Problem 404 without such a backup, 409 for one that is damaged.
 */
export async function restore(name: string): Promise<void> {
  const backup = listBackups(dataFolder()).find((b) => b.name === name) ?? (await broughtBackup(name));
  const isWhole = isBackedUp(backup.name);
  exchanged(() => {
    const { aside } = restoreBackup(dataFolder(), backup);
    if (isWhole && aside) rmSync(aside, { recursive: true, force: true });
  });
  await bringPictures(backup.pictures);
  await adoptPictures();
}

async function broughtBackup(name: string): Promise<Backup> {
  if (!isElsewhere()) throw notFound('backup');
  return bringBackup(dataFolder(), name).catch((error: unknown) => {
    throw new Problem(409, 'not-brought', wordsOf(error));
  });
}

/** Keeps the database as it is as a backup of its own; whether it could be read whole. */
function isBackedUp(sparing: string): boolean {
  try {
    backupNow(dataFolder(), 'before-restore', database().$client, undefined, sparing);
    return true;
  } catch (error) {
    logError(error);
    return false;
  }
}

/** Begins with an empty database; what was there goes aside. @throws Problem 409 where there is one that works. */
export function beginAnew(): void {
  if (troubleNow() === null) throw new Problem(409, 'not-needed', 'The database works. Nothing was changed.');
  exchanged(() => {
    putAside(dataFolder());
    beginDatabase();
  });
}

/** Goes on with what can be read of a damaged database. @throws Problem 409 where it works, or nothing can be read. */
export async function salvage(): Promise<{ rows: number }> {
  const { rows } = exchanged(() => salvageDatabase(dataFolder()));
  await adoptPictures();
  await checkNow();
  return { rows };
}

function exchanged<T>(deed: () => T): T {
  closeDatabase();
  forgetAll();
  try {
    return deed();
  } catch (error) {
    throw new Problem(409, 'not-exchanged', (error as Error).message);
  }
}

/** Deletes a database that was put aside. @throws Problem 404 */
export const deleteAsideNow = (name: string): void => deleteAside(dataFolder(), name);

export const forgetLoss = (): void => rmSync(lossFile(dataFolder()), { force: true });

/** What was begun and never ended, because the program was: files half received or half made. */
function sweep(place: string, now = Date.now()): void {
  const half = [
    ...namesIn(path.join(place, 'incoming')).map((n) => path.join(place, 'incoming', n)),
    ...namesIn(path.join(place, 'derived'))
      .filter((n) => /\.[0-9a-f]{8}-[0-9a-f-]{27}$/.test(n))
      .map((n) => path.join(place, 'derived', n)),
    ...namesIn(backupsFolder(place))
      .filter((n) => n.endsWith('.new'))
      .map((n) => path.join(backupsFolder(place), n)),
  ];
  for (const file of half)
    if (now - (statSync(file, { throwIfNoEntry: false })?.mtimeMs ?? now) > HOUR_MS) rmSync(file, { force: true });
}

function quietly(deed: () => void): void {
  try {
    deed();
  } catch (error) {
    logError(error);
  }
}

const HOUR_MS = 60 * 60 * 1000;
const FIRST_MS = 20_000;

/** From the start on: looked at soon and every hour, backed up once a day. Notes that it runs. */
export function startKeeping(): void {
  const place = dataFolder();
  // A database that cannot be opened now may be later: whoever asks is told why, and it is tried again.
  const trouble = troubleNow();
  if (trouble) log('error', trouble.message);
  if (process.env.YELLOW_QUILL_HOSTS && !process.env.YELLOW_QUILL_TOKEN)
    log('warn', 'It answers to names beyond this machine, and wants no token: see docs/threats.md.');
  quietly(() => writeFileSync(runningFile(place), String(process.pid)));
  const round = async (): Promise<void> => {
    sweep(place);
    if (troubleNow() !== null) return;
    await adoptPictures();
    if (isElsewhere()) for (const hash of knownPictures()) await soundOriginal(hash);
    const report = await checkNow();
    // A damaged database is not backed up over sound ones.
    if (report.findings.some((f) => f.what === 'database')) return;
    if (isBackupDue(place, Date.now())) await apart('daily', () => backupNow(place, 'daily'));
    await sendNow();
  };
  const again = (): void => void round().catch(logError);
  setTimeout(again, FIRST_MS).unref();
  setInterval(again, HOUR_MS).unref();
}
