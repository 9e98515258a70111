import { z } from 'zod';
import { changeSchema } from '@/core';

export const MOST_CHANGE_BYTES = 64 * 1024 * 1024;

/** Changes, and the revision of the drawing that they were made on. */
export const changesBody = z.strictObject({
  base: z.number().int().min(0),
  changes: z.array(changeSchema).min(1).max(10_000),
});
