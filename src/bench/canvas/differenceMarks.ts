import type { Line } from '@/core';
import type { Item } from '@/core/drawing/item';
import { isFlat, isLine } from '@/core/drawing/items';
import { placedBox } from '@/core/drawing/placement';
import { shownFlat } from '@/core/scene/shownFlat';
import { pathOf } from '@/painting/paintLine';
import type { BenchState } from '../state/store';

/** What differs between two states of the drawing: gone in dashes, added thick, changed as it was in dots and as it is. */
const look = {
  gone: { colour: '#a8461f', width: 2.5, dash: [6, 4] },
  added: { colour: '#2f6f4f', width: 4, dash: [] },
  was: { colour: '#8a6a00', width: 2, dash: [1.5, 3.5] },
  is: { colour: '#8a6a00', width: 3, dash: [] },
} as const;
const HALO = '#fffefb';

/** The context is in page units. */
export function paintDifferences(ctx: CanvasRenderingContext2D, { differences, view }: BenchState): void {
  if (!differences) return;
  const { gone, added, changed } = differences.found;
  const px = 1 / view.scale;
  ctx.save();
  ctx.lineCap = 'round';
  ctx.lineJoin = 'round';
  const draw = (item: Item, kind: keyof typeof look): void => {
    const { colour, width, dash } = look[kind];
    const path = pathOfItem(item);
    if (!path) return;
    ctx.setLineDash([]);
    ctx.lineWidth = (width + 2.5) * px;
    ctx.strokeStyle = HALO;
    ctx.stroke(path);
    ctx.setLineDash(dash.map((d) => d * px));
    ctx.lineWidth = width * px;
    ctx.strokeStyle = colour;
    ctx.stroke(path);
  };
  for (const [was, is] of changed) {
    draw(was, 'was');
    draw(is, 'is');
  }
  for (const item of gone) draw(item, 'gone');
  for (const item of added) draw(item, 'added');
  ctx.restore();
}

function pathOfItem(item: Item): Path2D | null {
  const line: Line | null = isLine(item) ? item : isFlat(item) ? shownFlat(item) : null;
  if (line) return pathOf(line);
  if (item.kind !== 'picture') return null;
  const { minX, minY, maxX, maxY } = placedBox(item);
  const path = new Path2D();
  path.rect(minX, minY, maxX - minX, maxY - minY);
  return path;
}
