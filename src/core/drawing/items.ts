import type { Flat, Group, Item, Picture } from './item';
import type { Drawing, Line, Run, Sheet } from './schema';

export const isLine = (item: Item): item is Line => item.kind === undefined;
export const isFlat = (item: Item): item is Flat => item.kind === 'flat';
export const isGroup = (item: Item): item is Group => item.kind === 'group';

const flat = new WeakMap<readonly Item[], readonly Line[]>();

/** All lines among items and in their groups, in painting order. Worked out once for each list. */
export function linesIn(items: readonly Item[]): readonly Line[] {
  let lines = flat.get(items);
  if (!lines) {
    // Most lists have nothing but lines: then they are those lines.
    lines = items.every(isLine) ? items : items.flatMap((item) => linesOfItem(item));
    flat.set(items, lines);
  }
  return lines;
}

const NOTHING: readonly never[] = [];
const isAllLines = (items: readonly Item[]): boolean => linesIn(items) === items;

/** Says that `after` holds the same kinds of items as `before`, so that nothing need be worked out anew. */
export function keepKinds(before: readonly Item[], after: readonly Item[]): void {
  if (flat.get(before) === before && after.length === before.length) flat.set(after, after as readonly Line[]);
}

/** The lines that an item is made of: itself, or those in a group. */
export const linesOfItem = (item: Item): readonly Line[] =>
  isLine(item) ? [item] : isGroup(item) ? linesIn(item.items) : [];

/** The ids of an item, and of the lines in it. */
export const idsOfItem = (item: Item): readonly string[] =>
  isGroup(item) ? [item.id, ...linesIn(item.items).map((l) => l.id)] : [item.id];

const flats = new WeakMap<readonly Item[], readonly Flat[]>();

/** The flats among items and in their groups, in painting order. Worked out once for each list. */
export function flatsIn(items: readonly Item[]): readonly Flat[] {
  if (isAllLines(items)) return NOTHING;
  let list = flats.get(items);
  if (!list) {
    list = items.flatMap((item) => (isFlat(item) ? [item] : isGroup(item) ? flatsIn(item.items) : []));
    flats.set(items, list);
  }
  return list;
}

/** The pictures among items and in their groups, in painting order. */
export const picturesIn = (items: readonly Item[]): Picture[] =>
  items.flatMap((item) => (isGroup(item) ? picturesIn(item.items) : item.kind === 'picture' ? [item] : []));

/** Items without the pictures of some hashes. */
export const withoutPictures = (items: readonly Item[], hashes: ReadonlySet<string>): readonly Item[] =>
  items.flatMap((item): Item[] => {
    if (item.kind === 'picture') return hashes.has(item.picture) ? [] : [item];
    return isGroup(item) ? [{ ...item, items: withoutPictures(item.items, hashes) }] : [item];
  });

const bounding = new WeakMap<readonly Item[], readonly Line[]>();

/** The lines that areas lie between: all but those that are held inside of a shape. Worked out once for each list. */
export function boundingLines(items: readonly Item[]): readonly Line[] {
  if (isAllLines(items)) return linesIn(items);
  let lines = bounding.get(items);
  if (!lines) {
    lines = items.every((item) => !isGroup(item))
      ? linesIn(items)
      : items.flatMap((item) => (isLine(item) ? [item] : isGroup(item) && !item.clip ? boundingLines(item.items) : []));
    bounding.set(items, lines);
  }
  return lines;
}

const held = new WeakMap<readonly Item[], readonly Group[]>();

/** The groups that are held inside of a shape, each with those within it after it. Worked out once for each list. */
export function heldGroups(items: readonly Item[]): readonly Group[] {
  if (isAllLines(items)) return NOTHING;
  let groups = held.get(items);
  if (!groups) {
    groups = items.flatMap((item) =>
      isGroup(item) ? [...(item.inside !== undefined ? [item] : []), ...heldGroups(item.items)] : [],
    );
    held.set(items, groups);
  }
  return groups;
}

/** Whether a sheet is a part to be traced: one that has flats, and no lines but inside of them, is none. */
export const isPart = (s: Pick<Sheet, 'items'>): boolean =>
  boundingLines(s.items).length > 0 || flatsIn(s.items).length === 0;

/** All lines of a sheet, those in groups too, in painting order. */
export const linesOf = (sheet: Pick<Sheet, 'items'>): readonly Line[] => linesIn(sheet.items);

/** All lines of a drawing, from the bottom of its stack. */
export const allLines = (d: Pick<Drawing, 'sheets'>): Line[] => d.sheets.flatMap(linesOf);

/** The lines of the sheets that are seen. */
export const seenLines = (d: Pick<Drawing, 'sheets'>): Line[] => d.sheets.filter((s) => s.visible).flatMap(linesOf);

/** A list with each item made something of; the same list where nothing becomes another. */
export function mapped<T>(list: readonly T[], make: (item: T) => T): readonly T[] {
  let other: T[] | null = null;
  list.forEach((item, i) => {
    const next = make(item);
    if (next !== item) other ??= list.slice(0, i) as T[];
    other?.push(next);
  });
  return other ?? list;
}

/** Items with each line made something of, those in groups and their clips too; the same list where nothing changes. */
export const mapLines = (items: readonly Item[], make: (line: Line) => Line): readonly Item[] =>
  mapped(items, (item) => mapItem(item, make));

export function mapItem<I extends Item>(item: I, make: (line: Line) => Line): I;
export function mapItem(item: Item, make: (line: Line) => Line): Item {
  if (isLine(item)) return make(item);
  if (!isGroup(item)) return item;
  const items = mapLines(item.items, make);
  const clip = item.clip && make(item.clip);
  return items === item.items && clip === item.clip ? item : { ...item, items, ...(clip && { clip }) };
}

/** A flat with each of its outlines made another; the same flat where none is. */
export function mapOutlines(flat: Flat, make: (runs: readonly Run[]) => readonly Run[]): Flat {
  const runs = make(flat.runs);
  const inner = flat.inner && make(flat.inner);
  return runs === flat.runs && inner === flat.inner ? flat : { ...flat, runs, ...(inner && { inner }) };
}

/** Items without the lines that do not pass, and without groups in which nothing is left. */
export const filterLines = (items: readonly Item[], passes: (line: Line) => boolean): readonly Item[] =>
  items.flatMap((item): Item[] => {
    if (isLine(item)) return passes(item) ? [item] : [];
    if (!isGroup(item)) return [item];
    const left = filterLines(item.items, passes);
    return left.length > 0 ? [{ ...item, items: left }] : [];
  });

/** A group's name for people: its own, or what is in it. */
export function groupName(group: Group): string {
  const count = linesOfItem(group).length;
  return group.name || `Group of ${count} ${count === 1 ? 'line' : 'lines'}`;
}
