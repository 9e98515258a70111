import { isFlat, isGroup, isLine } from '../drawing/items';
import { nodesIn } from '../drawing/packedNodes';
import type { Drawing, Item, Run } from '../drawing/schema';
import type { Change } from './change';

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

const EMPTY: Size = { items: 0, nodes: 0 };

/**
 * How many items a drawing has, groups and what is in them, and how many nodes. What is shared with a drawing `before` is not
 * counted again.
 */
export function sizeOf({ sheets }: Pick<Drawing, 'sheets'>, before?: Pick<Drawing, 'sheets'>): Size {
  return sheets
    .map((s, i) => listSize(s.items, before?.sheets[i]?.items))
    .reduce((a, b) => ({ items: a.items + b.items, nodes: a.nodes + b.nodes }), EMPTY);
}

/** Counted from what was there before, where that is known: then only what differs in its place is gone through. */
function listSize(items: readonly Item[], before?: readonly Item[]): Size {
  const own = known.get(items);
  if (own) return own;
  const was = before && known.get(before);
  const old = was ? before : [];
  let [count, nodes] = was ? [was.items, was.nodes] : [0, 0];
  for (let i = 0; i < Math.max(items.length, old.length); i++) {
    if (items[i] === old[i]) continue;
    const [more, less] = [itemSize(items[i]), itemSize(old[i])];
    count += more.items - less.items;
    nodes += more.nodes - less.nodes;
  }
  const size = { items: count, nodes };
  known.set(items, size);
  return size;
}

/** An item with what is in it. */
function itemSize(item: Item | undefined): Size {
  if (!item) return EMPTY;
  if (!isGroup(item)) return { items: 1, nodes: isLine(item) || isFlat(item) ? nodesOf(item.runs) : 0 };
  const within = listSize(item.items);
  return { items: 1 + within.items, nodes: within.nodes + nodesOf(item.clip?.runs ?? []) };
}

const nodesOf = (runs: readonly Run[]): number => {
  let nodes = 0;
  for (const run of runs) nodes += nodesIn(run);
  return nodes;
};

const number = (n: number): string => n.toLocaleString('en');

/**
 * Why a drawing cannot become another by a change, in words; null where it can. What is larger already (an earlier program
 * made it) may become smaller.
 */
export function beyondBounds(before: Drawing, after: Drawing, change?: Pick<Change, 'steps'>): string | null {
  if (change?.steps.every((s) => s.step === 'translate')) return sameSize(before, after);
  for (const list of ['sheets', 'folders', 'references', 'waved', 'profiles', 'order'] as const) {
    const [was, is] = [before[list]?.length ?? 0, after[list]?.length ?? 0];
    if (is > was && is > MOST_LISTED[list])
      return `a drawing holds at most ${number(MOST_LISTED[list])} ${words[list]}`;
  }
  if (before.sheets === after.sheets) return null;
  const was = sizeOf(before);
  const is = sizeOf(after, before);
  if (is.items > was.items && is.items > MOST_ITEMS)
    return `a drawing holds at most ${number(MOST_ITEMS)} lines, flats, pictures and groups. Go on in another one`;
  if (is.nodes > was.nodes && is.nodes > MOST_NODES)
    return `a drawing holds at most ${number(MOST_NODES)} nodes. Thin lines out, or go on in another one`;
  return null;
}

/** What is only moved takes as much as before. */
function sameSize(before: Drawing, after: Drawing): null {
  before.sheets.forEach(({ items }, i) => {
    const size = known.get(items);
    if (size) known.set(after.sheets[i].items, size);
  });
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
