import { grayImage, type GrayImage } from './grayImage';

/** The weights of a Gaussian kernel, from the middle outwards, adding up to 1 with their mirror images. */
export function gaussianKernel(sigma: number): Float32Array {
  const reach = Math.max(1, Math.ceil(3 * sigma));
  const half = Float32Array.from({ length: reach + 1 }, (_, i) => Math.exp(-(i * i) / (2 * sigma * sigma)));
  const sum = half.reduce((a, b) => a + b) * 2 - half[0];
  return half.map((w) => w / sum);
}

/** The picture smoothed by a Gaussian kernel of `sigma` px, rows first, then columns; beyond the edge the edge goes on. */
export function blurred(image: GrayImage, sigma: number): GrayImage {
  if (!(sigma > 0)) return image;
  const { width, height } = image;
  const rows = new Float32Array(width * height);
  smoothRows(image.data, rows, width, height, gaussianKernel(sigma));
  const result = grayImage(width, height);
  smoothColumns(rows, result.data, width, height, gaussianKernel(sigma));
  return result;
}

function smoothRows(
  from: ArrayLike<number>,
  to: Float32Array,
  width: number,
  height: number,
  half: Float32Array,
): void {
  const reach = half.length - 1;
  for (let y = 0; y < height; y++) {
    const row = y * width;
    for (let x = 0; x < width; x++) {
      let sum = half[0] * from[row + x];
      if (x >= reach && x < width - reach) {
        for (let k = 1; k <= reach; k++) sum += half[k] * (from[row + x - k] + from[row + x + k]);
      } else {
        for (let k = 1; k <= reach; k++)
          sum += half[k] * (from[row + Math.max(0, x - k)] + from[row + Math.min(width - 1, x + k)]);
      }
      to[row + x] = sum;
    }
  }
}

function smoothColumns(from: Float32Array, to: Uint8Array, width: number, height: number, half: Float32Array): void {
  const reach = half.length - 1;
  const sum = new Float32Array(width);
  for (let y = 0; y < height; y++) {
    const row = y * width;
    for (let x = 0; x < width; x++) sum[x] = half[0] * from[row + x];
    for (let k = 1; k <= reach; k++) {
      const [above, below] = [Math.max(0, y - k) * width, Math.min(height - 1, y + k) * width];
      for (let x = 0; x < width; x++) sum[x] += half[k] * (from[above + x] + from[below + x]);
    }
    for (let x = 0; x < width; x++) to[row + x] = sum[x] + 0.5;
  }
}
