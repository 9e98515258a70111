import { statfsSync } from 'node:fs';
import { database } from '../database';
import { lastSeen } from '../elsewhere/reach';
import { jobsNow } from '../jobs/pool';
import { dataFolder } from '../place';
import { listBackups } from './backups';
import { lastReport } from './check';
import { troubleNow } from './keeper';
import { acknowledgedIn, lossOf } from './witness';

/** How the server is, for whoever watches over it. */
export type Health = {
  /** Why nothing can be kept just now; null where all is well. */
  readonly trouble: string | null;
  /** How many changes were ever acknowledged. */
  readonly acknowledged: number | null;
  readonly disk: { readonly free: number };
  readonly memory: number;
  /** Jobs at work, and those that wait for their turn. */
  readonly jobs: { readonly working: number; readonly waiting: number };
  readonly checked: { readonly at: number; readonly findings: number } | null;
  readonly backup: { readonly at: number; readonly name: string } | null;
  /** When all was elsewhere too, and what went wrong there; null where no such place is named. */
  readonly elsewhere: { readonly at: number | null; readonly trouble: string | null } | null;
  readonly lost: number;
};

export function healthNow(): Health {
  const place = dataFolder();
  const trouble = troubleNow();
  const report = lastReport(place);
  const [backup] = listBackups(place);
  const elsewhere = lastSeen(place);
  const { bavail, bsize } = statfsSync(place);
  return {
    trouble: trouble?.message ?? null,
    acknowledged: trouble ? null : acknowledgedIn(database().$client),
    disk: { free: bavail * bsize },
    memory: process.memoryUsage.rss(),
    jobs: jobsNow(),
    checked: report && { at: report.at, findings: report.findings.length },
    backup: backup ? { at: backup.at, name: backup.name } : null,
    elsewhere: elsewhere && { at: elsewhere.at, trouble: elsewhere.trouble },
    lost: lossOf(place)?.changes ?? 0,
  };
}
