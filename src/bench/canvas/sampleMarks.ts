import type { Point } from '@/core';
import { paintNote, strokeHaloed } from './marks';

/** A pixel of the picture is shown so large, CSS px. */
const LARGE = 9;

/** What is taken: the pixels about the pointer, large, with the one in their middle framed; the colour and its figure. */
export function paintSampled(
  ctx: CanvasRenderingContext2D,
  at: Point,
  colour: string,
  patch: ImageData | null,
  box: readonly [Point, Point] | null,
): void {
  ctx.save();
  if (box) {
    const [a, b] = box;
    ctx.beginPath();
    ctx.rect(a.x, a.y, b.x - a.x, b.y - a.y);
    strokeHaloed(ctx, 1.4);
  }
  const side = patch ? patch.width * LARGE : 26;
  const [left, top] = [at.x + 18, at.y + 18];
  if (patch) {
    for (let y = 0; y < patch.height; y++)
      for (let x = 0; x < patch.width; x++) {
        const i = 4 * (y * patch.width + x);
        ctx.fillStyle = `rgb(${patch.data[i]} ${patch.data[i + 1]} ${patch.data[i + 2]})`;
        ctx.fillRect(left + x * LARGE, top + y * LARGE, LARGE, LARGE);
      }
    const middle = (patch.width >> 1) * LARGE;
    ctx.beginPath();
    ctx.rect(left + middle - LARGE, top + middle - LARGE, 3 * LARGE, 3 * LARGE);
    strokeHaloed(ctx, 1.2);
  }
  ctx.fillStyle = colour;
  ctx.beginPath();
  ctx.rect(left, top + (patch ? side : 0), side, 20);
  ctx.fill();
  ctx.beginPath();
  ctx.rect(left, top, side, (patch ? side : 0) + 20);
  strokeHaloed(ctx, 1);
  ctx.restore();
  paintNote(ctx, { x: left + 6, y: top + (patch ? side : 0) + 36 }, colour);
}
