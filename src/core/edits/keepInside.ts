import type { Step } from '../change/change';
import { edit, type Edit } from '../change/edit';
import { findItem, groupsAround, ownerOf, placeOf, type FoundItem } from '../drawing/find';
import type { Flat, Group, Item } from '../drawing/item';
import { heldGroups, isFlat, isGroup, isLine } from '../drawing/items';
import { outlineBox, outlineHolds, outlineOf } from '../drawing/outline';
import { firstStyle, type Drawing, type Line, type Run } from '../drawing/schema';
import { byList, wholeItemsOf } from '../drawing/whole';
import { boxArea, joinBoxes, middleOfBox } from '../geometry/box';
import type { Point } from '../geometry/point';

/** Things held inside of a shape: a group whose clip is the outline of a closed line or a flat, and stays so. */

const HELD = 'Inside';

const clipOf = (runs: readonly Run[], id: string): Line => ({ id, runs, style: { ...firstStyle, width: 0 } });

/** An empty group that holds things inside of a shape. */
export const heldGroup = (shape: string, runs: readonly Run[], freshId: () => string): Group => ({
  kind: 'group',
  id: freshId(),
  name: HELD,
  items: [],
  clip: clipOf(runs, freshId()),
  inside: shape,
});

/**
 * The shape that chosen lines and flats are to be held inside of: the one among them that holds the others' middles, else
 * the smallest closed line or flat beneath their middle; null where there is none.
 */
export function shapeFor(d: Drawing, ids: ReadonlySet<string>): string | null {
  const chosen = [...ids].flatMap((id) => {
    const item = findItem(d, id)?.item;
    return item && (isLine(item) || isFlat(item)) ? [item] : [];
  });
  if (chosen.length === 0) return null;
  const holdsOthers = (s: Line | Flat): boolean =>
    chosen.every((o) => o === s || outlineHolds(s, middleOfBox(outlineBox(o))));
  const around = chosen.length > 1 ? chosen.filter((s) => outlineOf(s) && holdsOthers(s)) : [];
  if (around.length === 1) return around[0].id;
  return shapeAt(d, middleOfBox(chosen.map(outlineBox).reduce(joinBoxes)), ids);
}

/** The smallest closed line or flat around a place that is seen, but for some; null where there is none. */
export function shapeAt(d: Drawing, at: Point, but: ReadonlySet<string> = new Set()): string | null {
  const found: { id: string; size: number }[] = [];
  const look = (items: readonly Item[]): void => {
    for (const item of items) {
      if (isGroup(item)) look(item.items);
      const runs = but.has(item.id) ? null : outlineOf(item);
      if (runs && outlineHolds({ runs }, at)) found.push({ id: item.id, size: boxArea(outlineBox({ runs })) });
    }
  };
  for (const s of d.sheets) if (s.visible) look(s.items);
  // Of a line and the flat in it that counts which lies lower: the flat.
  return found.length > 0 ? found.reduce((a, b) => (b.size < a.size ? b : a)).id : null;
}

/** The group that holds things inside of a shape, the uppermost of several; of one on the shape's own sheet if there is. */
export function groupInside(d: Drawing, shape: string): FoundItem | undefined {
  const on = findItem(d, shape)?.sheet;
  const sheets = on ? [on, ...d.sheets.filter((s) => s !== on)] : d.sheets;
  const groups = sheets.map((s) => heldGroups(s.items).findLast((g) => g.inside === shape));
  const group = groups.find((g) => g !== undefined);
  return group && findItem(d, group.id);
}

/** Steps that make a group for a shape just above it, if there is none that lies in the same list; and which it is. */
export function roomInside(
  d: Drawing,
  shape: FoundItem,
  freshId: () => string,
): { group: string; count: number; steps: Step[] } {
  const known = groupInside(d, shape.item.id);
  if (known && isGroup(known.item)) return { group: known.item.id, count: known.item.items.length, steps: [] };
  const made = heldGroup(shape.item.id, outlineOf(shape.item)!, freshId);
  return {
    group: made.id,
    count: 0,
    steps: [{ step: 'insertItem', at: { ...placeOf(shape), index: shape.index + 1 }, item: made }],
  };
}

/** Lines, the groups that they fill, and flats held inside of a shape: in a group above it. Nothing happens for the shape itself. */
export function keepInside(d: Drawing, ids: ReadonlySet<string>, shape: string, freshId: () => string): Edit {
  const place = findItem(d, shape);
  const label = 'Keep inside';
  if (!place || !outlineOf(place.item)) return edit(label);
  const around = new Set([shape, ...groupsAround(place.sheet, shape).map((g) => g.id)]);
  const others = [...ids].filter((id) => !around.has(id));
  const flats = others.flatMap((id) => findItem(d, id) ?? []).filter((f) => isFlat(f.item));
  const found = [...wholeItemsOf(d, new Set(others)), ...flats].filter((f) => !around.has(f.item.id));
  const { group, count, steps } = roomInside(d, place, freshId);
  const there = found.filter((f) => f.group !== group);
  if (there.length === 0) return edit(label);
  const lists = byList(there).map((list) => list.sort((a, b) => a.index - b.index));
  // What leaves the list of the shape from below it makes room for the group: the group is put first, and shifts what is above.
  const shifted = steps.length > 0 ? place.index + 1 : Infinity;
  const isOwnList = (f: FoundItem): boolean => f.sheet.id === place.sheet.id && f.group === place.group;
  let next = count;
  const moves = lists.map((list): Step => ({
    step: 'moveItems',
    ids: list.map((f) => f.item.id),
    from: {
      ...ownerOf(list[0]),
      at: list.map((f) => (isOwnList(f) && f.index >= shifted ? f.index + 1 : f.index)),
    },
    to: { sheet: place.sheet.id, group, at: list.map(() => next++) },
  }));
  return edit(label, steps, moves);
}

/** Items that are not in the drawing yet laid inside of a shape, above or below what is held there. */
export function layInside(
  d: Drawing,
  items: readonly Item[],
  shape: string,
  label: string,
  freshId: () => string,
  where: 'above' | 'below' = 'above',
): Edit {
  const place = findItem(d, shape);
  if (!place || !outlineOf(place.item) || items.length === 0) return edit(label);
  const { group, count, steps } = roomInside(d, place, freshId);
  const first = where === 'above' ? count : 0;
  const at = (i: number) => ({ sheet: place.sheet.id, group, index: first + i });
  return edit(
    label,
    steps,
    items.map((item, i): Step => ({ step: 'insertItem', at: at(i), item })),
  );
}

/** What is held inside of a shape let go: it lies where its group lay, and is seen whole. */
export function releaseInside(d: Drawing, group: string): Edit {
  const found = findItem(d, group);
  if (!found || !isGroup(found.item)) return edit('Release');
  const { items } = found.item;
  const all = items.map((_, i) => i);
  const out: Step[] =
    items.length === 0
      ? []
      : [
          {
            step: 'moveItems',
            ids: items.map((item) => item.id),
            from: { sheet: found.sheet.id, group, at: all },
            to: { ...ownerOf(found), at: all.map((i) => found.index + 1 + i) },
          },
        ];
  return edit('Release', out, { step: 'removeItem', at: placeOf(found), item: { ...found.item, items: [] } });
}
