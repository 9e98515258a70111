import { cubicBounds } from '../geometry/bounds';
import { emptyBox, growBox, holdsBox, isEmptyBox, joinBoxes } from '../geometry/box';
import type { Box } from '../geometry/point';
import { isFlat, isGroup, isLine } from '../drawing/items';
import { shownOutline } from '../drawing/outline';
import { placedBox } from '../drawing/placement';
import { lineBox, skeletonBox, widestHalf } from '../drawing/run';
import type { Drawing, Item, Line } from '../drawing/schema';
import { bodyOf, IN_FILES } from '../ink/body';

/** The part of the plane that is shown: the page, or what is seen of the drawing. One without anything visible shows its page. */
export function viewOf(drawing: Drawing, scope: 'page' | 'drawing' | 'chosen'): Box {
  const page = { minX: 0, minY: 0, maxX: drawing.page.width, maxY: drawing.page.height };
  if (scope === 'page') return page;
  const box = drawing.sheets.filter((s) => s.visible).reduce((b, s) => joinBoxes(b, boxOf(s.items)), emptyBox);
  return isEmptyBox(box) ? page : box;
}

/** The box around what is seen of items. */
function boxOf(items: readonly Item[]): Box {
  const others = items.filter((item) => !isLine(item));
  return others.reduce((b, item) => joinBoxes(b, itemBox(item)), boxOfStrokes(items.filter(isLine)));
}

/** The box around lines with their strokes. How far miters and caps reach is looked into only where it can matter. */
function boxOfStrokes(lines: readonly Line[]): Box {
  const near = lines.reduce(
    (b, l) => joinBoxes(b, growBox(skeletonBox(l), l.style.join === 'round' ? widestHalf(l) : 0)),
    emptyBox,
  );
  return lines.reduce((b, l) => {
    if (holdsBox(b, lineBox(l))) return b;
    return bodyOf(l, IN_FILES)
      .flat()
      .reduce((x, c) => joinBoxes(x, cubicBounds(c)), joinBoxes(b, skeletonBox(l)));
  }, near);
}

function itemBox(item: Exclude<Item, Line>): Box {
  if (isFlat(item)) return skeletonBox({ runs: shownOutline(item) });
  if (!isGroup(item)) return placedBox(item);
  const box = boxOf(item.items);
  if (!item.clip || isEmptyBox(box)) return box;
  const clip = skeletonBox(item.clip);
  const cut = {
    minX: Math.max(box.minX, clip.minX),
    minY: Math.max(box.minY, clip.minY),
    maxX: Math.min(box.maxX, clip.maxX),
    maxY: Math.min(box.maxY, clip.maxY),
  };
  return cut.minX <= cut.maxX && cut.minY <= cut.maxY ? cut : emptyBox;
}
