import { z } from 'zod';
import { referenceSchema } from '../../drawing/schema';
import { definition } from './definition';
import { index } from './place';
import { removed } from './sides';

/** A picture taken off the shelf. */
export const removeReference = definition({
  schema: z.strictObject({ step: z.literal('removeReference'), index, reference: referenceSchema }),
  apply(draft, { index: at, reference }) {
    draft.set({ ...draft.drawing, references: removed(draft.drawing.references, at, reference, 'reference') });
  },
  inverse: (step) => ({ ...step, step: 'insertReference' }),
  touches: () => null,
});
