import type { Item } from './item';
import { isGroup, mapped } from './items';

/** What is as good as not said of an item, in the order in which the rest is said. */
export const plainOf = {
  line: { marks: [] as readonly never[], opacity: 1, blend: 'normal', name: '' },
  group: { clip: null, inside: null, opacity: 1, blend: 'normal' },
  picture: { opacity: 1, blend: 'normal' },
  flat: { opacity: 1, blend: 'normal', name: '', open: false, without: [] as readonly never[], inner: null },
} as const;

/** An item that does not say what is as good as not said, nor does anything in it; the same item where it does not. */
export function plainly(item: Item): Item {
  const own = isGroup(item) ? withPlainItems(item) : item;
  const said = own as unknown as Record<string, unknown>;
  const plain: Readonly<Record<string, unknown>> = plainOf[own.kind ?? 'line'];
  const idle = Object.keys(plain).filter((key) => key in said && isSame(said[key], plain[key]));
  return idle.length === 0
    ? own
    : (Object.fromEntries(Object.entries(said).filter(([key]) => !idle.includes(key))) as unknown as Item);
}

const isSame = (a: unknown, b: unknown): boolean =>
  a === b || (Array.isArray(a) && Array.isArray(b) && a.length === 0 && b.length === 0);

function withPlainItems<G extends Extract<Item, { kind: 'group' }>>(group: G): G {
  const items = mapped(group.items, plainly);
  return items === group.items ? group : { ...group, items };
}
