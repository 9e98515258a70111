import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { closeDatabase } from '../src/server/database';

/** Runs something on a data folder of its own, which is removed after it; then the folder that was in force before is so again. */
export async function inFreshFolder<T>(run: (folder: string) => Promise<T>): Promise<T> {
  const before = process.env.YELLOW_QUILL_DATA;
  const folder = mkdtempSync(path.join(tmpdir(), 'yellow-quill-perf-'));
  closeDatabase();
  process.env.YELLOW_QUILL_DATA = folder;
  try {
    return await run(folder);
  } finally {
    closeDatabase();
    if (before === undefined) delete process.env.YELLOW_QUILL_DATA;
    else process.env.YELLOW_QUILL_DATA = before;
    rmSync(folder, { recursive: true, force: true });
  }
}
