import { paperField, paperRow } from './paper';
import { greyOf, rgbaImage, type RgbaImage } from './rgba';

/** How light the paper is made, 0…255. */
const PAPER = 245;

/**
 * Takes the unevenness of the light out of a picture of a page: each pixel is divided by the paper's lightness there, as
 * far as `strength` (0…1) says. Ink keeps its contrast to the paper; its colour stays.
 */
export function evenLight(image: RgbaImage, strength: number): RgbaImage {
  const { width, height } = image;
  const field = paperField(greyOf(image));
  const result = rgbaImage(width, height);
  const [from, to] = [image.data, result.data];
  const paper = new Float32Array(width);
  for (let y = 0; y < height; y++) {
    paperRow(field, y, paper);
    for (let x = 0; x < width; x++) {
      const i = (y * width + x) * 4;
      const gain = 1 + strength * (PAPER / Math.max(8, paper[x]) - 1);
      to[i] = from[i] * gain;
      to[i + 1] = from[i + 1] * gain;
      to[i + 2] = from[i + 2] * gain;
      to[i + 3] = from[i + 3];
    }
  }
  return result;
}
