import { assertColourImage, type ColourImage } from '../raster/colourImage';
import { assertGrayImage, type GrayImage } from '../raster/grayImage';
import { luma } from '../raster/rgba';

/** A picture in grey or in colour. */
export type Picture = GrayImage | ColourImage;

const isColour = (image: Picture): image is ColourImage => 'channels' in image;

/** @throws RangeError for a picture that is none. */
export function assertPicture(image: Picture): void {
  if (image && isColour(image)) assertColourImage(image);
  else assertGrayImage(image);
}

const greys = new WeakMap<ColourImage, GrayImage>();

/** A picture in grey, for its ink; made once of each. */
export function inGrey(image: Picture): GrayImage {
  if (!isColour(image)) return image;
  let grey = greys.get(image);
  if (!grey) {
    const { width, height, data: from } = image;
    const data = new Uint8Array(width * height);
    for (let i = 0; i < data.length; i++) data[i] = Math.round(luma(from[3 * i], from[3 * i + 1], from[3 * i + 2]));
    greys.set(image, (grey = { width, height, data }));
  }
  return grey;
}
