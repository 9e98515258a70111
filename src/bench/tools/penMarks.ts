import type { Node } from '@/core';
import type { Found } from '@/core/drawing/find';
import { segmentBetween } from '@/core/drawing/run';
import { paintHandles, paintNode, paintSkeleton } from '../canvas/marks';
import { toScreen, type View } from '../state/view';

/** The node that a press would lay, and whether it closes the line. */
export type Coming = { next: Node; closes: boolean };

/** The line under the pen: its skeleton and nodes, the handles that shape the next curve, and that curve itself. */
export function paintPenLine(
  ctx: CanvasRenderingContext2D,
  view: View,
  { line, sheet }: Found,
  coming: Coming | null,
): void {
  const [run] = line.runs;
  const last = run.nodes.length - 1;
  paintSkeleton(ctx, view, line, sheet.tag);
  if (coming && !run.closed) paintComing(ctx, view, run.nodes[last], coming, sheet.tag);
  const shaped = run.closed ? 0 : last;
  run.nodes.forEach((_, i) => paintNode(ctx, view, run, i, sheet.tag, i === shaped));
  paintHandles(ctx, view, run.nodes[shaped]);
  if (!run.closed && last > 0) paintHandles(ctx, view, { ...run.nodes[last - 1], in: null });
}

/** The curve that a press here would bring. */
function paintComing(
  ctx: CanvasRenderingContext2D,
  view: View,
  from: Node,
  { next, closes }: Coming,
  tag: string,
): void {
  const [a, b, c, d] = segmentBetween(from, next).map((p) => toScreen(view, p));
  ctx.save();
  ctx.strokeStyle = tag;
  ctx.lineWidth = 1.2;
  ctx.globalAlpha = 0.8;
  ctx.setLineDash(closes ? [] : [6, 4]);
  ctx.beginPath();
  ctx.moveTo(a.x, a.y);
  ctx.bezierCurveTo(b.x, b.y, c.x, c.y, d.x, d.y);
  ctx.stroke();
  ctx.restore();
}
