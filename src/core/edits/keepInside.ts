import type { Step } from '../change/change';
import { edit, type Edit } from '../change/edit';
import { findItem, groupsAround, ownerOf, placeOf, type FoundItem } from '../drawing/find';
import type { Group, Item } from '../drawing/item';
import { isFlat, isGroup, isLine } from '../drawing/items';
import { skeletonBox } from '../drawing/run';
import { firstStyle, type Drawing, type Line, type Run } from '../drawing/schema';
import { byList, wholeItemsOf } from '../drawing/whole';
import { boxHolds } from '../geometry/box';
import type { Box } from '../geometry/point';
import { flatHolds } from './flats';

/** Things held inside of a shape: a group whose clip is the outline of a closed line or a flat, and stays so. */

const HELD = 'Inside';

/** The outline that something is held inside of: that of a closed line, or a flat; null where it has none. */
export const outlineOf = (item: Item): readonly Run[] | null =>
  isFlat(item) || (isLine(item) && item.runs.every((r) => r.closed && r.nodes.length > 1)) ? item.runs : null;

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

const middle = (b: Box): { x: number; y: number } => ({ x: (b.minX + b.maxX) / 2, y: (b.minY + b.maxY) / 2 });

/**
 * The shape that chosen lines are to be held inside of: the one that is asked for, else the one closed line among them that
 * holds the others' middles, else the smallest closed line or flat beneath their middle; null where there is none.
 */
export function shapeFor(d: Drawing, ids: ReadonlySet<string>, asked: string | null = null): string | null {
  const found = asked === null ? undefined : findItem(d, asked);
  if (found && outlineOf(found.item)) return found.item.id;
  const chosen = d.sheets
    .flatMap((s) => s.items)
    .filter(isLine)
    .filter((l) => ids.has(l.id));
  const around = chosen.filter((l) => {
    const runs = outlineOf(l);
    return runs && chosen.length > 1 && chosen.every((o) => o === l || flatHolds({ runs }, middle(skeletonBox(o))));
  });
  if (around.length === 1) return around[0].id;
  const boxes = chosen.map(skeletonBox);
  if (boxes.length === 0) return null;
  const at = middle(
    boxes.reduce((a, b) => ({
      minX: Math.min(a.minX, b.minX),
      minY: Math.min(a.minY, b.minY),
      maxX: Math.max(a.maxX, b.maxX),
      maxY: Math.max(a.maxY, b.maxY),
    })),
  );
  return shapeAt(d, at, ids);
}

/** The smallest closed line or flat around a place that is seen, but for some; null where there is none. */
export function shapeAt(d: Drawing, at: { x: number; y: number }, but: ReadonlySet<string> = new Set()): string | null {
  let best: { id: string; size: number } | null = null;
  const look = (items: readonly Item[]): void => {
    for (const item of items) {
      if (isGroup(item)) look(item.items);
      const runs = but.has(item.id) ? null : outlineOf(item);
      if (!runs) continue;
      const box = skeletonBox({ runs });
      const size = (box.maxX - box.minX) * (box.maxY - box.minY);
      // Of a line and the flat in it the flat counts, which lies below the lines.
      if (boxHolds(box, at) && (!best || size < best.size) && flatHolds({ runs }, at)) best = { id: item.id, size };
    }
  };
  for (const s of d.sheets) if (s.visible) look(s.items);
  return (best as { id: string } | null)?.id ?? null;
}

/** The group that holds things inside of a shape, the uppermost of several. */
export function groupInside(d: Drawing, shape: string): FoundItem | undefined {
  const on = findItem(d, shape)?.sheet;
  for (const sheet of on ? [on, ...d.sheets.filter((s) => s !== on)] : d.sheets) {
    const ids: string[] = [];
    const look = (items: readonly Item[]): void =>
      items.forEach((item) => {
        if (!isGroup(item)) return;
        if (item.inside === shape) ids.push(item.id);
        look(item.items);
      });
    look(sheet.items);
    const found = ids.length > 0 ? findItem(d, ids.at(-1)!) : undefined;
    if (found) return found;
  }
  return undefined;
}

/** Steps that make a group for a shape just above it, if there is none that lies in the same list; and which it is. */
function roomInside(
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

/** Lines, and the groups that they fill, held inside of a shape: in a group above it. Nothing happens for the shape itself. */
export function keepInside(d: Drawing, ids: ReadonlySet<string>, shape: string, freshId: () => string): Edit {
  const place = findItem(d, shape);
  const label = 'Keep inside';
  if (!place || !outlineOf(place.item)) return edit(label);
  const around = new Set([shape, ...groupsAround(place.sheet, shape).map((g) => g.id)]);
  const found = wholeItemsOf(d, new Set([...ids].filter((id) => id !== shape))).filter((f) => !around.has(f.item.id));
  const { group, count, steps } = roomInside(d, place, freshId);
  const there = found.filter((f) => f.group !== group);
  if (there.length === 0) return edit(label);
  const lists = byList(there);
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

/** A line that is drawn on its sheet. */
const isNew = (s: Step): s is Extract<Step, { step: 'insertItem' }> =>
  s.step === 'insertItem' && isLine(s.item as Item) && s.at.group === undefined;

/** Only what draws is led elsewhere: an edit that also moves things about keeps its own places. */
const draws = ({ steps }: Edit): boolean =>
  steps.some(isNew) && steps.every((s) => isNew(s) || ['setLine', 'setNodes', 'setSheet'].includes(s.step));

/** New lines of an edit drawn behind an item: they come to lie just below it, on its sheet. */
export function drawnBehind(d: Drawing, asked: Edit, item: string): Edit {
  const place = findItem(d, item);
  if (!place || !draws(asked)) return asked;
  let next = place.index;
  const steps = asked.steps.map((s): Step => (isNew(s) ? { ...s, at: { ...placeOf(place), index: next++ } } : s));
  return { ...asked, steps };
}

/** New lines of an edit drawn into a shape: they come to lie inside of it instead of on their sheet. */
export function drawnInside(d: Drawing, asked: Edit, shape: string, freshId: () => string): Edit {
  const place = findItem(d, shape);
  if (!place || !outlineOf(place.item) || !draws(asked)) return asked;
  const { group, count, steps } = roomInside(d, place, freshId);
  let next = count;
  return {
    ...asked,
    steps: [
      ...steps,
      ...asked.steps.map((s): Step => (isNew(s) ? { ...s, at: { sheet: place.sheet.id, group, index: next++ } } : s)),
    ],
  };
}
