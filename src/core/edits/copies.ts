import { listOf, placeOf } from '../drawing/find';
import { shownFlat } from '../scene/shownFlat';
import type { Item } from '../drawing/item';
import { linesIn, mapItem, mapOutlines } from '../drawing/items';
import { byList, wholeItemsOf } from '../drawing/whole';
import type { Drawing } from '../drawing/schema';
import { mapPoint, scalingAbout, turningAbout, type Matrix } from '../geometry/matrix';
import type { Point } from '../geometry/point';
import type { Step } from '../change/change';
import { edit, type Edit } from '../change/edit';
import { freshItems, mappedLine } from './transform';

type Copies = { edit: Edit; ids: string[] };

/**
 * Copies of lines, and of the groups that they fill, one by each map, on top of the lists that hold them, with ids from
 * `freshId`; and the ids of their lines. Widths stay as they are.
 */
export function mappedCopies(
  d: Drawing,
  ids: Iterable<string>,
  maps: readonly Matrix[],
  freshId: () => string,
  label: string,
  within: readonly string[] = [],
): Copies {
  const lists = byList(wholeItemsOf(d, new Set(ids), within));
  const items = lists.flatMap((list) => list.map((f) => f.item));
  const made = maps.map((m) => freshItems(items, freshId).map((item) => mappedItem(item, m)));
  let first = 0;
  const steps = lists.flatMap((list) => {
    const end = listOf(list[0]).length;
    const from = first;
    first += list.length;
    return maps.flatMap((_, k) =>
      list.map((f, i): Step => {
        return { step: 'insertItem', at: { ...placeOf(f), index: end + k * list.length + i }, item: made[k][from + i] };
      }),
    );
  });
  return { edit: edit(label, steps), ids: linesIn(made.flat()).map((l) => l.id) };
}

function mappedItem(item: Item, m: Matrix): Item {
  if (item.kind === 'picture') return { ...item, at: mapPoint(m, item.at) };
  if (item.kind === 'flat') {
    const moved = mapOutlines(item, (runs) => mappedLine({ ...shownFlat(item), runs }, m, false).runs);
    return { ...moved, at: mapPoint(m, item.at) };
  }
  return mapItem(item, (l) => mappedLine(l, m, false));
}

/** The map onto the other side of an upright axis through a place (across), or of a level one (down). */
export const mirrorAt = (at: Point, way: 'across' | 'down'): Matrix =>
  scalingAbout(at, way === 'across' ? -1 : 1, way === 'across' ? 1 : -1);

/** The maps onto the other places of a full turn about a point, `count` of them with what is there. */
export const turnsAbout = (at: Point, count: number): Matrix[] =>
  Array.from({ length: Math.max(0, Math.floor(count) - 1) }, (_, k) => turningAbout(at, ((k + 1) * 360) / count));
