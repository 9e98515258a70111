import type { Group, Item } from '../item';
import { isGroup } from '../items';
import { isRaw, type Raw } from './upgrade';

/** What a sheet of number 2 held: a line that says which groups it is in, the outermost first. */
export type FlatLine = { readonly id: string; readonly groups?: readonly string[] };

const OF_LINES = new Set(['insertLine', 'removeLine', 'moveLine']);

/** Whether a step of number 2 speaks of places in a list of lines, or of the groups that a line is in. */
export const isFlatStep = (s: Raw): boolean =>
  OF_LINES.has(s.step as string) ||
  ((s.step === 'insertSheet' || s.step === 'removeSheet') && isRaw(s.sheet) && 'lines' in s.sheet) ||
  (s.step === 'setLine' && isRaw(s.after) && 'groups' in s.after);

/**
 * Lists of lines that say which groups they are in, as items. The lines of one group need not have lain next to each other,
 * nor on one sheet: then it becomes several, told apart by their ids, for each line stays where it was painted. `known` are
 * groups that there are already, by their ids: what else they say is kept.
 */
export function nested(
  lists: readonly (readonly FlatLine[])[],
  known: ReadonlyMap<string, Group> = new Map(),
): Item[][] {
  const parts = new Map<string, number>();
  const fresh = (base: string): { group: Group; items: Item[] } => {
    const part = (parts.get(base) ?? 0) + 1;
    parts.set(base, part);
    const id = part === 1 ? base : `${base}-part${part}`;
    const items: Item[] = [];
    return { group: { ...(known.get(id) ?? { kind: 'group', id, name: '' }), items }, items };
  };
  return lists.map((lines) => {
    const items: Item[] = [];
    const open: { base: string; items: Item[] }[] = [];
    for (const line of lines) {
      const groups = line.groups ?? [];
      let shared = 0;
      while (shared < open.length && open[shared].base === groups[shared]) shared++;
      open.length = shared;
      for (const base of groups.slice(shared)) {
        const { group, items: own } = fresh(base);
        (open.at(-1)?.items ?? items).push(group);
        open.push({ base, items: own });
      }
      (open.at(-1)?.items ?? items).push(plain(line));
    }
    return items;
  });
}

/** The inverse of `nested`: lines in painting order, each with the groups that it is in; and those groups. */
export function flattened(items: readonly Item[], known = new Map<string, Group>()): FlatLine[] {
  const lines: FlatLine[] = [];
  const walk = (list: readonly Item[], groups: readonly string[]): void => {
    for (const item of list) {
      if (!isGroup(item)) lines.push(groups.length > 0 ? { ...item, groups } : item);
      else {
        known.set(item.id, item);
        walk(item.items, [...groups, baseOf(item.id)]);
      }
    }
  };
  walk(items, []);
  return lines;
}

function plain(line: FlatLine): Item {
  if (!('groups' in line)) return line as Item;
  const { groups: _, ...rest } = line;
  return rest as Item;
}

const baseOf = (id: string): string => id.replace(/-part\d+$/, '');
