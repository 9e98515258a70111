import { isFlat, isGroup, isLine, linesIn, picturesIn } from '../../drawing/items';
import { placedBox } from '../../drawing/placement';
import { cubicsOf, lineBox, skeletonBox } from '../../drawing/run';
import type { Item } from '../../drawing/schema';
import { boxOfPoints, emptyBox, joinBoxes } from '../../geometry/box';
import { cubicBounds } from '../../geometry/bounds';
import { mapCubics } from '../../geometry/cubic';
import { inverseOf, mapPoint, type Matrix } from '../../geometry/matrix';
import type { Box } from '../../geometry/point';

/** The box of all that is painted of items. */
export const paintedBox = (items: readonly Item[]): Box =>
  items
    .map((item): Box => {
      if (isLine(item)) return lineBox(item);
      if (isFlat(item)) return skeletonBox(item);
      if (!isGroup(item)) return placedBox(item);
      const inner = paintedBox(item.items);
      return item.clip ? overlap(inner, skeletonBox(item.clip)) : inner;
    })
    .reduce(joinBoxes, emptyBox);

const overlap = (a: Box, b: Box): Box => ({
  minX: Math.max(a.minX, b.minX),
  minY: Math.max(a.minY, b.minY),
  maxX: Math.min(a.maxX, b.maxX),
  maxY: Math.min(a.maxY, b.maxY),
});

/** The box around items' outlines in the user units that `map` takes to the page. */
export function localBox(items: readonly Item[], map: Matrix): Box {
  const back = inverseOf(map);
  const own = (p: { x: number; y: number }) => mapPoint(back, p);
  const lines = linesIn(items).flatMap((l) => l.runs.flatMap((r) => mapCubics(cubicsOf(r), own).map(cubicBounds)));
  const pictures = picturesIn(items).map((p) => {
    const { minX, minY, maxX, maxY } = placedBox(p);
    return boxOfPoints([minX, maxX].flatMap((x) => [minY, maxY].map((y) => own({ x, y }))));
  });
  return [...lines, ...pictures].reduce(joinBoxes, emptyBox);
}
