import { z } from 'zod';
import { idsSchema } from '../../drawing/values';
import { ChangeError } from '../changeError';
import { definition } from './definition';
import { index, ownerShape } from './place';

const places = z.strictObject({ ...ownerShape, at: z.array(index).min(1).max(200_000) });

/**
 * Items of one list moved to other places of it, or to another list; nothing of them is sent. `ids` are in painting order,
 * `from.at` their places before, `to.at` their places after, both rising.
 */
export const moveItems = definition({
  schema: z.strictObject({
    step: z.literal('moveItems'),
    ids: idsSchema(200_000),
    from: places,
    to: places,
  }),
  apply(draft, { ids, from, to }) {
    const source = draft.itemsOf(from);
    const isOne = from.sheet === to.sheet && from.group === to.group;
    const room = draft.itemsOf(to).length + (isOne ? 0 : ids.length);
    if (
      !isRising(from.at, source.length) ||
      !isRising(to.at, room) ||
      [from, to].some((p) => p.at.length !== ids.length)
    )
      throw new ChangeError('the places to move items from and to are not sound');
    ids.forEach((id, i) => {
      if (source[from.at[i]].id !== id) throw new ChangeError(`item ${id} is not at that place`);
    });
    const moving = new Set(ids);
    for (let group = to.group; group !== undefined; group = draft.findIn(to.sheet, group)?.place.group)
      if (moving.has(group)) throw new ChangeError('a group cannot be moved into itself');
    draft.move(from, to);
  },
  inverse: (step) => ({ ...step, from: step.to, to: step.from }),
  touches: ({ ids }) => ids,
});

const isRising = (at: readonly number[], room: number): boolean =>
  at.every((i, k) => (k === 0 || i > at[k - 1]) && i < room);
