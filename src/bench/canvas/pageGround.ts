import type { Drawing, Page } from '@/core';
import { movesPicture } from '@/core/raster/correction';
import { boxesMeet } from '@/core/geometry/box';
import { placedBox } from '@/core/drawing/placement';
import { referencesOf } from '@/core/scene/scene';
import { paintPicture } from '@/painting/paintLeaves';
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
  const scale = view.scale * ratio;
  ctx.save();
  ctx.setTransform(scale, 0, 0, scale, view.x * ratio, view.y * ratio);
  for (const node of referencesOf(drawing)) {
    if (!boxesMeet(placedBox(node.placed), seen)) continue;
    const { width, height } = node.placed;
    const { placed, bitmap } = pictures.seen(node.placed, Math.max(width, height) * scale, moving);
    paintPicture(ctx, { ...node, placed }, bitmap, seen);
  }
  ctx.restore();
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
