/** Something that a request did wrong, or asked for and cannot have: told with a status, a code and plain words. */
export class Problem extends Error {
  override name = 'Problem';
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    readonly details: Record<string, unknown> = {},
  ) {
    super(message);
  }
}

export const notFound = (what: string): Problem => new Problem(404, 'not-found', `There is no such ${what}.`);

/** What the disk or the database says of itself, in plain words; null for anything else. */
export function storeTrouble(error: unknown): Problem | null {
  const code = String((error as { code?: unknown } | null)?.code ?? '');
  if (code === 'SQLITE_FULL' || code === 'ENOSPC' || code === 'EDQUOT')
    return new Problem(
      507,
      'disk-full',
      'The disk is full. Nothing was changed; it goes on by itself when there is room.',
    );
  if (code.startsWith('SQLITE_READONLY') || code === 'EROFS' || code === 'EACCES')
    return new Problem(503, 'read-only', 'The data folder cannot be written to. Nothing was changed.');
  if (code.startsWith('SQLITE_BUSY') || code.startsWith('SQLITE_LOCKED'))
    return new Problem(503, 'busy', 'The database is in use by another program. Nothing was changed.');
  if (code === 'SQLITE_CORRUPT' || code === 'SQLITE_NOTADB')
    return new Problem(503, 'corrupt', 'The database is damaged. Nothing was changed.');
  return null;
}
