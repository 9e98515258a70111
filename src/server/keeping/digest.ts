import { createHash } from 'node:crypto';
import { closeSync, createReadStream, openSync, readSync } from 'node:fs';
import { pipeline } from 'node:stream/promises';

/** What of a row of the journal its digest is of. */
type Digested = { readonly revision: number; readonly changeId: string; readonly label: string; readonly body: string };

/**
 * The digest of a change and of all before it in its drawing: SHA-256 over the last digest and the row, so that none can be
 * altered, taken out or put elsewhere without the next ones telling. Rows of earlier programs have none; a chain begins after
 * the last of them.
 */
export const digestOf = (before: string | null, { revision, changeId, label, body }: Digested): string =>
  createHash('sha256')
    .update(`${before ?? ''}\n${revision}\n${changeId}\n${JSON.stringify(label)}\n`)
    .update(body)
    .digest('base64url');

/** The SHA-256 of a file's bytes, hexadecimal, read a piece at a time. */
export function sha256Of(file: string): string {
  const hash = createHash('sha256');
  const piece = Buffer.alloc(1 << 20);
  const handle = openSync(file, 'r');
  try {
    for (let n = readSync(handle, piece); n > 0; n = readSync(handle, piece)) hash.update(piece.subarray(0, n));
  } finally {
    closeSync(handle);
  }
  return hash.digest('hex');
}

/** The same, while others go on. */
export async function streamedSha256(file: string): Promise<string> {
  const hash = createHash('sha256');
  await pipeline(createReadStream(file), hash);
  return hash.digest('hex');
}
