import { z } from 'zod';
import { sheetSchema, type Sheet } from '../../drawing/schema';
import { linesOf } from '../../drawing/items';
import { definition } from './definition';
import { index } from './place';
import { removed } from './sides';

/** A sheet taken out of the stack; it is kept whole, so that it can be put back. */
export const removeSheet = definition({
  schema: z.strictObject({ step: z.literal('removeSheet'), index, sheet: sheetSchema }),
  apply: (draft, { index: at, sheet }) => draft.setSheets((sheets) => removed(sheets, at, sheet, 'sheet')),
  inverse: (step) => ({ ...step, step: 'insertSheet' }),
  touches: ({ sheet }) => linesOf(sheet as Sheet).map((l) => l.id),
});
