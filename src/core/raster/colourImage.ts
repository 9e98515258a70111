/** Red, green and blue of sRGB, 0…255, pixel by pixel, row by row. */
export type ColourImage = { width: number; height: number; channels: 3; data: Uint8Array };

/** @throws RangeError for sides that are not whole numbers above 0, or data of another size. */
export function assertColourImage(image: ColourImage): void {
  const { width, height, channels, data } = image ?? {};
  if (!Number.isInteger(width) || !Number.isInteger(height) || width < 1 || height < 1)
    throw new RangeError('a picture needs a width and a height of at least one pixel');
  if (channels !== 3 || data?.length !== 3 * width * height)
    throw new RangeError(`a picture of ${width} x ${height} in colour needs ${3 * width * height} values`);
}
