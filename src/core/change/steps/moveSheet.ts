import { z } from 'zod';
import { definition } from './definition';
import { index } from './place';
import { moved } from './sides';

/** A sheet moved to another place in the stack. */
export const moveSheet = definition({
  schema: z.strictObject({ step: z.literal('moveSheet'), from: index, to: index }),
  apply: (draft, { from, to }) => draft.setSheets((sheets) => moved(sheets, from, to, 'sheet')),
  inverse: (step) => ({ ...step, from: step.to, to: step.from }),
  touches: () => null,
});
