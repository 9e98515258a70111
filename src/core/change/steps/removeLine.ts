import { z } from 'zod';
import { idSchema, lineSchema } from '../../drawing/schema';
import { ChangeError } from '../changeError';
import { definition } from './definition';
import { index } from './place';
import { isSame } from './sides';

/** A line taken out of a sheet; it is kept whole, so that it can be put back. */
export const removeLine = definition({
  schema: z.strictObject({ step: z.literal('removeLine'), sheet: idSchema, index, line: lineSchema }),
  apply(draft, { sheet, index: at, line }) {
    if (!isSame(draft.linesOf(sheet)[at], line)) throw new ChangeError('the line to be removed is not as it was');
    draft.removeLine(sheet, at);
  },
  inverse: (step) => ({ ...step, step: 'insertLine' }),
  lines: ({ line }) => [line.id],
});
