import { z } from 'zod';
import { idSchema, lineSchema } from '../../drawing/schema';
import { ChangeError } from '../changeError';
import { definition } from './definition';
import { turnedAbout, withSides } from './sides';

const sides = lineSchema.omit({ id: true }).partial();

/** Some of a line set anew: its runs, style, marks or groups. */
export const setLine = definition({
  schema: z.strictObject({ step: z.literal('setLine'), sheet: idSchema, id: idSchema, before: sides, after: sides }),
  apply(draft, step) {
    const at = draft.placeOf(step.sheet, step.id);
    if (at < 0) throw new ChangeError(`line ${step.id} is not on sheet ${step.sheet}`);
    draft.setLine(step.sheet, at, withSides(draft.linesOf(step.sheet)[at], step, 'line'));
  },
  inverse: turnedAbout,
  lines: ({ id }) => [id],
});
