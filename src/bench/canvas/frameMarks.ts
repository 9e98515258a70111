import type { Box, Point } from '@/core';
import type { FrameGrip } from '@/core/geometry/frame';
import { toScreen, type View } from '../state/view';
import { paintBead, strokeHaloed } from './marks';

const [INK, PAPER, QUILL] = ['#27241d', '#fffefb', '#f4c20d'];
const FULL_TURN = 2 * Math.PI;

export type ShownGrip = { readonly grip: FrameGrip; readonly at: Point };

/** The frame around what is chosen: `pad` CSS px outside its box, so that it lies on none of its lines. */
export function paintFrame(ctx: CanvasRenderingContext2D, view: View, box: Box, pad: number): void {
  const [a, b] = [toScreen(view, { x: box.minX, y: box.minY }), toScreen(view, { x: box.maxX, y: box.maxY })];
  ctx.save();
  ctx.beginPath();
  ctx.rect(a.x - pad, a.y - pad, b.x - a.x + 2 * pad, b.y - a.y + 2 * pad);
  ctx.setLineDash([2, 4]);
  ctx.lineWidth = 1;
  ctx.strokeStyle = INK;
  ctx.stroke();
  ctx.restore();
}

/** A grip: a bead that scales, a bar that scales one way, an arc that turns, a leaning pair of strokes that slants. */
export function paintGrip(ctx: CanvasRenderingContext2D, { grip, at }: ShownGrip, isHeld: boolean): void {
  if (grip.deed === 'scale' && grip.x !== 0 && grip.y !== 0) return paintBead(ctx, at);
  ctx.save();
  ctx.translate(at.x, at.y);
  ctx.lineCap = 'round';
  ctx.beginPath();
  if (grip.deed === 'scale') {
    const [w, h] = grip.x === 0 ? [14, 5] : [5, 14];
    ctx.roundRect(-w / 2, -h / 2, w, h, 2.5);
    ctx.fillStyle = isHeld ? QUILL : PAPER;
    ctx.fill();
    ctx.lineWidth = 1.2;
    ctx.strokeStyle = INK;
    ctx.stroke();
  } else if (grip.deed === 'turn') {
    const middle = Math.atan2(grip.y, grip.x);
    ctx.arc(-6 * grip.x, -6 * grip.y, 9, middle - 0.9, middle + 0.9);
    strokeHaloed(ctx, isHeld ? 2.6 : 1.8, INK);
  } else {
    const isAcross = grip.axis === 'across';
    for (const k of [-4, 4]) {
      ctx.moveTo(isAcross ? k - 2 : -4, isAcross ? 4 : k + 2);
      ctx.lineTo(isAcross ? k + 2 : 4, isAcross ? -4 : k - 2);
    }
    strokeHaloed(ctx, isHeld ? 2.6 : 1.8, INK);
  }
  ctx.restore();
}

/** The place about which things are scaled and turned: a ring with a cross through it. */
export function paintOrigin(ctx: CanvasRenderingContext2D, at: Point, isHeld: boolean): void {
  ctx.save();
  ctx.beginPath();
  ctx.arc(at.x, at.y, 6, 0, FULL_TURN);
  ctx.fillStyle = isHeld ? QUILL : 'rgba(255,254,251,0.7)';
  ctx.fill();
  ctx.moveTo(at.x + 6, at.y);
  ctx.arc(at.x, at.y, 6, 0, FULL_TURN);
  for (const [x, y] of [
    [1, 0],
    [-1, 0],
    [0, 1],
    [0, -1],
  ]) {
    ctx.moveTo(at.x + 3 * x, at.y + 3 * y);
    ctx.lineTo(at.x + 10 * x, at.y + 10 * y);
  }
  strokeHaloed(ctx, 1.3, INK);
  ctx.restore();
}
