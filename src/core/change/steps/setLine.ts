import { z } from 'zod';
import { idSchema, lineSchema } from '../../drawing/schema';
import { definition } from './definition';
import { plainLaying, turnedAbout, withSides } from './sides';

const sides = lineSchema.omit({ kind: true, id: true }).partial();

/** Some of a line set anew: its runs, style, marks, opacity or blend. */
export const setLine = definition({
  schema: z.strictObject({ step: z.literal('setLine'), sheet: idSchema, id: idSchema, before: sides, after: sides }),
  apply(draft, step) {
    const { place, line } = draft.line(step.sheet, step.id);
    draft.replace(place, withSides(line, step, 'line', { marks: [], ...plainLaying }));
  },
  inverse: turnedAbout,
  touches: ({ id }) => [id],
});
