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

/** A picture in grey, for its ink. */
export function inGrey(image: Picture): GrayImage {
  if (!isColour(image)) return image;
  const { width, height, data } = image;
  return {
    width,
    height,
    data: Uint8Array.from({ length: width * height }, (_, i) =>
      Math.round(luma(data[3 * i], data[3 * i + 1], data[3 * i + 2])),
    ),
  };
}
