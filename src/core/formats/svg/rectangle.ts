import type { Item } from '../../drawing/schema';
import { skeletonBox } from '../../drawing/run';
import type { Matrix } from '../../geometry/matrix';
import { paintedBox } from './boxes';
import { cuttingLine, outlineRuns } from './lines';
import type { Making } from './making';

export type Rectangle = { readonly x: number; readonly y: number; readonly width: number; readonly height: number };

/** What reaches out of a rectangle by less, page units, is let be. */
const HARDLY = 1e-6;

/** Items cut at a rectangle of the user units that `map` takes to the page; as they are, where none reaches out of it. */
export function withinRectangle(
  making: Making,
  items: readonly Item[],
  { x, y, width, height }: Rectangle,
  map: Matrix,
): readonly Item[] {
  const runs = outlineRuns(making, `M${x} ${y}h${width}v${height}h${-width}Z`, map);
  const [rim, seen] = [skeletonBox({ runs }), paintedBox(items)];
  const isUpright = map.b === 0 && map.c === 0;
  const isIn =
    seen.minX >= rim.minX - HARDLY &&
    seen.minY >= rim.minY - HARDLY &&
    seen.maxX <= rim.maxX + HARDLY &&
    seen.maxY <= rim.maxY + HARDLY;
  if (isUpright && isIn) return items;
  return [making.group(items, { clip: cuttingLine(making.id('clip'), runs, false) })];
}
