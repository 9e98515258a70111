import type { Blend, Drawing, Page } from '@/core';
import { movesPicture } from '@/core/drawing/correction';
import { boxesMeet } from '@/core/geometry/box';
import { opacityOf, referenceBox } from '@/core/drawing/placement';
import { shownBox, toScreen, type Size, type View } from '../state/view';
import type { PictureStore } from './pictures';

const FELT = '#cfcbc0';
const PAPER = '#fffefb';
const SHADE = 'rgba(39,36,29,0.16)';

/** The felt, and on it the page with its ground. The context is in device pixels, as everywhere below the marks. */
export function paintGround(ctx: CanvasRenderingContext2D, page: Page, view: View, window: Size, ratio: number): void {
  ctx.fillStyle = FELT;
  ctx.fillRect(0, 0, window.width * ratio, window.height * ratio);
  const [x, y, w, h] = rectOf({ x: 0, y: 0 }, page.width, page.height, view, ratio);
  ctx.fillStyle = SHADE;
  ctx.fillRect(x + 4 * ratio, y + 4 * ratio, w, h);
  ctx.fillStyle = page.ground ?? PAPER;
  ctx.fillRect(x, y, w, h);
}

const composite: Record<Blend, GlobalCompositeOperation> = {
  normal: 'source-over',
  multiply: 'multiply',
  screen: 'screen',
};

/** How references are painted: scaled cheaply while the view moves, reduced while their corrections are under the hand. */
export type PaintPace = { still: boolean; moving: boolean };

/** The visible references, dimmed, the lowest first, each as it is placed, turned, flipped and blended. */
export function paintReferences(
  ctx: CanvasRenderingContext2D,
  drawing: Drawing,
  view: View,
  window: Size,
  ratio: number,
  pictures: PictureStore,
  { still, moving }: PaintPace,
): void {
  ctx.imageSmoothingEnabled = true;
  ctx.imageSmoothingQuality = still ? 'high' : 'low';
  const seen = shownBox(view, window);
  for (const r of drawing.references) {
    if (!r.visible || !boxesMeet(referenceBox(r), seen)) continue;
    const [x, y, w, h] = rectOf(r.at, r.width, r.height, view, ratio);
    const bitmap = pictures.bitmapFor(r, Math.max(w, h), moving);
    if (!bitmap) continue;
    ctx.save();
    ctx.globalAlpha = opacityOf(drawing, r);
    ctx.globalCompositeOperation = composite[r.blend];
    if (r.turn === 0 && !r.flipX && !r.flipY) {
      drawVisiblePart(ctx, bitmap, x, y, w, h, window.width * ratio, window.height * ratio);
    } else {
      ctx.translate(x + w / 2, y + h / 2);
      ctx.rotate((r.turn * Math.PI) / 180);
      ctx.scale(r.flipX ? -1 : 1, r.flipY ? -1 : 1);
      ctx.drawImage(bitmap, -w / 2, -h / 2, w, h);
    }
    ctx.restore();
  }
}

/** Draws just the part of a picture that is in the window: far in, the whole of it would be scaled for nothing. */
function drawVisiblePart(
  ctx: CanvasRenderingContext2D,
  b: ImageBitmap,
  x: number,
  y: number,
  w: number,
  h: number,
  windowW: number,
  windowH: number,
): void {
  const [kx, ky] = [b.width / w, b.height / h];
  const left = Math.max(0, Math.floor(-x * kx) - 1);
  const top = Math.max(0, Math.floor(-y * ky) - 1);
  const right = Math.min(b.width, Math.ceil((windowW - x) * kx) + 1);
  const bottom = Math.min(b.height, Math.ceil((windowH - y) * ky) + 1);
  if (right <= left || bottom <= top) return;
  ctx.drawImage(
    b,
    left,
    top,
    right - left,
    bottom - top,
    x + left / kx,
    y + top / ky,
    (right - left) / kx,
    (bottom - top) / ky,
  );
}

function rectOf(
  at: { x: number; y: number },
  width: number,
  height: number,
  view: View,
  ratio: number,
): [number, number, number, number] {
  const p = toScreen(view, at);
  return [p.x * ratio, p.y * ratio, width * view.scale * ratio, height * view.scale * ratio];
}

/** The drawing with its pictures in the tones they came with; what moves them stays. */
export const withoutTones = (d: Drawing): Drawing => ({
  ...d,
  references: d.references.map((r) => ({
    ...r,
    tint: null,
    corrections: r.corrections.filter((c) => movesPicture(c.kind)),
  })),
});
