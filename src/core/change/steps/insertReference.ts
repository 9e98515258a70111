import { z } from 'zod';
import { referenceSchema } from '../../drawing/schema';
import { ChangeError } from '../changeError';
import { definition } from './definition';
import { index } from './place';
import { inserted } from './sides';

/** A picture laid on the shelf. */
export const insertReference = definition({
  schema: z.strictObject({ step: z.literal('insertReference'), index, reference: referenceSchema }),
  apply(draft, { index: at, reference }) {
    const { references } = draft.drawing;
    if (references.some((r) => r.id === reference.id))
      throw new ChangeError(`reference ${reference.id} is there already`);
    draft.set({ ...draft.drawing, references: inserted(references, at, reference, 'reference') });
  },
  inverse: (step) => ({ ...step, step: 'removeReference' }),
  touches: () => null,
});
