import type { Point, Run } from '@/core';
import type { Closing } from '@/core/flats/arrangement';
import { pathOf } from '@/painting/paintLine';
import { toScreen, type View } from '../state/view';
import { strokeHaloed } from './marks';

const QUILL = '#f4c20d';
const WASH = 0.55;

/** An area: a wash of the colour that would be poured, or the rim of one that is there, dashed where it is not shut. */
export function paintArea(
  ctx: CanvasRenderingContext2D,
  view: View,
  runs: readonly Run[],
  colour: string | null,
  open: boolean,
): void {
  ctx.save();
  ctx.translate(view.x, view.y);
  ctx.scale(view.scale, view.scale);
  const path = pathOf({ runs });
  if (colour) {
    ctx.globalAlpha = WASH;
    ctx.fillStyle = colour;
    ctx.fill(path, 'evenodd');
    ctx.globalAlpha = 1;
  }
  ctx.lineJoin = 'round';
  for (const [width, style] of [
    [4, 'rgba(255,254,251,0.9)'],
    [2, QUILL],
  ] as const) {
    ctx.lineWidth = width / view.scale;
    ctx.strokeStyle = style;
    if (open) ctx.setLineDash([6 / view.scale, 5 / view.scale]);
    ctx.stroke(path);
  }
  ctx.restore();
}

/** A gap that is closed: a bar across it between two short ticks. */
export function paintClosing(ctx: CanvasRenderingContext2D, view: View, { from, to }: Closing): void {
  const [a, b] = [toScreen(view, from), toScreen(view, to)];
  const long = Math.hypot(b.x - a.x, b.y - a.y) || 1;
  const [nx, ny] = [(-(b.y - a.y) / long) * 4, ((b.x - a.x) / long) * 4];
  ctx.save();
  ctx.beginPath();
  ctx.moveTo(a.x, a.y);
  ctx.lineTo(b.x, b.y);
  for (const p of [a, b]) {
    ctx.moveTo(p.x - nx, p.y - ny);
    ctx.lineTo(p.x + nx, p.y + ny);
  }
  strokeHaloed(ctx, 1.6, '#a8461f');
  ctx.restore();
}

/** How wide a gap may be, as a ring about the pointer. */
export function paintGap(ctx: CanvasRenderingContext2D, at: Point, radius: number): void {
  ctx.save();
  ctx.beginPath();
  ctx.arc(at.x, at.y, Math.max(3, radius), 0, 2 * Math.PI);
  ctx.setLineDash([2, 3]);
  strokeHaloed(ctx, 1, '#a8461f');
  ctx.restore();
}
