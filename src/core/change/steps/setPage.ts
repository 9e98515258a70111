import { z } from 'zod';
import { pageSchema } from '../../drawing/schema';
import { definition } from './definition';
import { turnedAbout, withSides } from './sides';

const sides = pageSchema.partial();

/** Some of the page set anew. */
export const setPage = definition({
  schema: z.strictObject({ step: z.literal('setPage'), before: sides, after: sides }),
  apply: (draft, step) => draft.set({ ...draft.drawing, page: withSides(draft.drawing.page, step, 'page') }),
  inverse: turnedAbout,
  touches: () => null,
});
