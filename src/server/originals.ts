import { stat } from 'node:fs/promises';
import path from 'node:path';
import { bringPicture } from './elsewhere/pictures';
import { streamedSha256 } from './keeping/digest';
import { folder } from './place';

/** Pictures as they came: files named by their SHA-256, which never change. */

/** Where a picture's bytes lie. `hash` must have been checked to be one. */
export const originalFile = (hash: string): string => path.join(folder('pictures'), hash);

const verified = new Map<string, string>();

/** Whether the file of a picture holds what came; looked at again whenever the file is another. */
async function isAsItCame(hash: string): Promise<boolean> {
  const found = await stat(originalFile(hash)).catch(() => null);
  if (!found) return false;
  const state = `${found.size} ${found.mtimeMs} ${found.ino}`;
  if (verified.get(hash) === state) return true;
  if ((await streamedSha256(originalFile(hash))) !== hash) return false;
  verified.set(hash, state);
  return true;
}

/** The file with a picture's bytes as they came, brought from elsewhere where it is lost or damaged here; null where there is none. */
export const soundOriginal = async (hash: string): Promise<string | null> =>
  (await isAsItCame(hash)) || (await bringPicture(hash)) ? originalFile(hash) : null;
