import { z } from 'zod';
import { idSchema } from '../../drawing/schema';
import { ChangeError } from '../changeError';
import { definition } from './definition';
import { index } from './place';

const place = z.strictObject({ sheet: idSchema, index });

/** A line moved to another place in the painting order, of its own sheet or another; nothing of it is sent. */
export const moveLine = definition({
  schema: z.strictObject({ step: z.literal('moveLine'), id: idSchema, from: place, to: place }),
  apply(draft, { id, from, to }) {
    const line = draft.linesOf(from.sheet)[from.index];
    if (line?.id !== id) throw new ChangeError(`line ${id} is not at that place`);
    draft.removeLine(from.sheet, from.index);
    if (to.index > draft.linesOf(to.sheet).length) throw new ChangeError(`no place ${to.index} for a line`);
    draft.insertLine(to.sheet, to.index, line);
  },
  inverse: (step) => ({ ...step, from: step.to, to: step.from }),
  lines: ({ id }) => [id],
});
