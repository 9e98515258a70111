import { applyChange, ChangeError, type Change, type Drawing } from '@/core';
import { beyondBounds } from '@/core/change/bounds';
import { digestOf } from './keeping/digest';
import { Problem } from './problem';

/** What appending does, whatever engine keeps the journal: it looks up what is asked for here, and keeps what is planned. */

/** Changes of a drawing whose newest revision is `base`; `after` is the change that made it, as far as the sender knows. */
export type Asked = {
  readonly id: string;
  readonly base: number;
  readonly changes: readonly Change[];
  readonly after?: string | undefined;
};

/** What a journal holds before. */
export type Before = {
  readonly revision: number;
  readonly drawing: Drawing;
  /** Of the newest change. */
  readonly digest: string | null;
  /** The change that made `base`, where that is asked for. */
  readonly atBase?: string | undefined;
  /** Of the changes that are asked for, those that were made before, each with its revision. */
  readonly made: ReadonlyMap<string, number>;
};

/** A row of a journal, but for its drawing and its schema. */
export type Row = {
  readonly revision: number;
  readonly changeId: string;
  readonly label: string;
  readonly body: string;
  readonly at: number;
  readonly digest: string;
};
export type Planned = { readonly drawing: Drawing; readonly revision: number; readonly rows: readonly Row[] };

/** Whether the change that made `base` is to be looked up. */
export const asksForBase = ({ base, after }: Asked, revision: number): boolean =>
  after !== undefined && base > 0 && base <= revision;

/**
 * What is to be appended, all of it or nothing; null where all of it is there. Changes that are in the journal already (an answer
 * was lost, and they were sent again) are not made twice. A drawing that went back and on again has another change than `after`.
 * @throws Problem 409 when `base` is not the newest revision, 422 when a change does not fit the drawing or was made before.
 */
export function planned(before: Before, asked: Asked, at: number): Planned | null {
  const { base, changes, after } = asked;
  if (asksForBase(asked, before.revision) && before.atBase !== after)
    throw new Problem(
      409,
      'another-past',
      `The drawing has another change ${base} than the one that these were made on. Nothing was changed.`,
      { revision: base - 1 },
    );
  const fresh = changes.slice(alreadyThere(before, asked));
  // All of them are there, and perhaps others since: whoever lost the answer is given it again.
  if (fresh.length === 0) return null;
  if (base + changes.length - fresh.length !== before.revision)
    throw new Problem(
      409,
      'conflict',
      `The drawing is at revision ${before.revision}, not ${base}. Nothing was changed.`,
      { revision: before.revision },
    );
  refuseUsed(before, fresh);
  let { drawing, revision, digest } = before;
  const rows = fresh.map((change): Row => {
    drawing = fitting(drawing, change);
    revision++;
    const row = { revision, changeId: change.id, label: change.label, body: JSON.stringify(change), at };
    digest = digestOf(digest, row);
    return { ...row, digest };
  });
  return { drawing, revision, rows };
}

/** How many of the changes, from the first on, follow `base` in the journal already. */
function alreadyThere({ made }: Before, { base, changes }: Asked): number {
  const differs = changes.findIndex((c, i) => made.get(c.id) !== base + 1 + i);
  return differs < 0 ? changes.length : differs;
}

/** A change's id is its own in its drawing. @throws Problem 422 where one was used before. */
function refuseUsed({ made }: Before, fresh: readonly Change[]): void {
  const ids = new Set(fresh.map((c) => c.id));
  if (ids.size < fresh.length || fresh.some((c) => made.has(c.id)))
    throw new Problem(
      422,
      'used-before',
      'A change with that id was made in this drawing before. Nothing was changed.',
    );
}

/** A drawing after a new change. @throws Problem 422 when the change does not fit, or the drawing would be too large. */
export function fitting(drawing: Drawing, change: Change): Drawing {
  try {
    const after = applyChange(drawing, change);
    const why = beyondBounds(drawing, after, change);
    if (why) throw new ChangeError(why);
    return after;
  } catch (error) {
    if (error instanceof ChangeError) {
      throw new Problem(
        422,
        'does-not-fit',
        `“${change.label}” does not fit the drawing: ${error.message}. Nothing was changed.`,
      );
    }
    throw error;
  }
}
