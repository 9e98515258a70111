import { isFlat, isGroup, isLine } from '../drawing/items';
import type { Drawing, Item, Run } from '../drawing/schema';

/**
 * How large a drawing may be as a whole. All that is kept of it (a snapshot, an answer, a file) stays within what can be held and
 * sent at once: a node takes about 70 bytes packed, 150 as JSON.
 */
export const MOST_ITEMS = 100_000;
export const MOST_NODES = 2_000_000;
const MOST_LISTED = {
  sheets: 2_000,
  folders: 500,
  references: 200,
  waved: 20_000,
  profiles: 200,
  order: 200_000,
} as const;

type Size = { readonly items: number; readonly nodes: number };

const known = new WeakMap<object, Size>();

/** How many items a drawing has, groups and what is in them, and how many nodes. What is shared with a drawing before is not counted again. */
export function sizeOf({ sheets }: Pick<Drawing, 'sheets'>): Size {
  return sheets.map((s) => listSize(s.items)).reduce(together, { items: 0, nodes: 0 });
}

const together = (a: Size, b: Size): Size => ({ items: a.items + b.items, nodes: a.nodes + b.nodes });

function listSize(items: readonly Item[]): Size {
  const before = known.get(items);
  if (before) return before;
  let [count, nodes] = [items.length, 0];
  for (const item of items) {
    const own = itemSize(item);
    count += own.items;
    nodes += own.nodes;
  }
  const size = { items: count, nodes };
  known.set(items, size);
  return size;
}

/** What is in an item, without itself. */
function itemSize(item: Item): Size {
  if (isGroup(item)) {
    const within = listSize(item.items);
    return item.clip ? { items: within.items, nodes: within.nodes + nodesOf(item.clip.runs) } : within;
  }
  return { items: 0, nodes: isLine(item) || isFlat(item) ? nodesOf(item.runs) : 0 };
}

const nodesOf = (runs: readonly Run[]): number => {
  let nodes = 0;
  for (const run of runs) nodes += run.nodes.length;
  return nodes;
};

const number = (n: number): string => n.toLocaleString('en');

/**
 * Why a drawing cannot become another by a change, in words; null where it can. What is larger already (an earlier program
 * made it) may become smaller.
 */
export function beyondBounds(before: Drawing, after: Drawing): string | null {
  for (const list of ['sheets', 'folders', 'references', 'waved', 'profiles', 'order'] as const) {
    const [was, is] = [before[list]?.length ?? 0, after[list]?.length ?? 0];
    if (is > was && is > MOST_LISTED[list])
      return `a drawing holds at most ${number(MOST_LISTED[list])} ${words[list]}`;
  }
  if (before.sheets === after.sheets) return null;
  const [was, is] = [sizeOf(before), sizeOf(after)];
  if (is.items > was.items && is.items > MOST_ITEMS)
    return `a drawing holds at most ${number(MOST_ITEMS)} lines, flats, pictures and groups. Go on in another one`;
  if (is.nodes > was.nodes && is.nodes > MOST_NODES)
    return `a drawing holds at most ${number(MOST_NODES)} nodes. Thin lines out, or go on in another one`;
  return null;
}

const words = {
  sheets: 'sheets',
  folders: 'folders',
  references: 'references',
  waved: 'notes waved through',
  profiles: 'profiles',
  order: 'lines in their order',
} as const;
