import type { Cubic } from '../geometry/cubic';
import { fitCurve } from '../geometry/fit/fitCurve';
import type { Point } from '../geometry/point';
import { blurredValues } from '../raster/blur';
import { assertColourImage, type ColourImage } from '../raster/colourImage';
import { contours, signedArea } from '../raster/contours';
import { nestedOutlines } from '../raster/nestedOutlines';
import { areaMask, type AreaMask } from '../raster/areaMask';
import { labOf } from './oklab';
import { FEWEST_STEPS, MOST_STEPS } from './tone';
import { medianOf } from './typical';

export type PullTonesOptions = {
  /** How many tones the area comes to be in, 2 to 7. */
  readonly steps: number;
  /** What is narrower than about this is smoothed away, px. */
  readonly smooth: number;
  /** How far curves may run from what was found, px. */
  readonly tolerance: number;
};

/** A part of an area that is darker or lighter than the rest of it: outer outline first, then holes, px; and its tone, 0…1. */
export type TonePart = { readonly loops: Cubic[][]; readonly tone: number };

/** The tones of an area: that of most of it, and the parts that lie over it, those nearest to it first. */
export type AreaTones = { readonly tone: number; readonly parts: TonePart[] };

/** A part is no smaller than the square of this times what is smoothed away. */
const SMALLEST = 2.5;
const ROUNDS = 40;

/**
 * An area of a picture brought down to some tones: smooth shapes that are laid over each other from the tone of most of it
 * outwards, to be kept inside of the area, beyond whose border they run. Tones are OKLab lightness, smoothed within the area
 * alone (normalised convolution: Knutsson and Westin 1993), parted so that each lies nearest to the mean of its part (Lloyd
 * 1982); outlines by marching squares, fitted. Null where none of the area lies in the picture. `outlines`: polygons, px,
 * even-odd. @throws RangeError for a bad picture or option.
 */
export function pullTones(
  image: ColourImage,
  outlines: readonly (readonly Point[])[],
  { steps, smooth, tolerance }: PullTonesOptions,
): AreaTones | null {
  assertColourImage(image);
  if (!Number.isInteger(steps) || steps < FEWEST_STEPS || steps > MOST_STEPS)
    throw new RangeError(`there are ${FEWEST_STEPS} to ${MOST_STEPS} tones`);
  if (!(smooth > 0) || !(tolerance > 0)) throw new RangeError('what is smoothed, and the tolerance, must be above 0');
  const margin = Math.ceil(3 * smooth);
  const area = areaMask(image, outlines, margin);
  if (!area) return null;
  const tones = smoothedTones(image, area, smooth);
  const within = Array.from(tones.filter((_, i) => area.mask[i]));
  const means = partedTones(within, steps);
  const usual = medianOf(within);
  const base = means.reduce((a, b) => (Math.abs(b - usual) < Math.abs(a - usual) ? b : a));
  const at = means.indexOf(base);
  const parts: TonePart[] = [];
  const add = (k: number, sign: 1 | -1): void => {
    const border = (means[k] + means[k + sign]) / 2;
    for (const loops of partsBeyond(tones, area, border, sign, { smooth, tolerance }))
      parts.push({ loops, tone: means[k] });
  };
  // The nearest first, so that the further from the base the later it is laid.
  for (let k = 1; k < means.length; k++) {
    if (at - k >= 0) add(at - k, 1);
    if (at + k < means.length) add(at + k, -1);
  }
  return { tone: base, parts };
}

/** The lightness of each pixel of the window, smoothed by what lies in the area; around it that goes on. */
function smoothedTones(image: ColourImage, { x, y, width, height, mask }: AreaMask, sigma: number): Float32Array {
  const [tone, weight] = [new Float32Array(width * height), new Float32Array(width * height)];
  mask.forEach((isIn, i) => {
    if (!isIn) return;
    const j = 3 * ((y + Math.floor(i / width)) * image.width + x + (i % width));
    tone[i] = labOf(image.data[j], image.data[j + 1], image.data[j + 2])[0];
    weight[i] = 1;
  });
  const [sum, count] = [blurredValues(tone, width, height, sigma), blurredValues(weight, width, height, sigma)];
  return sum.map((s, i) => (count[i] > 1e-5 ? s / count[i] : NaN)).map(filledIn(width));
}

/** What the smoothing does not reach takes the value before it in its row, or above it. */
const filledIn =
  (width: number) =>
  (v: number, i: number, all: Float32Array): number => {
    if (Number.isNaN(v)) all[i] = i % width > 0 ? all[i - 1] : i >= width ? all[i - width] : 0.5;
    return all[i];
  };

/** The means of so many sorts of values, rising; fewer where there are no more. */
function partedTones(values: readonly number[], count: number): number[] {
  const sorted = Float64Array.from(values).sort();
  let means = Array.from({ length: count }, (_, k) => sorted[Math.floor(((k + 0.5) / count) * sorted.length)]);
  for (let round = 0; round < ROUNDS; round++) {
    const sums = means.map(() => ({ sum: 0, n: 0 }));
    let k = 0;
    for (const v of sorted) {
      while (k + 1 < means.length && Math.abs(means[k + 1] - v) < Math.abs(means[k] - v)) k++;
      sums[k].sum += v;
      sums[k].n++;
    }
    const next = sums.map(({ sum, n }, i) => (n > 0 ? sum / n : means[i]));
    if (next.every((m, i) => Math.abs(m - means[i]) < 1e-5)) break;
    means = next;
  }
  return means.filter((m, i) => i === 0 || m - means[i - 1] > 0.01);
}

/** What lies on the dark side (sign 1) or the light side of a border between tones: shapes with their holes, px. */
function partsBeyond(
  tones: Float32Array,
  { x, y, width, height, mask }: AreaMask,
  border: number,
  sign: 1 | -1,
  { smooth, tolerance }: { smooth: number; tolerance: number },
): Cubic[][][] {
  const data = sign > 0 ? tones.map((v) => 255 * v) : tones.map((v) => 255 * (1 - v));
  const level = 255 * (sign > 0 ? border : 1 - border);
  const least = (SMALLEST * smooth) ** 2;
  const runs = contours({ width, height, data }, level)
    .filter((o) => Math.abs(signedArea(o)) > least)
    .map((points) => ({
      cubics: fitCurve(points, { tolerance, closed: true }).map(
        (c) => c.map((p) => ({ x: p.x + x, y: p.y + y })) as Cubic,
      ),
    }));
  const isSeen = (loops: Cubic[][]): boolean => {
    const own = areaMask(
      { width: x + width, height: y + height },
      loops.map((l) => l.map((c) => c[0])),
    );
    return own !== null && seenPixels(own, { x, y, width, height, mask }) > least;
  };
  return nestedOutlines(runs)
    .map((shape) => shape.map((r) => r.cubics))
    .filter(isSeen);
}

/** How many pixels of a part lie in the area. */
function seenPixels(part: AreaMask, area: AreaMask): number {
  let n = 0;
  part.mask.forEach((isIn, i) => {
    if (!isIn) return;
    const [px, py] = [part.x + (i % part.width) - area.x, part.y + Math.floor(i / part.width) - area.y];
    if (px >= 0 && py >= 0 && px < area.width && py < area.height) n += area.mask[py * area.width + px];
  });
  return n;
}
