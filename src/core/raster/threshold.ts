import { assertGrayImage, grayImage, histogramOf, type GrayImage } from './grayImage';

export type ThresholdOptions = {
  method: 'global' | 'adaptive';
  /**
   * Global: the darkest value that is paper, 0…256; found by Otsu's method when it is left out. Adaptive: how readily a
   * pixel is ink, 0…255; 128 by default, higher takes fainter strokes.
   */
  level?: number;
  /** Adaptive: the side of the square around each pixel that it is compared with, in px; a fortieth of the longer side. */
  window?: number;
};

/** Half of the range of grey values: the spread at which Sauvola's rule compares with the mean itself. */
const HALF_RANGE = 128;

/**
 * Ink as black (0) and paper as white (255). Global: one level for all (Otsu 1979, "A threshold selection method from
 * gray-level histograms", when none is given). Adaptive: each pixel against the mean and spread around it (Sauvola and
 * Pietikäinen 2000, "Adaptive document image binarization"), by integral images, so that the window costs nothing.
 * @throws RangeError for a picture without pixels, an unknown method, a level or a window out of bounds.
 */
export function threshold(image: GrayImage, options: ThresholdOptions): GrayImage {
  assertGrayImage(image);
  const { method, level } = options;
  if (method !== 'global' && method !== 'adaptive') throw new RangeError('the method must be global or adaptive');
  if (level !== undefined && !(level >= 0 && level <= 256)) throw new RangeError('the level must lie within 0 and 256');
  if (method === 'adaptive') return adaptive(image, level ?? 128, options.window);
  const limit = level ?? otsuLevel(histogramOf(image));
  const result = grayImage(image.width, image.height);
  for (let i = 0; i < image.data.length; i++) result.data[i] = image.data[i] < limit ? 0 : 255;
  return result;
}

/**
 * The level that parts dark from light with the least spread within both; the darkest value of the light. Where a range
 * of levels does equally well its middle is taken. A picture of one value is all paper.
 */
export function otsuLevel(counts: ArrayLike<number>): number {
  let [total, weighted] = [0, 0];
  for (let v = 0; v < 256; v++) {
    total += counts[v];
    weighted += v * counts[v];
  }
  let [dark, darkSum, best, first, last] = [0, 0, 0, 0, 0];
  for (let v = 0; v < 255; v++) {
    dark += counts[v];
    darkSum += v * counts[v];
    if (dark === 0 || dark === total) continue;
    const apart = darkSum / dark - (weighted - darkSum) / (total - dark);
    const between = dark * (total - dark) * apart * apart;
    if (between > best * (1 + 1e-12)) [best, first, last] = [between, v + 1, v + 1];
    else if (between >= best * (1 - 1e-12)) last = v + 1;
  }
  return Math.round((first + last) / 2);
}

function adaptive(image: GrayImage, level: number, window?: number): GrayImage {
  const { width, height, data } = image;
  const side = window ?? Math.max(15, Math.round(Math.max(width, height) / 40));
  if (!(side >= 1) || !Number.isFinite(side)) throw new RangeError('the window must be at least one pixel');
  const reach = Math.max(1, Math.floor(side / 2));
  const sums = new Float64Array((width + 1) * (height + 1));
  const squares = new Float64Array((width + 1) * (height + 1));
  for (let y = 0; y < height; y++) {
    let [sum, square] = [0, 0];
    for (let x = 0; x < width; x++) {
      const v = data[y * width + x];
      sum += v;
      square += v * v;
      const i = (y + 1) * (width + 1) + x + 1;
      sums[i] = sums[i - width - 1] + sum;
      squares[i] = squares[i - width - 1] + square;
    }
  }
  // At 128 the usual factor 0.2; at 255 the mean itself decides.
  const k = (0.2 * (255 - Math.min(255, level))) / (255 - HALF_RANGE);
  const result = grayImage(width, height);
  for (let y = 0; y < height; y++) {
    const [top, bottom] = [Math.max(0, y - reach), Math.min(height, y + reach + 1)];
    for (let x = 0; x < width; x++) {
      const [left, right] = [Math.max(0, x - reach), Math.min(width, x + reach + 1)];
      const n = (right - left) * (bottom - top);
      const [a, b] = [top * (width + 1), bottom * (width + 1)];
      const mean = (sums[b + right] - sums[b + left] - sums[a + right] + sums[a + left]) / n;
      const square = (squares[b + right] - squares[b + left] - squares[a + right] + squares[a + left]) / n;
      const spread = Math.sqrt(Math.max(0, square - mean * mean));
      const limit = mean * (1 + k * (spread / HALF_RANGE - 1));
      result.data[y * width + x] = data[y * width + x] < limit ? 0 : 255;
    }
  }
  return result;
}
