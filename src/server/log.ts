import { appendFile, mkdirSync, renameSync, statSync } from 'node:fs';
import path from 'node:path';
import { dataFolder } from './place';

/**
 * What happens here, a line each: when, how grave, which request, and what. No titles, names or queries: nothing of what is drawn,
 * and no secrets. `YELLOW_QUILL_LOG` says from which level on: `info`, `warn` (if nothing is said) or `error`.
 */

const levels = ['info', 'warn', 'error'] as const;
export type Level = (typeof levels)[number];

const MOST_BYTES = 4_000_000;
const KEPT = 3;
/** So often it is looked at how long the file is, lines. */
const LOOK_EVERY = 500;
let written = 0;

const least = (): number => Math.max(0, levels.indexOf((process.env.YELLOW_QUILL_LOG ?? 'warn') as Level));

/** Writes a line, where it is grave enough; `request` is its number. It never fails. */
export function log(level: Level, what: string, request = '-'): void {
  if (levels.indexOf(level) < least()) return;
  const line = `${new Date().toISOString()} ${level} ${request} ${what.replace(/\s+/g, ' ').slice(0, 2_000)}\n`;
  if (level === 'error' || (level === 'warn' && process.env.NODE_ENV !== 'test')) process.stderr.write(line);
  if (process.env.NODE_ENV === 'test') return;
  try {
    const file = logFile();
    if (written++ % LOOK_EVERY === 0) turnOver(file);
    appendFile(file, line, () => undefined);
  } catch {
    // A disk that is full must not keep anyone from being answered.
  }
}

/** An error with where it came from. */
export const logError = (error: unknown, request?: string): void =>
  log('error', error instanceof Error ? (error.stack ?? error.message) : String(error), request);

const logFile = (): string => path.join(dataFolder(), 'logs', 'yellow-quill.log');

function turnOver(file: string): void {
  mkdirSync(path.dirname(file), { recursive: true });
  if ((statSync(file, { throwIfNoEntry: false })?.size ?? 0) < MOST_BYTES) return;
  for (let i = KEPT - 1; i > 0; i--) {
    const from = i === 1 ? file : `${file}.${i - 1}`;
    if (statSync(from, { throwIfNoEntry: false })) renameSync(from, `${file}.${i}`);
  }
}
