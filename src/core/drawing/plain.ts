import type { Item } from './item';
import { isGroup, mapped } from './items';

/** What is as good as not said of an item, in the order in which the rest is said. */
export const plainOf = {
  line: { marks: [] as readonly never[], opacity: 1, blend: 'normal' },
  group: { clip: null, opacity: 1, blend: 'normal' },
  picture: { opacity: 1, blend: 'normal' },
} as const;

/** An item that does not say what is as good as not said, nor does anything in it; the same item where it does not. */
export function plainly(item: Item): Item {
  const own = isGroup(item) ? withPlainItems(item) : item;
  const says =
    own.opacity === 1 || own.blend === 'normal' || (own.kind === undefined && own.marks && own.marks.length === 0);
  if (!says) return own;
  const next: Record<string, unknown> = { ...own };
  if (own.opacity === 1) delete next.opacity;
  if (own.blend === 'normal') delete next.blend;
  if (own.kind === undefined && own.marks?.length === 0) delete next.marks;
  return next as unknown as Item;
}

function withPlainItems<G extends Extract<Item, { kind: 'group' }>>(group: G): G {
  const items = mapped(group.items, plainly);
  return items === group.items ? group : { ...group, items };
}
