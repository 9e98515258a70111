/** Grey values row by row: 0 black … 255 white. Pixel (0, 0) covers x 0…1 and y 0…1, so that its centre is (0.5, 0.5). */
export type GrayImage = { width: number; height: number; data: Uint8Array; channels?: undefined };

/** @throws RangeError for sides that are not whole numbers above 0, or data of another size. */
export function assertGrayImage(image: GrayImage): void {
  const { width, height, data } = image ?? {};
  if (!Number.isInteger(width) || !Number.isInteger(height) || width < 1 || height < 1)
    throw new RangeError('a picture needs a width and a height of at least one pixel');
  if (data?.length !== width * height)
    throw new RangeError(`a picture of ${width} x ${height} needs ${width * height} values`);
}

export const grayImage = (width: number, height: number): GrayImage => ({
  width,
  height,
  data: new Uint8Array(width * height),
});

/** The value at a place, between the centres of the four pixels around it; beyond the edge that of the edge. */
export function valueAt({ width, height, data }: GrayImage, x: number, y: number): number {
  const px = Math.min(width - 1, Math.max(0, x - 0.5));
  const py = Math.min(height - 1, Math.max(0, y - 0.5));
  const left = Math.min(width - 2, Math.floor(px));
  const top = Math.min(height - 2, Math.floor(py));
  // A picture of one column or row has no neighbour to mix with.
  const [l, t] = [Math.max(0, left), Math.max(0, top)];
  const [r, b] = [Math.min(width - 1, l + 1), Math.min(height - 1, t + 1)];
  const [fx, fy] = [px - l, py - t];
  const upper = data[t * width + l] * (1 - fx) + data[t * width + r] * fx;
  const lower = data[b * width + l] * (1 - fx) + data[b * width + r] * fx;
  return upper * (1 - fy) + lower * fy;
}

/** How many pixels have each of the 256 values. */
export function histogramOf({ data }: GrayImage): Uint32Array {
  const counts = new Uint32Array(256);
  for (let i = 0; i < data.length; i++) counts[data[i]]++;
  return counts;
}

/** The picture at a whole fraction of its size, each pixel the mean of the `by` x `by` it stands for. */
export function shrunk(image: GrayImage, by: number): GrayImage {
  if (by <= 1) return image;
  const small = grayImage(Math.max(1, Math.floor(image.width / by)), Math.max(1, Math.floor(image.height / by)));
  for (let y = 0; y < small.height; y++) {
    for (let x = 0; x < small.width; x++) {
      let [sum, n] = [0, 0];
      for (let v = y * by; v < Math.min(image.height, (y + 1) * by); v++) {
        for (let u = x * by; u < Math.min(image.width, (x + 1) * by); u++) {
          sum += image.data[v * image.width + u];
          n++;
        }
      }
      small.data[y * small.width + x] = Math.round(sum / n);
    }
  }
  return small;
}
