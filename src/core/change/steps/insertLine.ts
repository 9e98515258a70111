import { z } from 'zod';
import { idSchema, lineSchema, type Line } from '../../drawing/schema';
import { ChangeError } from '../changeError';
import { definition } from './definition';
import { index } from './place';

/** A line put into a sheet, at a place in its painting order. */
export const insertLine = definition({
  schema: z.strictObject({ step: z.literal('insertLine'), sheet: idSchema, index, line: lineSchema }),
  apply(draft, { sheet, index: at, line }) {
    if (draft.find(line.id)) throw new ChangeError(`line ${line.id} is there already`);
    if (at > draft.linesOf(sheet).length) throw new ChangeError(`no place ${at} for a line`);
    draft.insertLine(sheet, at, line as Line);
  },
  inverse: (step) => ({ ...step, step: 'removeLine' }),
  lines: ({ line }) => [line.id],
});
