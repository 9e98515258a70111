import type { Drawing } from '@/core';
import type { Size, View } from '../state/view';
import { KeptPicture } from './keptPicture';
import { paintGround, paintReferences } from './pageGround';
import type { PictureStore } from './pictures';

/**
 * The page's ground and its references as a picture of the window, kept for as long as nothing of it changes: scaled as
 * finely as they are at rest they cost more than all else, and lines that come and go above them leave them as they are.
 */
export class StillGround {
  private readonly picture = new KeptPicture();

  /** The context is in device px. */
  paint(
    ctx: CanvasRenderingContext2D,
    drawing: Drawing,
    view: View,
    window: Size,
    ratio: number,
    pictures: PictureStore,
  ): void {
    const { references, dim, page } = drawing;
    const bitmaps = references.map(
      (r) => r.visible && pictures.bitmapFor(r, Math.max(r.width, r.height) * view.scale * ratio, false),
    );
    this.picture.lay(ctx, window, ratio, [view.x, view.y, view.scale, references, dim, page, ...bitmaps], (own) => {
      paintGround(own, page, view, window, ratio);
      paintReferences(own, drawing, view, window, ratio, pictures, { still: true, moving: false });
    });
  }
}
