import { isGroup } from '../drawing/items';
import type { Drawing, Item } from '../drawing/schema';

/** A drawing with just the items of some ids on its visible sheets, in the groups that they lie in. */
export const chosenOnly = (drawing: Drawing, ids: ReadonlySet<string>): Drawing => ({
  ...drawing,
  sheets: drawing.sheets.map((s) => ({ ...s, items: only(s.items, ids) })),
});

const only = (items: readonly Item[], ids: ReadonlySet<string>): readonly Item[] =>
  items.flatMap((item): Item[] => {
    if (ids.has(item.id)) return [item];
    if (!isGroup(item)) return [];
    const within = only(item.items, ids);
    return within.length > 0 ? [{ ...item, items: within }] : [];
  });
