import { grayImage, type GrayImage } from './grayImage';

/** Grey closing (Serra 1982): dark spots up to `reach` px from their rim take the value of what is around; slopes stay. */
export const closed = (image: GrayImage, reach: number): GrayImage =>
  extreme(extreme(image, reach, 'greatest'), reach, 'least');

/** Grey opening: the same of light spots. */
export const opened = (image: GrayImage, reach: number): GrayImage =>
  extreme(extreme(image, reach, 'least'), reach, 'greatest');

/** The greatest, or least, value in the square about each pixel, along rows and then columns. */
function extreme({ width, height, data }: GrayImage, reach: number, which: 'greatest' | 'least'): GrayImage {
  const [across, result] = [grayImage(width, height), grayImage(width, height)];
  const isGreatest = which === 'greatest';
  /** Of the pixels of one line, `step` apart, each by those about it. */
  const along = (from: Uint8Array, to: Uint8Array, start: number, step: number, count: number): void => {
    for (let i = 0; i < count; i++) {
      let best = from[start + i * step];
      const last = Math.min(count - 1, i + reach);
      for (let k = Math.max(0, i - reach); k <= last; k++) {
        const v = from[start + k * step];
        if (isGreatest ? v > best : v < best) best = v;
      }
      to[start + i * step] = best;
    }
  };
  for (let y = 0; y < height; y++) along(data, across.data, y * width, 1, width);
  for (let x = 0; x < width; x++) along(across.data, result.data, x, width, height);
  return result;
}
