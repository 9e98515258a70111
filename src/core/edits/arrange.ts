import {
  findItem,
  groupsAround,
  holdsItem,
  itemIn,
  listOf,
  ownerOf,
  ownersIn,
  placeOf,
  placesIn,
  sheetOf,
  type FoundItem,
  type Owner,
  type Place,
} from '../drawing/find';
import type { Group } from '../drawing/item';
import { isGroup, linesIn } from '../drawing/items';
import type { Drawing, Sheet } from '../drawing/schema';
import { byList, unitOf, wholeItems, wholeItemsOf } from '../drawing/whole';
import type { Step } from '../change/change';
import { counted, edit, type Edit } from '../change/edit';

/** Where items go within the list that holds them: one place, or all the way. */
export type OrderMove = 'forward' | 'back' | 'to front' | 'to back';

const moved = (
  ids: readonly string[],
  from: Owner,
  at: readonly number[],
  to: Owner,
  onto: readonly number[],
): Step => ({
  step: 'moveItems',
  ids,
  from: { ...from, at },
  to: { ...to, at: onto },
});

/** Items moved in the painting order of the lists that hold them; their order among themselves stays. */
export function moveInOrder(
  d: Drawing,
  ids: ReadonlySet<string>,
  move: OrderMove,
  within: readonly string[] = [],
): Edit {
  const steps = byList(wholeItemsOf(d, ids, within)).flatMap((found): Step[] => {
    const list = listOf(found[0]);
    const before = found.map((f) => f.index);
    const after = movedPlaces(before, list.length, move);
    const owner = ownerOf(found[0]);
    return before.every((i, k) => i === after[k])
      ? []
      : [
          moved(
            found.map((f) => f.item.id),
            owner,
            before,
            owner,
            after,
          ),
        ];
  });
  return edit(`${counted('Move', ids.size, 'line')} ${move}`, steps);
}

/** Rising places in a list of so many, after those that are there have gone a way. */
function movedPlaces(at: readonly number[], length: number, move: OrderMove): number[] {
  if (move === 'to front') return at.map((_, k) => length - at.length + k);
  if (move === 'to back') return at.map((_, k) => k);
  // What has gone as far as it can is not passed by its neighbours among them.
  if (move === 'back') {
    let free = 0;
    return at.map((i) => {
      const next = Math.max(i - 1, free);
      free = next + 1;
      return next;
    });
  }
  return movedPlaces(at.map((i) => length - 1 - i).reverse(), length, 'back')
    .map((i) => length - 1 - i)
    .reverse();
}

/** One item moved to a place among those of its own list, of another group or sheet. A group that it leaves empty goes. */
export function moveToPlace(d: Drawing, id: string, to: Place): Edit {
  const found = findItem(d, id);
  if (!found) return edit('Move line');
  const own = ownerOf(found);
  const isOwn = own.sheet === to.sheet && own.group === to.group;
  const intoItself = to.group !== undefined && around(d, to).includes(id);
  if (intoItself || (isOwn && to.index === found.index)) return edit('Move line');
  const step = moved(
    [id],
    own,
    [found.index],
    to.group === undefined ? { sheet: to.sheet } : { sheet: to.sheet, group: to.group },
    [to.index],
  );
  return edit('Move line', step, isOwn ? [] : emptied(found, 1));
}

/** One item moved to right over or right under another, into whatever list that is in. */
export function moveBeside(d: Drawing, id: string, other: string, where: 'over' | 'under'): Edit {
  const [found, target] = [findItem(d, id), findItem(d, other)];
  if (!found || !target || id === other) return edit('Move line');
  const place = placeOf(target);
  const [a, b] = [ownerOf(found), ownerOf(target)];
  const isOwn = a.sheet === b.sheet && a.group === b.group;
  // Taken out of the same list below the other, it leaves that one place further down.
  const index = place.index + (where === 'over' ? 1 : 0) - (isOwn && found.index < place.index ? 1 : 0);
  return moveToPlace(d, id, { ...place, index });
}

const around = (d: Drawing, { sheet, group }: Owner): string[] => {
  const on = sheetOf(d, sheet);
  return on && group !== undefined ? [...groupsAround(on, group).map((g) => g.id), group] : [];
};

/** The step that takes away a group that so many of its items have left, if none is left in it. */
function emptied({ sheet, group }: FoundItem, gone: number): Step[] {
  const holder = group === undefined ? undefined : itemIn(sheet, group);
  if (!holder || !isGroup(holder.item) || holder.item.items.length > gone) return [];
  return [{ step: 'removeItem', at: placeOf(holder), item: { ...holder.item, items: [] } }];
}

/** Lines, with the groups that they fill, put on top of another sheet; their order stays. */
export function moveToSheet(d: Drawing, ids: ReadonlySet<string>, to: string): Edit {
  const target = sheetOf(d, to);
  if (!target) return edit('Move to sheet');
  let index = target.items.length;
  const from = d.sheets.filter((s) => s.id !== to).flatMap((s) => byList(wholeItems(s, ids)));
  const steps = from.map((found) =>
    moved(
      found.map((f) => f.item.id),
      ownerOf(found[0]),
      found.map((f) => f.index),
      { sheet: to },
      found.map(() => index++),
    ),
  );
  return edit(`${counted('Move', ids.size, 'line')} to ${target.name}`.slice(0, 200), steps);
}

/**
 * Lines of one sheet, with the groups that they fill, made a group of id `id` within `within` (the groups that are entered).
 * It lies where the top one of them was. Nothing happens for lines of several sheets.
 */
export function groupLines(d: Drawing, ids: ReadonlySet<string>, id: string, within: readonly string[] = []): Edit {
  const found = wholeItemsOf(d, ids, within);
  if (found.length === 0 || found.some((f) => f.sheet !== found[0].sheet)) return edit('Group');
  const { sheet } = found[0];
  // It comes to lie in the list that holds them all.
  const paths = found.map((f) => groupsAround(sheet, f.item.id).map((g) => g.id));
  const shared = paths[0].filter((g, i) => paths.every((p) => p[i] === g));
  const group = shared.at(-1);
  const top = paths.at(-1)![shared.length] ?? found.at(-1)!.item.id;
  const index = placesIn(listOf({ sheet, group })).get(top)! + 1;
  const made: Group = { kind: 'group', id, name: '', items: [] };
  const order = new Map(found.map((f, i) => [f.item.id, i]));
  const there: number[] = [];
  const moves = byList(found).map((list) => {
    const ranks = list.map((f) => order.get(f.item.id)!);
    there.push(...ranks);
    there.sort((a, b) => a - b);
    const places = new Map(there.map((r, i) => [r, i]));
    const onto = ranks.map((r) => places.get(r)!);
    return moved(
      list.map((f) => f.item.id),
      ownerOf(list[0]),
      list.map((f) => f.index),
      { sheet: sheet.id, group: id },
      onto,
    );
  });
  const at: Place = { ...ownerOf({ sheet, group }), index };
  return edit(counted('Group', ids.size, 'line'), { step: 'insertItem', at, item: made }, moves);
}

/** The outermost groups below `within` that the lines are in, taken apart. */
export function ungroupLines(d: Drawing, ids: ReadonlySet<string>, within: readonly string[] = []): Edit {
  const steps = d.sheets.flatMap((sheet) => {
    const units = new Set([...ids].map((id) => unitOf(sheet, id, within)));
    const groups = [...units].flatMap((id) => itemIn(sheet, id) ?? []).filter((f) => isGroup(f.item));
    // From the top down, so that none shifts the place of one that is still to come.
    return groups.sort((a, b) => b.index - a.index).flatMap(takenApart);
  });
  return edit('Ungroup', steps);
}

function takenApart(found: FoundItem): Step[] {
  const group = found.item as Group;
  const all = group.items.map((_, i) => i);
  const out = moved(
    group.items.map((item) => item.id),
    { sheet: found.sheet.id, group: group.id },
    all,
    ownerOf(found),
    all.map((i) => found.index + 1 + i),
  );
  const away: Step = { step: 'removeItem', at: placeOf(found), item: { ...group, items: [] } };
  return group.items.length > 0 ? [out, away] : [away];
}

/** The lines that are chosen with a line: those of its outermost group below `within`, or it alone. */
export function withGroup(d: Drawing, id: string, within: readonly string[] = []): string[] {
  const found = findItem(d, id);
  const group = found && groupsAround(found.sheet, id)[within.length];
  return group ? linesIn(group.items).map((l) => l.id) : [id];
}

/** Whether a line of a sheet lies in all of the groups that are entered. */
export const isWithin = (sheet: Sheet, id: string, within: readonly string[]): boolean => {
  if (within.length === 0) return true;
  const groups = groupsAround(sheet, id);
  return within.every((g, i) => groups[i]?.id === g);
};

/** Whether any of some lines lies in a group below those that are entered. */
export const isInGroup = (d: Drawing, ids: Iterable<string>, within: readonly string[] = []): boolean => {
  const sheets = d.sheets.filter((s) => ownersIn(s.items).size > 0);
  if (sheets.length === 0) return false;
  for (const id of ids) if (sheets.some((s) => holdsItem(s, id) && unitOf(s, id, within) !== id)) return true;
  return false;
};
