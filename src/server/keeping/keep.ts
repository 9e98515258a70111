import { existsSync, mkdirSync, readFileSync } from 'node:fs';
import { dataFolder } from '../place';
import { allBackups, bringBackup } from '../elsewhere/backups';
import { isElsewhere } from '../elsewhere/objectStore';
import { bringPictures } from '../elsewhere/pictures';
import { backupNow, listBackups } from './backups';
import { checkData, type Report } from './check';
import { runningFile } from './places';
import { restoreBackup } from './restore';

/** `npm run check`, `npm run backup`, `npm run restore [name]`: safe-keeping from the command line, and the server's long work. */

const [deed, ...rest] = process.argv.slice(2);
const isJson = rest.includes('--json');
const name = rest.find((r) => !r.startsWith('--'));
const place = dataFolder();

const say = (text: string, value: unknown): void =>
  void process.stdout.write(`${isJson ? JSON.stringify(value) : text}\n`);
const date = (at: number): string => new Date(at).toISOString().slice(0, 16).replace('T', ' ');
const mb = (bytes: number): string => `${(bytes / 1e6).toFixed(1)} MB`;

function told(r: Report): string {
  const head = `${r.drawings} drawings, ${r.changes} changes, ${r.pictures} pictures in ${place}: looked at in ${r.ms} ms.`;
  return r.findings.length === 0
    ? `${head}\nAll is as it was put there.`
    : [head, ...r.findings.map((f) => `- ${f.words}`)].join('\n');
}

/** Whether a server has the folder open; its number. */
function runningServer(): number | null {
  try {
    const pid = Number(readFileSync(runningFile(place), 'utf8'));
    process.kill(pid, 0);
    return pid;
  } catch {
    return null;
  }
}

async function main(): Promise<number> {
  if (isElsewhere()) mkdirSync(place, { recursive: true });
  if (!existsSync(place))
    throw new Error(
      `There is no data folder at ${place}: nothing is kept there yet. (YELLOW_QUILL_DATA names another.)`,
    );
  switch (deed) {
    case 'check': {
      const report = checkData(place);
      say(told(report), report);
      return report.findings.length === 0 || isJson ? 0 : 1;
    }
    case 'backup':
    case 'daily': {
      const backup = backupNow(place, deed === 'daily' ? 'daily' : 'asked');
      say(`Kept as ${backup.name}: ${backup.drawings} drawings, ${mb(backup.bytes)}, checked.`, backup);
      return 0;
    }
    case 'restore': {
      const all = await allBackups(place);
      const backup = name === 'latest' ? all[0] : all.find((b) => b.name === name);
      const here = new Set(listBackups(place).map((b) => b.name));
      if (!backup) {
        const list = all.map(
          (b) =>
            `  ${b.name}  ${date(b.at)}  ${b.drawings} drawings, ${b.changes} changes, ${mb(b.bytes)}${here.has(b.name) ? '' : ', elsewhere'}`,
        );
        say(['Which one? `npm run restore -- latest`, or one of these by its name:', ...list].join('\n'), all);
        return 2;
      }
      const server = runningServer();
      if (server !== null) {
        say(
          `A server has this folder open (process ${server}). Stop it first, or restore from its page Safe-keeping.`,
          null,
        );
        return 2;
      }
      if (!here.has(backup.name)) await bringBackup(place, backup.name);
      const { aside } = restoreBackup(place, backup);
      await bringPictures(backup.pictures);
      say(`${backup.name} is in place.${aside ? ` What was there lies in ${aside}.` : ''}`, { aside });
      return 0;
    }
    default:
      say('check, backup, or restore [name].', null);
      return 2;
  }
}

main().then(
  (code) => (process.exitCode = code),
  (error: Error) => {
    process.stderr.write(`${error.message}\n`);
    process.exitCode = 1;
  },
);
