import { distanceField } from '../raster/distanceField';
import { type GrayImage } from '../raster/grayImage';
import { inkIn, type Ink } from './inkMask';

export type InkWithRadius = { ink: Ink; radius: Float32Array };
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
