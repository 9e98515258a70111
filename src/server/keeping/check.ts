import { existsSync, readFileSync, statfsSync } from 'node:fs';
import path from 'node:path';
import Database from 'better-sqlite3';
import { isSound, listBackups } from './backups';
import { checkDrawings } from './checkDrawings';
import { sha256Of } from './digest';
import { writeWhole } from './durable';
import { asideFolder, backupsFolder, bytesIn, databaseFile, databaseFiles, picturesFolder, reportFile } from './places';

/** Something in a data folder that is not as it was put there. */
export type Finding = {
  readonly what: 'database' | 'drawing' | 'picture' | 'backup';
  /** What is wrong, and what is still there, in plain words. */
  readonly words: string;
  /** The drawing that it is of, and whether that opens as it is all the same. */
  readonly drawing?: string;
  readonly opens?: boolean;
};

export type Report = {
  readonly at: number;
  readonly ms: number;
  readonly drawings: number;
  readonly changes: number;
  readonly pictures: number;
  readonly bytes: {
    readonly database: number;
    readonly pictures: number;
    readonly backups: number;
    readonly aside: number;
  };
  /** Bytes that are free on the disk. */
  readonly free: number;
  readonly findings: readonly Finding[];
};

const MOST_FINDINGS = 200;

/**
 * Looks at all that a data folder keeps: the database's own structure, each drawing's journal by its digests, its snapshots, and
 * pictures and backups by their hashes. It changes nothing but the report that it leaves.
 */
export function checkData(place: string, now = Date.now()): Report {
  const begin = performance.now();
  const findings: Finding[] = [];
  const found = (f: Finding): void => void (findings.length < MOST_FINDINGS && findings.push(f));
  const counts = checkDatabase(place, found);
  for (const backup of listBackups(place))
    if (!isSound(place, backup)) found({ what: 'backup', words: `The backup ${backup.name} is not as it was taken.` });
  const { bavail, bsize } = statfsSync(place);
  const report: Report = {
    at: now,
    ms: Math.round(performance.now() - begin),
    ...counts,
    bytes: {
      database: databaseFiles(place).reduce((n, f) => n + bytesIn(f), 0),
      pictures: bytesIn(picturesFolder(place)),
      backups: bytesIn(backupsFolder(place)),
      aside: bytesIn(asideFolder(place)),
    },
    free: bavail * bsize,
    findings,
  };
  writeWhole(reportFile(place), JSON.stringify(report));
  return report;
}

/** The last report; null where there is none. */
export function lastReport(place: string): Report | null {
  try {
    return JSON.parse(readFileSync(reportFile(place), 'utf8')) as Report;
  } catch {
    return null;
  }
}

type Found = (finding: Finding) => void;
type Counts = Pick<Report, 'drawings' | 'changes' | 'pictures'>;
const NOTHING: Counts = { drawings: 0, changes: 0, pictures: 0 };

function checkDatabase(place: string, found: Found): Counts {
  const file = databaseFile(place);
  if (!existsSync(file)) {
    found({ what: 'database', words: 'The database is not there.' });
    return NOTHING;
  }
  let client: Database.Database | undefined;
  try {
    client = new Database(file, { readonly: true });
    client.pragma('busy_timeout = 5000');
    const faults = client.pragma('quick_check(5)') as { quick_check: string }[];
    if (faults[0]?.quick_check !== 'ok')
      found({
        what: 'database',
        words: `The database is damaged (${faults
          .map((f) => f.quick_check)
          .join('; ')
          .slice(0, 300)}). Put a backup back, or save what can be read.`,
      });
    return checkContent(place, client, found);
  } catch (error) {
    found({ what: 'database', words: `The database cannot be read: ${(error as Error).message}.` });
    return NOTHING;
  } finally {
    client?.close();
  }
}

function checkContent(place: string, client: Database.Database, found: Found): Counts {
  const { drawings, changes } = checkDrawings(client, (words, drawing, opens) =>
    found({ what: 'drawing', words, drawing, opens }),
  );
  const pictures = client.prepare('select hash from pictures').pluck().all() as string[];
  for (const hash of pictures) {
    const why = pictureTrouble(place, hash);
    if (why) found({ what: 'picture', words: `A picture ${why} (${hash.slice(0, 12)}…). ${usedIn(client, hash)}` });
  }
  return { drawings, changes, pictures: pictures.length };
}

function pictureTrouble(place: string, hash: string): string | null {
  const file = path.join(picturesFolder(place), hash);
  if (!existsSync(file)) return 'is missing';
  return sha256Of(file) === hash ? null : 'is not as it came';
}

/** Which drawings name a picture, in words. */
function usedIn(client: Database.Database, hash: string): string {
  const titles = client
    .prepare(
      `select distinct title from drawings join journal on drawing_id = id where instr(body, ?) > 0 order by title limit 5`,
    )
    .pluck()
    .all(`"picture":"${hash}"`) as string[];
  return titles.length > 0
    ? `It was laid in ${titles.map((t) => `“${t}”`).join(', ')}; bring the same file in again and it is whole.`
    : 'Bring the same file in again and it is whole.';
}
