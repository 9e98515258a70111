import { z } from 'zod';
import { definition } from './definition';
import { index } from './place';
import { moved } from './sides';

/** A picture moved to another place on the shelf. */
export const moveReference = definition({
  schema: z.strictObject({ step: z.literal('moveReference'), from: index, to: index }),
  apply(draft, { from, to }) {
    draft.set({ ...draft.drawing, references: moved(draft.drawing.references, from, to, 'reference') });
  },
  inverse: (step) => ({ ...step, from: step.to, to: step.from }),
  touches: () => null,
});
