import type { Cubic, Node, Point, Unit } from '@/core';
import { cubicLength } from '@/core';
import { towards, type End } from '@/core/drawing/end';
import type { Found } from '@/core/drawing/find';
import { segmentBetween } from '@/core/drawing/run';
import { subtract } from '@/core/geometry/point';
import { formatCount, formatLength, formatNumber } from '@/ui/format';
import { paintHandles, paintNode, paintNote, paintSkeleton, paintSnapMark, strokeHaloed } from '../canvas/marks';
import { toScreen, type View } from '../state/view';
import type { PenTarget } from './penTarget';

/** The node that a press would lay, and whether the line is done with it. */
export type Coming = { next: Node; closes: boolean };

const WARNING = '#a5512a';

/** The line under the pen: its skeleton and nodes, the handles that shape the next curve, and that curve itself. */
export function paintPenLine(
  ctx: CanvasRenderingContext2D,
  view: View,
  { line, sheet }: Found,
  end: End,
  coming: Coming | null,
  away: boolean,
): void {
  paintSkeleton(ctx, view, line, sheet.tag);
  const run = line.runs[end.run];
  if (!run) return;
  const drawn = towards(run, end);
  const last = drawn.length - 1;
  if (coming && !run.closed) paintComing(ctx, view, drawn[last], coming, sheet.tag);
  const shaped = run.closed ? 0 : last;
  const place = (i: number): number => (end.atStart ? last - i : i);
  drawn.forEach((_, i) => paintNode(ctx, view, run, place(i), sheet.tag, i === shaped));
  paintHandles(ctx, view, drawn[shaped]);
  if (!run.closed && last > 0) paintHandles(ctx, view, { ...drawn[last - 1], in: null });
  if (away) paintTurnHint(ctx, view, drawn[last]);
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

/** The curves along the ink that a press would take, and the nodes they would bring. */
export function paintAlong(ctx: CanvasRenderingContext2D, view: View, cubics: readonly Cubic[], tag: string): void {
  ctx.save();
  ctx.lineCap = 'round';
  ctx.beginPath();
  for (const c of cubics) {
    const [a, b, d, e] = c.map((p) => toScreen(view, p));
    ctx.moveTo(a.x, a.y);
    ctx.bezierCurveTo(b.x, b.y, d.x, d.y, e.x, e.y);
  }
  strokeHaloed(ctx, 2, tag);
  ctx.fillStyle = '#ffffff';
  ctx.lineWidth = 1.5;
  for (const c of cubics) {
    const at = toScreen(view, c[3]);
    ctx.beginPath();
    ctx.arc(at.x, at.y, 3.5, 0, Math.PI * 2);
    ctx.fill();
    ctx.stroke();
  }
  ctx.restore();
}

/** The handle that leads the wrong way, struck out. */
function paintTurnHint(ctx: CanvasRenderingContext2D, view: View, node: Node): void {
  if (!node.out) return;
  const at = toScreen(view, { x: node.point.x + node.out.x, y: node.point.y + node.out.y });
  ctx.save();
  ctx.strokeStyle = WARNING;
  ctx.lineWidth = 2;
  ctx.beginPath();
  ctx.moveTo(at.x - 8, at.y - 8);
  ctx.lineTo(at.x + 8, at.y + 8);
  ctx.moveTo(at.x - 8, at.y + 8);
  ctx.lineTo(at.x + 8, at.y - 8);
  ctx.stroke();
  ctx.restore();
}

/** What the pen is drawn to, or would change, is marked before the press. */
export function paintTarget(
  ctx: CanvasRenderingContext2D,
  view: View,
  target: PenTarget,
  endPoint: (e: End) => Point | null,
): void {
  if (target.on === 'continue' || target.on === 'join') {
    const at = endPoint(target.end);
    if (at) paintSnapMark(ctx, toScreen(view, at), target.on === 'join' ? 'join' : 'draw on');
  } else if (target.on === 'node' || target.on === 'segment') {
    paintSnapMark(ctx, toScreen(view, target.at), target.on === 'node' ? 'on its node' : 'on the line');
  } else if (target.on === 'add node' || target.on === 'remove node') {
    paintSnapMark(ctx, toScreen(view, target.at), target.on === 'add node' ? 'add a node' : 'take it away');
  }
}

/** Length and direction of the segment to come, and how many nodes the line has, beside the pointer. */
export function paintFigures(
  ctx: CanvasRenderingContext2D,
  pointer: Point,
  nodes: readonly Node[],
  next: Node,
  unit: Unit,
): void {
  const last = nodes.at(-1)!;
  const direction = subtract(next.point, last.point);
  // As on paper: 0 to the right, 90 straight up.
  const angle = (Math.atan2(-direction.y, direction.x) * 180) / Math.PI;
  const words = [
    formatLength(cubicLength(segmentBetween(last, next), 0.01), unit),
    `${formatNumber(angle, 0)}°`,
    formatCount(nodes.length, 'node'),
  ].join(' · ');
  paintNote(ctx, { x: pointer.x + 22, y: pointer.y + 30 }, words);
}
