import type { ColourImage } from './colourImage';
import type { GrayImage } from './grayImage';

/** Red, green, blue and alpha of each pixel, row by row, as a canvas has them (not premultiplied). */
export type RgbaImage = { width: number; height: number; data: Uint8ClampedArray };

export const rgbaImage = (width: number, height: number): RgbaImage => ({
  width,
  height,
  data: new Uint8ClampedArray(width * height * 4),
});

/** The picture's pixels as one whole number each, red in the lowest byte (as on all machines that browsers run on). */
export function wordsOf({ data }: RgbaImage): Uint32Array {
  const own = data.byteOffset % 4 === 0 ? data : data.slice();
  return new Uint32Array(own.buffer, own.byteOffset, own.length / 4);
}

export const imageOfWords = (image: { width: number; height: number; words: Uint32Array }): RgbaImage => ({
  width: image.width,
  height: image.height,
  data: new Uint8ClampedArray(image.words.buffer, image.words.byteOffset, image.words.byteLength),
});

/** The grey of a colour: its luma (ITU-R BT.709 weights, as sRGB has them). */
export const luma = (r: number, g: number, b: number): number => 0.2126 * r + 0.7152 * g + 0.0722 * b;

/** The picture in grey; what is see-through counts as white. */
export function greyOf({ width, height, data }: RgbaImage): GrayImage {
  return fromPixels(width, height, data, (r, g, b) => luma(r, g, b));
}

/**
 * What tells paper from what it lies on: the least of a pixel's three colours. Paper is nearly as light in all of them;
 * wood, skin and cloth are dark in one.
 */
export function paperValues({ width, height, data }: RgbaImage): GrayImage {
  return fromPixels(width, height, data, (r, g, b) => Math.min(r, g, b));
}

function fromPixels(
  width: number,
  height: number,
  data: Uint8ClampedArray,
  value: (r: number, g: number, b: number) => number,
): GrayImage {
  const grey = new Uint8Array(width * height);
  for (let i = 0, j = 0; i < grey.length; i++, j += 4) {
    const alpha = data[j + 3] / 255;
    grey[i] = value(data[j], data[j + 1], data[j + 2]) * alpha + 255 * (1 - alpha) + 0.5;
  }
  return { width, height, data: grey };
}

/** The picture's colours alone; what is see-through counts as white. */
export function colourImageOf({ width, height, data }: RgbaImage): ColourImage {
  const colours = new Uint8Array(3 * width * height);
  for (let i = 0, j = 0; j < data.length; i += 3, j += 4) {
    const alpha = data[j + 3] / 255;
    for (let c = 0; c < 3; c++) colours[i + c] = data[j + c] * alpha + 255 * (1 - alpha) + 0.5;
  }
  return { width, height, channels: 3, data: colours };
}
