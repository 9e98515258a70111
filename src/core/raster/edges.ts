import { blurred } from './blur';
import { shrunk, type GrayImage } from './grayImage';

/** A place where the picture changes from dark to light: (nx, ny) of length 1 points to the light, `strength` is its contrast. */
export type EdgePoint = { x: number; y: number; nx: number; ny: number; strength: number };

/** How dark must not be told from darker: added before logarithms are taken. */
const FLOOR = 12;

/** The logarithms of the smoothed values: light that falls off over a page changes them slowly, whatever lies on it. */
export function logValues(image: GrayImage, sigma: number): Float32Array {
  const table = Float32Array.from({ length: 256 }, (_, v) => Math.log(v + FLOOR));
  return Float32Array.from(blurred(image, sigma).data, (v) => table[v]);
}

/** A picture no larger than `longest` px, and how many of the original's pixels one of its pixels stands for. */
export function reducedTo(image: GrayImage, longest: number): { image: GrayImage; by: number } {
  const by = Math.max(1, Math.round(Math.max(image.width, image.height) / longest));
  return { image: shrunk(image, by), by };
}

/**
 * The ridges of the gradient of the logarithms, thinned across (Canny 1986), in the picture's px. `least` is the smallest
 * contrast that counts, as a difference of logarithms a pixel.
 */
export function edgePoints(image: GrayImage, sigma: number, least: number): EdgePoint[] {
  const { width, height } = image;
  const v = logValues(image, sigma);
  const gx = new Float32Array(v.length);
  const gy = new Float32Array(v.length);
  for (let y = 1; y < height - 1; y++) {
    for (let x = 1; x < width - 1; x++) {
      const i = y * width + x;
      gx[i] =
        (2 * (v[i + 1] - v[i - 1]) + v[i + 1 - width] - v[i - 1 - width] + v[i + 1 + width] - v[i - 1 + width]) / 8;
      gy[i] =
        (2 * (v[i + width] - v[i - width]) +
          v[i + width - 1] -
          v[i - width - 1] +
          v[i + width + 1] -
          v[i - width + 1]) /
        8;
    }
  }
  const points: EdgePoint[] = [];
  const strengthAt = (i: number): number => Math.hypot(gx[i], gy[i]);
  for (let y = 2; y < height - 2; y++) {
    for (let x = 2; x < width - 2; x++) {
      const i = y * width + x;
      const strength = strengthAt(i);
      if (strength < least) continue;
      const [nx, ny] = [gx[i] / strength, gy[i] / strength];
      const step = Math.abs(nx) > Math.abs(ny) ? Math.sign(nx) : Math.sign(ny) * width;
      const [before, after] = [strengthAt(i - step), strengthAt(i + step)];
      if (before > strength || after >= strength) continue;
      // The ridge's place between pixels, by a parabola.
      const curve = before - 2 * strength + after;
      const off = curve < 0 ? (0.5 * (before - after)) / curve : 0;
      const horizontal = Math.abs(nx) > Math.abs(ny);
      points.push({
        x: x + 0.5 + (horizontal ? off * Math.sign(nx) : 0),
        y: y + 0.5 + (horizontal ? 0 : off * Math.sign(ny)),
        nx,
        ny,
        strength,
      });
    }
  }
  return points;
}
