import { z } from 'zod';
import { groupSidesSchema } from '../../drawing/item';
import { isGroup } from '../../drawing/items';
import { plainOf } from '../../drawing/plain';
import { idSchema } from '../../drawing/schema';
import { ChangeError } from '../changeError';
import { definition } from './definition';
import { turnedAbout, withSides } from './sides';

/** Some of a group set anew: its name, opacity, blend or clip. */
export const setGroup = definition({
  schema: z.strictObject({
    step: z.literal('setGroup'),
    sheet: idSchema,
    id: idSchema,
    before: groupSidesSchema,
    after: groupSidesSchema,
  }),
  apply(draft, step) {
    const found = draft.findIn(step.sheet, step.id);
    if (!found || !isGroup(found.item)) throw new ChangeError(`group ${step.id} is not on sheet ${step.sheet}`);
    draft.replace(found.place, withSides(found.item, step, 'group', plainOf.group));
  },
  inverse: turnedAbout,
  touches: ({ id }) => [id],
});
