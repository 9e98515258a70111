import { assertColourImage, type ColourImage } from '../raster/colourImage';
import { ALIKE, meanOf, middlesOf, sharedOut, type Bin } from './clusters';
import { labDistance, labOf, rgbOf, type Lab } from './oklab';

/** A colour of sRGB, 0…255 each, and how much of the picture it stands for, 0…1. */
export type PaletteColour = { readonly colour: [number, number, number]; readonly share: number };

/** Colours are counted in so many levels of each channel; where middles are begun, in fewer. */
const LEVELS = { fine: 32, coarse: 8 };
/** A pixel whose neighbours differ by so much of a channel lies on an edge as much as in an area. */
const EDGE = 48;
const MOST = 256;
const ENOUGH = 1_000_000;
/** Less than this share of a picture is stray. */
const STRAY = 0.0004;
/** A colour is the mean of what lies nearest to its middle: so much of it. */
const CORE = 0.6;

/**
 * The colours that stand for a picture, the one with the largest share first; fewer than `count` where the picture has fewer.
 * Pixels are counted in coarse bins, each as its mean; begun with the largest, then always with what is worst stood for,
 * middles are moved to the means of what is nearest to them, in OKLab (Ottosson 2020; Lloyd 1982, with Arthur and
 * Vassilvitskii's 2007 spread of beginnings, without its chance). What is small counts for more than its size.
 * @throws RangeError for a bad picture, or a count that is not a whole number from 1 to 256.
 */
export function paletteOf(image: ColourImage, { count }: { count: number }): PaletteColour[] {
  assertColourImage(image);
  if (!Number.isInteger(count) || count < 1 || count > MOST)
    throw new RangeError(`the count must be a whole number from 1 to ${MOST}`);
  const bins = binsOf(image, LEVELS.fine);
  const total = bins.reduce((sum, b) => sum + b.count, 0);
  const middles = middlesOf(bins, count, withoutStray(binsOf(image, LEVELS.coarse), total));
  const found = sharedOut(bins, middles).flatMap((own, k) => {
    const size = own.reduce((sum, b) => sum + b.count, 0);
    return size > 0 ? [{ lab: coreOf(own, middles[k]), size }] : [];
  });
  return merged(found)
    .sort((a, b) => b.size - a.size)
    .map(({ lab, size }) => ({ colour: rgbOf(lab), share: size / total }));
}

/** The colours that there are, each by its mean. */
function binsOf(image: ColourImage, levels: number): Bin[] {
  const { width, height, data } = image;
  const sums = new Map<number, [number, number, number, number, number]>();
  const step = 256 / levels;
  // Of a very large picture one pixel in some tells as much.
  const stride = Math.max(1, Math.floor(Math.sqrt((width * height) / ENOUGH)));
  for (let y = 0; y < height; y += stride)
    for (let x = 0; x < width; x += stride) {
      const i = 3 * (y * width + x);
      const key = (Math.floor(data[i] / step) * levels + Math.floor(data[i + 1] / step)) * levels;
      const bin = key + Math.floor(data[i + 2] / step);
      let sum = sums.get(bin);
      if (!sum) sums.set(bin, (sum = [0, 0, 0, 0, 0]));
      const inArea = 1 / (1 + differenceAt(image, x, y) / EDGE ** 2);
      for (let c = 0; c < 3; c++) sum[c] += inArea * data[i + c];
      sum[3] += inArea;
      sum[4]++;
    }
  return [...sums.values()].map(([r, g, b, n, count]): Bin => ({
    lab: labOf(r / n, g / n, b / n),
    count,
    strength: n,
  }));
}

/** The colours of which there is more than a little; all where there is none such. */
function withoutStray(bins: readonly Bin[], total: number): readonly Bin[] {
  const large = bins.filter((b) => b.count >= STRAY * total);
  return large.length > 0 ? large : bins;
}

/** How much the pixels to both sides of one, and above and below it, differ: squared, of all channels. */
function differenceAt({ width, height, data }: ColourImage, x: number, y: number): number {
  const at = (px: number, py: number): number =>
    3 * (Math.min(height - 1, Math.max(0, py)) * width + Math.min(width - 1, Math.max(0, px)));
  const [left, right, above, below] = [at(x - 1, y), at(x + 1, y), at(x, y - 1), at(x, y + 1)];
  let sum = 0;
  for (let c = 0; c < 3; c++) sum += (data[right + c] - data[left + c]) ** 2 + (data[below + c] - data[above + c]) ** 2;
  return sum;
}

/** The mean of what lies nearest to the middle: edges, where colours are mixed, lie further off. */
function coreOf(bins: readonly Bin[], middle: Lab): Lab {
  const commonest = bins.reduce((a, b) => (b.strength > a.strength ? b : a));
  const ordered = [...bins].sort((a, b) => labDistance(a.lab, commonest.lab) - labDistance(b.lab, commonest.lab));
  const enough = CORE * bins.reduce((n, b) => n + b.strength, 0);
  let sum = 0;
  const core = ordered.filter((b) => {
    const isIn = sum < enough;
    sum += b.strength;
    return isIn;
  });
  return meanOf(core, (b) => b.strength) ?? middle;
}

/** Colours that look alike made one. */
function merged(colours: { lab: Lab; size: number }[]): { lab: Lab; size: number }[] {
  const kept: { lab: Lab; size: number }[] = [];
  for (const c of [...colours].sort((a, b) => b.size - a.size)) {
    const twin = kept.find((k) => labDistance(k.lab, c.lab) < ALIKE);
    if (twin) twin.size += c.size;
    else kept.push({ ...c });
  }
  return kept;
}
