import { ApiError, askPacked, changesBefore, keepWholeAside } from './api';
import { asidesOf, dropAsideCopy, keepAsideCopy } from './pending';

/**
 * Drawings that were put aside from others. Their changes are let go of once the server has them as a drawing of their own, so a
 * copy of that is kept here for a while: a server that goes back may lose just that.
 */

/**
 * Keeps a copy of a drawing that was just put aside; a browser that keeps nothing keeps none. @throws ApiError where the server
 * does not give it: it may have lost it again.
 */
export async function rememberAside(of: string, aside: string): Promise<void> {
  const { bytes } = await askPacked(aside);
  await keepCopy(of, aside, bytes);
}

/** Keeps a copy of a drawing that was put aside, where this browser keeps anything. */
export const keepCopy = (of: string, aside: string, bytes: ArrayBuffer): Promise<void> =>
  keepAsideCopy({ aside, of, bytes, at: Date.now() }).catch(() => undefined);

/**
 * Gives the server again what was put aside from a drawing and is missing there, but not what was deleted for good. What was
 * given, under which id. @throws ApiError while the server cannot be reached.
 */
export async function bringAsidesBack(of: string): Promise<{ was: string; id: string; title: string }[]> {
  const brought: { was: string; id: string; title: string }[] = [];
  for (const { aside: was, bytes } of await asidesOf(of).catch(() => [])) {
    const status = await statusOf(was);
    if (status === 404) {
      const { id, title } = await keepWholeAside(of, new Uint8Array(bytes));
      await keepCopy(of, id, bytes);
      brought.push({ was, id, title });
    }
    if (status !== 200) await dropAsideCopy(was);
  }
  return brought;
}

/** Whether a drawing is there (200), was lost (404) or deleted (410). @throws ApiError for what tells neither. */
async function statusOf(id: string): Promise<number> {
  try {
    await changesBefore(id, 1, 1);
    return 200;
  } catch (error) {
    if (error instanceof ApiError && (error.status === 404 || error.status === 410)) return error.status;
    throw error;
  }
}
