import type { Group, Item } from './item';
import { isGroup, isLine, keepKinds, linesIn } from './items';
import { nodesIn } from './packedNodes';
import type { Drawing, Line, Reference, Sheet } from './schema';

/** A place in a sheet's list of items, or in that of one of its groups. */
export type Place = { readonly sheet: string; readonly group?: string; readonly index: number };

/** Where an item is: its sheet, the group that holds it, if one does, and its place there. */
export type FoundItem = { sheet: Sheet; group: string | undefined; index: number; item: Item };
/** The same of a line. */
export type Found = { sheet: Sheet; group: string | undefined; index: number; line: Line };

/** The list that an item lies in: its sheet's, or that of one of its groups. */
export type Owner = Pick<Place, 'sheet' | 'group'>;

export const ownerOf = ({ sheet, group }: Pick<FoundItem, 'sheet' | 'group'>): Owner => ({
  sheet: sheet.id,
  ...(group !== undefined && { group }),
});

export const placeOf = ({ sheet, group, index }: Pick<Found, 'sheet' | 'group' | 'index'>): Place => ({
  ...ownerOf({ sheet, group }),
  index,
});

const places = new WeakMap<readonly Item[], Map<string, number>>();

/** The place of each item of a list by its id, those in groups not among them. Worked out once for each list. */
export function placesIn(items: readonly Item[]): Map<string, number> {
  let map = places.get(items);
  if (!map) {
    map = new Map(items.map((item, i) => [item.id, i]));
    places.set(items, map);
  }
  return map;
}

const owners = new WeakMap<readonly Item[], ReadonlyMap<string, string>>();
const NO_OWNERS: ReadonlyMap<string, string> = new Map();

/** For each item that lies in a group, at whatever depth, the id of the group that holds it. */
export function ownersIn(items: readonly Item[]): ReadonlyMap<string, string> {
  if (linesIn(items) === items) return NO_OWNERS;
  const known = owners.get(items);
  if (known) return known;
  const map = new Map<string, string>();
  for (const item of items) {
    if (!isGroup(item)) continue;
    for (const child of item.items) map.set(child.id, item.id);
    for (const [id, owner] of ownersIn(item.items)) map.set(id, owner);
  }
  owners.set(items, map);
  return map;
}

/** Says that `after` holds the same items in the same places as `before`, so that nothing need be worked out anew. */
export function keepPlaces(before: readonly Item[], after: readonly Item[]): void {
  keepKinds(before, after);
  places.set(after, placesIn(before));
}

/** Says that the groups of `after` hold the same items as those of `before`. */
export function keepOwners(before: readonly Item[], after: readonly Item[]): void {
  const known = owners.get(before);
  if (known) owners.set(after, known);
}

export const sheetOf = (d: Drawing, id: string): Sheet | undefined => d.sheets.find((s) => s.id === id);
export const referenceOf = (d: Drawing, id: string): Reference | undefined => d.references.find((r) => r.id === id);

/** The groups that an item lies in, the outermost first. */
export function groupsAround(sheet: Sheet, id: string): Group[] {
  const owner = ownersIn(sheet.items).get(id);
  if (owner === undefined) return [];
  const above = groupsAround(sheet, owner);
  const list = above.at(-1)?.items ?? sheet.items;
  return [...above, list[placesIn(list).get(owner)!] as Group];
}

/** An item of a sheet, in a group or not. */
export function itemIn(sheet: Sheet, id: string): FoundItem | undefined {
  const index = placesIn(sheet.items).get(id);
  if (index !== undefined) return { sheet, group: undefined, index, item: sheet.items[index] };
  const group = groupsAround(sheet, id).at(-1);
  if (!group) return undefined;
  const within = placesIn(group.items).get(id)!;
  return { sheet, group: group.id, index: within, item: group.items[within] };
}

/** The items of the list that one of a sheet lies in. */
export const listOf = ({ sheet, group }: Pick<FoundItem, 'sheet' | 'group'>): readonly Item[] =>
  group === undefined ? sheet.items : (itemIn(sheet, group)!.item as Group).items;

/** Whether an item lies on a sheet, in a group or not. */
export const holdsItem = (sheet: Sheet, id: string): boolean =>
  placesIn(sheet.items).has(id) || ownersIn(sheet.items).has(id);

export function findItem(d: Drawing, id: string): FoundItem | undefined {
  for (const sheet of d.sheets) {
    const found = itemIn(sheet, id);
    if (found) return found;
  }
  return undefined;
}

export function findLine(d: Drawing, id: string): Found | undefined {
  const found = findItem(d, id);
  if (!found || !isLine(found.item)) return undefined;
  const { item: line, ...place } = found;
  return { ...place, line };
}

/** How many lines a sheet has. */
export const lineCount = (d: Drawing, sheet: string): number => linesIn(sheetOf(d, sheet)?.items ?? []).length;

/** Lines by their ids, each once, as far as they are there. Written out, for very many are asked for at once. */
export function findLines(d: Drawing, ids: Iterable<string>): Found[] {
  const sheets = d.sheets.map((sheet) => ({ sheet, places: placesIn(sheet.items) }));
  const found: Found[] = [];
  const asked = ids instanceof Set ? (ids as ReadonlySet<string>) : new Set(ids);
  for (const id of asked) {
    const own = sheets.find((s) => s.places.has(id));
    if (!own) {
      const within = findLine(d, id);
      if (within) found.push(within);
      continue;
    }
    const index = own.places.get(id)!;
    const item = own.sheet.items[index];
    if (isLine(item)) found.push({ sheet: own.sheet, group: undefined, index, line: item });
  }
  return found;
}

const orders = new WeakMap<readonly Line[], Map<string, number>>();

/** Where each line lies in painting order, by its id, among the lines given. */
export function orderOf(lines: readonly Line[]): ReadonlyMap<string, number> {
  let map = orders.get(lines);
  if (!map) orders.set(lines, (map = new Map(lines.map((l, i) => [l.id, i]))));
  return map;
}

/** Whether lines of a sheet can be chosen and changed. */
export const isOpenSheet = (s: Sheet): boolean => s.visible && !s.locked;
export const nodeCount = (l: Line): number => l.runs.reduce((n, r) => n + nodesIn(r), 0);
