import { randomUUID } from 'node:crypto';
import { rename, stat } from 'node:fs/promises';

/** Files that are made of something else: made again at will, so that any of them can be thrown away. */

/** Whether a derived file is there, whole. */
export const isKept = (file: string): Promise<boolean> =>
  stat(file).then(
    (s) => s.size > 0,
    () => false,
  );

/** Writes a derived file whole or not at all. */
export async function keepDerived(file: string, write: (temporary: string) => Promise<unknown>): Promise<void> {
  const temporary = `${file}.${randomUUID()}`;
  await write(temporary);
  await rename(temporary, file);
}
