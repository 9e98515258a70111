import { outlineHolds } from '../drawing/outline';
import { holdsPlace } from '../drawing/placement';
import { isFlat, isGroup, isLine } from '../drawing/items';
import { nearestOnLine, skeletonBox } from '../drawing/run';
import type { Drawing, Item, Line, Sheet } from '../drawing/schema';
import { boxHolds, growBox } from '../geometry/box';
import type { Point } from '../geometry/point';

/** Something that lies at a place of the page, and the sheet that it is on. */
export type AtPlace = { readonly sheet: Sheet; readonly item: Exclude<Item, { kind: 'group' }> };

/**
 * All that is seen at a place, the uppermost first: lines by their stroke (or as near as `reach`) or their fill, flats, and
 * pictures in the art; what lies in groups too, where it is not cut away.
 */
export function stackAt(d: Drawing, p: Point, reach: number): AtPlace[] {
  const found: AtPlace[] = [];
  const look = (sheet: Sheet, items: readonly Item[]): void => {
    for (const item of items.toReversed()) {
      if (isGroup(item)) {
        if (!item.clip || outlineHolds(item.clip, p)) look(sheet, item.items);
      } else if (isFlat(item) ? outlineHolds(item, p) : isLine(item) ? lineHolds(item, p, reach) : holdsPlace(item, p))
        found.push({ sheet, item });
    }
  };
  for (const sheet of d.sheets.toReversed()) if (sheet.visible) look(sheet, sheet.items);
  return found;
}

function lineHolds(line: Line, p: Point, reach: number): boolean {
  const near = Math.max(reach, line.style.width / 2);
  if (!boxHolds(growBox(skeletonBox(line), near), p)) return false;
  if (line.style.fill !== null && outlineHolds(line, p)) return true;
  if (line.style.width === 0 && !line.marks?.length) return false;
  const nearest = nearestOnLine(line, p);
  return nearest !== null && nearest !== undefined && nearest.distance <= near;
}
