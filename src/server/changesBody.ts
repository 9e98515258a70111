import { z } from 'zod';
import { changeSchema, type Change } from '@/core';
import { changeOnGrid } from '@/core/change/onGrid';

export const MOST_CHANGE_BYTES = 64 * 1024 * 1024;

/** Changes, and the revision of the drawing that they were made on. Whoever sends them need know nothing of the grid. */
export const changesBody = z.strictObject({
  base: z.number().int().min(0),
  changes: z
    .array(changeSchema.transform((c) => changeOnGrid(c as Change)))
    .min(1)
    .max(10_000),
});
