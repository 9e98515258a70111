import { z } from 'zod';
import { flatSidesSchema } from '../../drawing/item';
import { plainOf } from '../../drawing/plain';
import { idSchema } from '../../drawing/schema';
import { ChangeError } from '../changeError';
import { definition } from './definition';
import { turnedAbout, withSides } from './sides';

/** Some of a flat set anew: its outline, where it lies, what it is painted with. */
export const setFlat = definition({
  schema: z.strictObject({
    step: z.literal('setFlat'),
    sheet: idSchema,
    id: idSchema,
    before: flatSidesSchema,
    after: flatSidesSchema,
  }),
  apply(draft, step) {
    const found = draft.findIn(step.sheet, step.id);
    if (found?.item.kind !== 'flat') throw new ChangeError(`flat ${step.id} is not on sheet ${step.sheet}`);
    draft.replace(found.place, withSides(found.item, step, 'flat', plainOf.flat));
  },
  inverse: turnedAbout,
  touches: ({ id }) => [id],
});
