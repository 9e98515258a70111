import type { Drawing } from '@/core';
import type { Size, View } from '../state/view';
import { paintGround, paintReferences } from './pageGround';
import type { PictureStore } from './pictures';

/**
 * The page's ground and its references as a picture of the window, kept for as long as nothing of it changes: scaled as
 * finely as they are at rest they cost more than all else, and lines that come and go above them leave them as they are.
 */
export class StillGround {
  private readonly canvas = document.createElement('canvas');
  private painted: readonly unknown[] = [];

  /** The context is in device px. */
  paint(
    ctx: CanvasRenderingContext2D,
    drawing: Drawing,
    view: View,
    window: Size,
    ratio: number,
    pictures: PictureStore,
  ): void {
    const [width, height] = [Math.round(window.width * ratio), Math.round(window.height * ratio)];
    if (width === 0 || height === 0) return;
    const { references, dim, page } = drawing;
    const bitmaps = references.map(
      (r) => r.visible && pictures.bitmapFor(r, Math.max(r.width, r.height) * view.scale * ratio, false),
    );
    // All that it depends on.
    const of = [width, height, ratio, view.x, view.y, view.scale, references, dim, page, ...bitmaps];
    if (of.length !== this.painted.length || of.some((value, i) => value !== this.painted[i])) {
      this.canvas.width = width;
      this.canvas.height = height;
      const own = this.canvas.getContext('2d')!;
      paintGround(own, page, view, window, ratio);
      paintReferences(own, drawing, view, window, ratio, pictures, { still: true, moving: false });
      this.painted = of;
    }
    ctx.drawImage(this.canvas, 0, 0);
  }
}
