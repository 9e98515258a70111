import type { Point, Reference } from '@/core';
import { sharesToPage } from '@/core/drawing/placement';
import { toScreen, type Size, type View } from '../state/view';

const RADIUS = 74;
const TIMES = 4;

/**
 * The round magnifier: a reference's picture around a place (shares of its sides), four times as large as on the page.
 * It stands aside of the place, on the side where there is room, so that the hand does not cover it.
 */
export function paintLoupe(
  ctx: CanvasRenderingContext2D,
  view: View,
  r: Reference,
  bitmap: ImageBitmap,
  place: Point,
  window: Size,
): void {
  const at = toScreen(view, sharesToPage(r, place));
  const side = at.x + RADIUS * 2 + 40 < window.width ? 1 : -1;
  const middle = {
    x: at.x + side * (RADIUS + 30),
    y: Math.min(window.height - RADIUS - 8, Math.max(RADIUS + 8, at.y - RADIUS - 10)),
  };
  const scale = view.scale * TIMES;
  ctx.save();
  ctx.beginPath();
  ctx.arc(middle.x, middle.y, RADIUS, 0, Math.PI * 2);
  ctx.fillStyle = '#cfcbc0';
  ctx.fill();
  ctx.save();
  ctx.clip();
  ctx.translate(middle.x, middle.y);
  ctx.rotate((r.turn * Math.PI) / 180);
  ctx.scale(r.flipX ? -1 : 1, r.flipY ? -1 : 1);
  const [w, h] = [r.width * scale, r.height * scale];
  ctx.imageSmoothingQuality = 'high';
  ctx.drawImage(bitmap, -place.x * w, -place.y * h, w, h);
  ctx.restore();
  ctx.strokeStyle = '#27241d';
  ctx.lineWidth = 1.5;
  ctx.stroke();
  paintCross(ctx, middle);
  ctx.restore();
}

/** The cross in a loupe's middle, open where the place itself is. */
export function paintCross(ctx: CanvasRenderingContext2D, at: Point): void {
  ctx.lineWidth = 1;
  ctx.beginPath();
  for (const [x, y] of [
    [1, 0],
    [-1, 0],
    [0, 1],
    [0, -1],
  ]) {
    ctx.moveTo(at.x + x * 5, at.y + y * 5);
    ctx.lineTo(at.x + x * 15, at.y + y * 15);
  }
  ctx.stroke();
}
