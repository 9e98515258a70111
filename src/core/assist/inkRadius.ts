import { distanceField } from '../raster/distanceField';
import { inGrey, type Picture } from '../colour/picture';
import { strongOutlines } from '../edges/strongOutlines';
import type { GrayImage } from '../raster/grayImage';
import { inkIn, type Ink } from './inkMask';
import type { Target } from './tracked';

/** What of a picture there is to be traced, and how far each of its pixels is from what is not. */
export type InkWithRadius = { readonly ink: Pick<Ink, 'mask' | 'width' | 'height'>; readonly radius: Float32Array };

const inks = new WeakMap<GrayImage, InkWithRadius>();

/** The ink of a picture and how far each of its pixels is from the paper, told once for each picture. */
export function inkWithRadius(image: GrayImage): InkWithRadius {
  let known = inks.get(image);
  if (!known) {
    const ink = inkIn(image);
    inks.set(image, (known = { ink, radius: distanceField(ink.mask, image.width, image.height) }));
  }
  return known;
}

const outlines = new WeakMap<Picture, InkWithRadius>();

/** What there is to be traced: the ink, or the strong outlines of a photo, three px broad. */
export function toBeTraced(image: Picture, target: Target): InkWithRadius {
  if (target === 'ink') return inkWithRadius(inGrey(image));
  let made = outlines.get(image);
  if (!made) outlines.set(image, (made = outlinesAsInk(image)));
  return made;
}

function outlinesAsInk(image: Picture): InkWithRadius {
  const { width, height } = image;
  const mask = new Uint8Array(width * height);
  for (const { points } of strongOutlines(image))
    for (const [k, p] of points.entries()) {
      const q = points[Math.min(points.length - 1, k + 1)];
      const steps = Math.max(1, Math.ceil(Math.max(Math.abs(q.x - p.x), Math.abs(q.y - p.y))));
      for (let s = 0; s < steps; s++) {
        const [x, y] = [Math.floor(p.x + ((q.x - p.x) * s) / steps), Math.floor(p.y + ((q.y - p.y) * s) / steps)];
        for (let v = Math.max(0, y - 1); v <= Math.min(height - 1, y + 1); v++)
          mask.fill(1, v * width + Math.max(0, x - 1), v * width + Math.min(width, x + 2));
      }
    }
  return { ink: { mask, width, height }, radius: new Float32Array(mask.length).fill(1) };
}
