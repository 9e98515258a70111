import { z } from 'zod';
import { itemSchema, type Item } from '../../drawing/item';
import { idsOfItem } from '../../drawing/items';
import { ChangeError } from '../changeError';
import { definition } from './definition';
import { place } from './place';

/** An item put in at a place in the painting order of a sheet, or of a group. */
export const insertItem = definition({
  schema: z.strictObject({ step: z.literal('insertItem'), at: place, item: itemSchema }),
  apply(draft, { at, item }) {
    const whole = item as Item;
    for (const id of idsOfItem(whole)) if (draft.find(id)) throw new ChangeError(`item ${id} is there already`);
    draft.insert(at, whole);
  },
  inverse: (step) => ({ ...step, step: 'removeItem' }),
  touches: ({ item }) => idsOfItem(item as Item),
});
