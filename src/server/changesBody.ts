import { z } from 'zod';
import { changeSchema, type Change } from '@/core';
import { changeOnGrid } from '@/core/change/onGrid';
import { numberOfChange, upgradedChange } from '@/core/change/upgradeChange';
import { SCHEMA_VERSION } from '@/core/drawing/schema';

export const MOST_CHANGE_BYTES = 64 * 1024 * 1024;

/**
 * Changes, and the revision of the drawing that they were made on. Whoever sends them need know nothing of the grid, and may
 * be a page that an earlier program served: `schema` says by which number they were written, or else what they speak of.
 */
export const changesBody = z
  .strictObject({
    base: z.number().int().min(0),
    /** The change that made that revision, as far as the sender knows. */
    after: z.string().max(60).optional(),
    schema: z.number().int().min(1).max(SCHEMA_VERSION).optional(),
    changes: z.array(z.unknown()).min(1).max(10_000),
  })
  .transform(({ base, after, schema, changes }, context) => ({
    base,
    after,
    changes: changes.map((raw, i): Change => {
      const parsed = changeSchema.safeParse(ofToday(raw, schema));
      if (parsed.success) return changeOnGrid(parsed.data as Change);
      for (const issue of parsed.error.issues)
        context.addIssue({ code: 'custom', message: issue.message, path: ['changes', i, ...issue.path] });
      return z.NEVER;
    }),
  }));

/** A change as it is written today; one that cannot be made that stays, to be told of. */
function ofToday(raw: unknown, schema: number | undefined): unknown {
  const number = schema ?? numberOfChange(raw);
  if (number === SCHEMA_VERSION) return raw;
  try {
    return upgradedChange(raw, number);
  } catch {
    return raw;
  }
}
