import { z } from 'zod';
import { idSchema, referenceSchema } from '../../drawing/schema';
import { ChangeError } from '../changeError';
import { definition } from './definition';
import { turnedAbout, withSides } from './sides';

const sides = referenceSchema.omit({ id: true }).partial();

/** Some of a placed picture set anew. */
export const setReference = definition({
  schema: z.strictObject({ step: z.literal('setReference'), id: idSchema, before: sides, after: sides }),
  apply(draft, step) {
    const { references } = draft.drawing;
    const i = references.findIndex((r) => r.id === step.id);
    if (i < 0) throw new ChangeError(`reference ${step.id} is not there`);
    draft.set({ ...draft.drawing, references: references.with(i, withSides(references[i], step, 'reference')) });
  },
  inverse: turnedAbout,
  touches: () => null,
});
