import { rgbaImage, type RgbaImage } from './rgba';

/** How often rows and columns are gone through; each time over a third as far, so that nothing is seen of them. */
const ROUNDS = 3;

/**
 * A picture smoothed over about `radius` px, but not over edges: colours that differ by much less than `contrast` (of 255, over
 * all channels) become one, others stay apart. By recursive filters along rows and columns, whose reach shortens where the picture
 * changes (Gastal and Oliveira 2011, "Domain transform for edge-aware image and video processing").
 */
export function simplified(image: RgbaImage, radius: number, contrast: number): RgbaImage {
  const { width, height, data } = image;
  if (!(radius > 0)) return image;
  const n = width * height;
  const planes = [0, 1, 2].map((c) => Float32Array.from({ length: n }, (_, i) => data[4 * i + c]));
  const [across, down] = [new Float32Array(n), new Float32Array(n)];
  const steep = radius / Math.max(1, contrast);
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++, i++) {
      let [h, v] = [0, 0];
      for (const plane of planes) {
        if (x > 0) h += Math.abs(plane[i] - plane[i - 1]);
        if (y > 0) v += Math.abs(plane[i] - plane[i - width]);
      }
      across[i] = 1 + steep * h;
      down[i] = 1 + steep * v;
    }
  for (let round = 0; round < ROUNDS; round++) {
    const sigma = (radius * Math.sqrt(3) * 2 ** (ROUNDS - 1 - round)) / Math.sqrt(4 ** ROUNDS - 1);
    const decay = Math.exp(-Math.SQRT2 / sigma);
    const [byRow, byColumn] = [across, down].map((d) => d.map((v) => decay ** v));
    for (const plane of planes) {
      alongRows(plane, byRow, width, height);
      alongColumns(plane, byColumn, width, height);
    }
  }
  const result = rgbaImage(width, height);
  for (let i = 0; i < n; i++) {
    for (let c = 0; c < 3; c++) result.data[4 * i + c] = planes[c][i];
    result.data[4 * i + 3] = data[4 * i + 3];
  }
  return result;
}

/** `keeps`: how much of the pixel before is kept at each pixel. */
function alongRows(plane: Float32Array, keeps: Float32Array, width: number, height: number): void {
  for (let y = 0; y < height; y++) {
    const [first, last] = [y * width, (y + 1) * width - 1];
    for (let i = first + 1; i <= last; i++) plane[i] += keeps[i] * (plane[i - 1] - plane[i]);
    for (let i = last - 1; i >= first; i--) plane[i] += keeps[i + 1] * (plane[i + 1] - plane[i]);
  }
}

function alongColumns(plane: Float32Array, keeps: Float32Array, width: number, height: number): void {
  const n = width * height;
  for (let i = width; i < n; i++) plane[i] += keeps[i] * (plane[i - width] - plane[i]);
  for (let i = n - width - 1; i >= 0; i--) plane[i] += keeps[i + width] * (plane[i + width] - plane[i]);
}
