import { blurred } from './blur';
import { rgbaImage, type RgbaImage } from './rgba';

/** The picture with each colour smoothed by a Gaussian bell of `sigma` px. */
export const blurredRgba = (image: RgbaImage, sigma: number): RgbaImage =>
  sigma < 0.1 ? image : eachChannel(image, (data, width, height) => blurred({ width, height, data }, sigma).data);

/** Each pixel takes the median of the nine around it, colour by colour, `rounds` times: grain goes, edges stay. */
export const denoised = (image: RgbaImage, rounds: number): RgbaImage =>
  eachChannel(image, (data, width, height) => {
    let now = data;
    for (let k = 0; k < rounds; k++) now = medians(now, width, height);
    return now;
  });

function eachChannel(
  image: RgbaImage,
  work: (data: Uint8Array, width: number, height: number) => Uint8Array,
): RgbaImage {
  const { width, height, data } = image;
  const result = rgbaImage(width, height);
  const channel = new Uint8Array(width * height);
  for (let k = 0; k < 3; k++) {
    for (let i = 0; i < channel.length; i++) channel[i] = data[4 * i + k];
    const done = work(channel, width, height);
    for (let i = 0; i < channel.length; i++) result.data[4 * i + k] = done[i];
  }
  for (let i = 3; i < data.length; i += 4) result.data[i] = data[i];
  return result;
}

/** The median of nine from those of columns of three (Devillard 1998): the columns are sorted once and used three times. */
function medians(data: Uint8Array, width: number, height: number): Uint8Array {
  const result = new Uint8Array(data.length);
  const [low, middle, high] = [new Uint8Array(width), new Uint8Array(width), new Uint8Array(width)];
  for (let y = 0; y < height; y++) {
    const [above, row, below] = [Math.max(0, y - 1) * width, y * width, Math.min(height - 1, y + 1) * width];
    for (let x = 0; x < width; x++) {
      const [a, b, c] = [data[above + x], data[row + x], data[below + x]];
      const [least, most] = [a < b ? a : b, a < b ? b : a];
      low[x] = c < least ? c : least;
      high[x] = c > most ? c : most;
      middle[x] = c < least ? least : c > most ? most : c;
    }
    for (let x = 0; x < width; x++) {
      const [l, r] = [x > 0 ? x - 1 : 0, x < width - 1 ? x + 1 : x];
      result[row + x] = middleOf(
        largest(low[l], low[x], low[r]),
        middleOf(middle[l], middle[x], middle[r]),
        least(high[l], high[x], high[r]),
      );
    }
  }
  return result;
}

const largest = (a: number, b: number, c: number): number => (a > b ? (a > c ? a : c) : b > c ? b : c);
const least = (a: number, b: number, c: number): number => (a < b ? (a < c ? a : c) : b < c ? b : c);
const middleOf = (a: number, b: number, c: number): number =>
  a < b ? (b < c ? b : a < c ? c : a) : a < c ? a : b < c ? c : b;
