import type { Point } from '@/core';
import { mix } from '@/core/geometry/point';
import { strokeHaloed } from './marks';

const QUILL = '#f4c20d';

/** The way of a gradient: a line between its ends, its stops on it; of one in rings, the last of them. CSS px. */
export function paintGradientMarks(
  ctx: CanvasRenderingContext2D,
  from: Point,
  to: Point,
  stops: readonly { at: number; colour: string }[],
  inHand: number | null,
  isRound: boolean,
): void {
  ctx.save();
  if (isRound) {
    ctx.beginPath();
    ctx.arc(from.x, from.y, Math.hypot(to.x - from.x, to.y - from.y), 0, 2 * Math.PI);
    ctx.setLineDash([4, 4]);
    strokeHaloed(ctx, 1, '#27241d');
    ctx.setLineDash([]);
  }
  ctx.beginPath();
  ctx.moveTo(from.x, from.y);
  ctx.lineTo(to.x, to.y);
  strokeHaloed(ctx, 1.4, '#27241d');
  stops.forEach(({ at, colour }, i) => {
    const p = mix(from, to, at);
    const isEnd = at <= 0 || at >= 1;
    ctx.beginPath();
    if (isEnd) ctx.rect(p.x - 6, p.y - 6, 12, 12);
    else ctx.arc(p.x, p.y, 6, 0, 2 * Math.PI);
    ctx.fillStyle = colour;
    ctx.fill();
    ctx.lineWidth = 4;
    ctx.strokeStyle = '#fffefb';
    ctx.stroke();
    ctx.lineWidth = i === inHand ? 3 : 1.6;
    ctx.strokeStyle = i === inHand ? QUILL : '#27241d';
    ctx.stroke();
  });
  ctx.restore();
}
