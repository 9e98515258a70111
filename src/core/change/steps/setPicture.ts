import { z } from 'zod';
import { pictureSidesSchema } from '../../drawing/item';
import { plainOf } from '../../drawing/plain';
import { idSchema } from '../../drawing/schema';
import { ChangeError } from '../changeError';
import { definition } from './definition';
import { turnedAbout, withSides } from './sides';

/** Some of a picture in the art set anew: its place, corrections, opacity or blend. */
export const setPicture = definition({
  schema: z.strictObject({
    step: z.literal('setPicture'),
    sheet: idSchema,
    id: idSchema,
    before: pictureSidesSchema,
    after: pictureSidesSchema,
  }),
  apply(draft, step) {
    const found = draft.findIn(step.sheet, step.id);
    if (found?.item.kind !== 'picture') throw new ChangeError(`picture ${step.id} is not on sheet ${step.sheet}`);
    draft.replace(found.place, withSides(found.item, step, 'picture', plainOf.picture));
  },
  inverse: turnedAbout,
  touches: ({ id }) => [id],
});
