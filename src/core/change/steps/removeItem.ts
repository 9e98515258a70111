import { z } from 'zod';
import { itemSchema, type Item } from '../../drawing/item';
import { idsOfItem } from '../../drawing/items';
import { ChangeError } from '../changeError';
import { definition } from './definition';
import { place } from './place';
import { isSame } from './sides';

/** An item taken out; it is kept whole, so that it can be put back. */
export const removeItem = definition({
  schema: z.strictObject({ step: z.literal('removeItem'), at: place, item: itemSchema }),
  apply(draft, { at, item }) {
    const there = draft.itemsOf(at)[at.index];
    if (!there || !isSame(draft.whole(there), item)) throw new ChangeError('the item to be removed is not as it was');
    draft.remove(at);
  },
  inverse: (step) => ({ ...step, step: 'insertItem' }),
  touches: ({ item }) => idsOfItem(item as Item),
});
