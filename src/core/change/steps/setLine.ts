import { z } from 'zod';
import { plainOf } from '../../drawing/plain';
import { idSchema, lineSchema } from '../../drawing/schema';
import { definition } from './definition';
import { turnedAbout, withSides } from './sides';

const sides = lineSchema.omit({ kind: true, id: true }).partial();

/** Some of a line set anew: its runs, style, marks, opacity or blend. */
export const setLine = definition({
  schema: z.strictObject({ step: z.literal('setLine'), sheet: idSchema, id: idSchema, before: sides, after: sides }),
  apply(draft, step) {
    const { place, line } = draft.line(step.sheet, step.id);
    draft.replace(place, withSides(line, step, 'line', plainOf.line));
  },
  inverse: turnedAbout,
  touches: ({ id }) => [id],
});
