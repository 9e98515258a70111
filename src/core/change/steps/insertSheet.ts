import { z } from 'zod';
import { sheetSchema, type Sheet } from '../../drawing/schema';
import { linesOf } from '../../drawing/items';
import { ChangeError } from '../changeError';
import { definition } from './definition';
import { index } from './place';
import { inserted } from './sides';

/** A sheet put into the stack, with its items. */
export const insertSheet = definition({
  schema: z.strictObject({ step: z.literal('insertSheet'), index, sheet: sheetSchema }),
  apply(draft, { index: at, sheet }) {
    draft.setSheets((sheets) => {
      if (sheets.some((s) => s.id === sheet.id)) throw new ChangeError(`sheet ${sheet.id} is there already`);
      return inserted(sheets, at, sheet as Sheet, 'sheet');
    });
  },
  inverse: (step) => ({ ...step, step: 'removeSheet' }),
  touches: ({ sheet }) => linesOf(sheet as Sheet).map((l) => l.id),
});
