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
