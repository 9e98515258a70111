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

/** Values that are smoothed as a picture is. */
export function blurredValues(values: Float32Array, width: number, height: number, sigma: number): Float32Array {
  if (!(sigma > 0)) return values;
  const rows = new Float32Array(width * height);
  const result = new Float32Array(width * height);
  smoothRows(values, rows, width, height, gaussianKernel(sigma));
  smoothColumns(rows, result, width, height, gaussianKernel(sigma));
  return result;
}

/** What is kept in whole numbers is rounded. */
function smoothColumns(
  from: Float32Array,
  to: Uint8Array | Float32Array,
  width: number,
  height: number,
  half: Float32Array,
): void {
  const rounds = to instanceof Uint8Array ? 0.5 : 0;
  const reach = half.length - 1;
  // Two pairs of rows at a time: each pass over the sums costs as much as the rows themselves.
  const sum = new Float32Array(width);
  for (let y = 0; y < height; y++) {
    const row = y * width;
    for (let x = 0; x < width; x++) sum[x] = half[0] * from[row + x] + rounds;
    for (let k = 1; k <= reach; k += 2) {
      const [a, b] = [Math.max(0, y - k) * width, Math.min(height - 1, y + k) * width];
      const [c, d] = [Math.max(0, y - k - 1) * width, Math.min(height - 1, y + k + 1) * width];
      const near = half[k];
      const far = k < reach ? half[k + 1] : 0;
      for (let x = 0; x < width; x++) sum[x] += near * (from[a + x] + from[b + x]) + far * (from[c + x] + from[d + x]);
    }
    to.set(sum, row);
  }
}
