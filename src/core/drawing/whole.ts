import { groupsAround, ownersIn, placesIn, type FoundItem } from './find';
import type { Item } from './item';
import { isGroup, isLine, linesOfItem } from './items';
import type { Drawing, Sheet } from './schema';

/**
 * The items of a sheet that some lines make up: groups all of whose lines are among them, and lines by themselves, in
 * painting order. Of the groups in `entered` it is always what is in them.
 */
export function wholeItems(sheet: Sheet, ids: ReadonlySet<string>, entered: readonly string[] = []): FoundItem[] {
  if (ids.size === 0) return [];
  if (ownersIn(sheet.items).size === 0) return plainItems(sheet, ids);
  const found: FoundItem[] = [];
  const walk = (items: readonly Item[], group: string | undefined): void =>
    items.forEach((item, index) => {
      if (isLine(item) ? ids.has(item.id) : isGroup(item) && !entered.includes(item.id) && isWhole(item, ids))
        found.push({ sheet, group, index, item });
      else if (isGroup(item)) walk(item.items, item.id);
    });
  walk(sheet.items, undefined);
  return found;
}

/** The same where the sheet has no groups: a few of very many are found without a look at the others. */
function plainItems(sheet: Sheet, ids: ReadonlySet<string>): FoundItem[] {
  const places = placesIn(sheet.items);
  const found: FoundItem[] = [];
  for (const id of ids) {
    const index = places.get(id);
    if (index !== undefined && isLine(sheet.items[index]))
      found.push({ sheet, group: undefined, index, item: sheet.items[index] });
  }
  return found.sort((a, b) => a.index - b.index);
}

function isWhole(item: Item, ids: ReadonlySet<string>): boolean {
  const lines = linesOfItem(item);
  return lines.length > 0 && lines.every((l) => ids.has(l.id));
}

/** The same of all sheets of a drawing. */
export const wholeItemsOf = (d: Drawing, ids: ReadonlySet<string>, entered: readonly string[] = []): FoundItem[] =>
  d.sheets.flatMap((s) => wholeItems(s, ids, entered));

/** The item that is chosen with a line: its outermost group below those that are entered, or it alone. */
export function unitOf(sheet: Sheet, line: string, entered: readonly string[] = []): string {
  return groupsAround(sheet, line)[entered.length]?.id ?? line;
}

/** Items by the list that holds them: that of their sheet, or of a group. */
export function byList(found: readonly FoundItem[]): FoundItem[][] {
  const lists = new Map<string, FoundItem[]>();
  for (const f of found) {
    const key = `${f.sheet.id} ${f.group ?? ''}`;
    const list = lists.get(key);
    if (list) list.push(f);
    else lists.set(key, [f]);
  }
  return [...lists.values()];
}
