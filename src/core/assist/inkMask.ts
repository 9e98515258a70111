import { blurred } from '../raster/blur';
import type { GrayImage } from '../raster/grayImage';
import { eachPiece, fillHoles } from '../raster/mask';
import { paperField, paperRow } from '../raster/paper';

/**
 * Where the ink is (1 in `mask`), how much darker each pixel is than its paper, and the darkness from which on a pixel is
 * wholly ink.
 */
export type Ink = { width: number; height: number; mask: Uint8Array; dark: Uint8Array; rim: number };

/** Smoothing before the ink is told from the paper, in px: enough to bridge the paper's tooth, not the gaps between strokes. */
const SMOOTHING = 1.1;

/**
 * Tells ink from paper. With a level, ink is what is darker than it. Without one, each pixel is compared with the paper
 * around it: what stands clear of the paper's grain is ink, and so is what is fainter but hangs together with it
 * (hysteresis: Canny 1986). Holes within strokes are filled.
 */
export function inkOf(image: GrayImage, level?: number): Ink {
  const { width, height } = image;
  const smooth = blurred(image, SMOOTHING);
  const dark = darknessOf(smooth, image);
  const mask = level === undefined ? byContrast(dark, width, height) : byLevel(smooth, level);
  dropEdges(mask, width, height);
  if (level === undefined) dropShades(mask, dark, width, height);
  fillHoles(mask, width, height, 24);
  return { width, height, mask, dark, rim: Math.max(8, WHOLLY_INK * medianDarkness(dark, mask)) };
}

const known = new WeakMap<GrayImage, Ink>();

/** The ink of a picture, told from its paper once for each picture. */
export function inkIn(image: GrayImage): Ink {
  let ink = known.get(image);
  if (!ink) known.set(image, (ink = inkOf(image)));
  return ink;
}

/** From this share of the ink's usual darkness on, a pixel is wholly ink. */
const WHOLLY_INK = 0.7;

/** How near the picture's edge something must keep to be part of that edge: a share of the shorter side. */
const EDGE_BAND = 0.012;
/** This much of the shorter side is never ink. */
const RIM = 0.005;

/** What hugs the edge of the picture is the edge of the paper or its shadow, not ink. */
function dropEdges(mask: Uint8Array, width: number, height: number): void {
  const band = Math.max(3, EDGE_BAND * Math.min(width, height));
  const isNear = (i: number): boolean => {
    const [x, y] = [i % width, Math.floor(i / width)];
    return x < band || y < band || x >= width - band || y >= height - band;
  };
  // What was cut out a little too widely has a pixel or two of the table around it, and blurred: that rim tells nothing.
  const rim = Math.max(3, RIM * Math.min(width, height));
  for (let y = 0; y < height; y++) {
    const isRow = y < rim || y >= height - rim;
    for (let x = 0; x < width; x++) if (isRow || x < rim || x >= width - rim) mask[y * width + x] = 0;
  }
  eachPiece(width, height, mask, 8, (pixels) => {
    if (pixels.filter(isNear).length > 0.6 * pixels.length) for (const i of pixels) mask[i] = 0;
  });
}

/** Over so many px to either side of an outline, ink must fade by this share of its usual darkness. */
const FADE = { reach: 3, share: 0.22 };

/** A shadow or a dark corner of the light is no ink: its outline, wherever that is drawn, runs through a soft slope. */
function dropShades(mask: Uint8Array, dark: Uint8Array, width: number, height: number): void {
  const least = Math.max(5, FADE.share * medianDarkness(dark, mask));
  const at = (x: number, y: number): number =>
    dark[Math.max(0, Math.min(height - 1, y)) * width + Math.max(0, Math.min(width - 1, x))];
  const slopeAt = (i: number): number => {
    const x = i % width;
    const y = (i - x) / width;
    const r = FADE.reach;
    return Math.hypot(at(x + r, y) - at(x - r, y), at(x, y + r) - at(x, y - r));
  };
  const isOutline = (i: number): boolean => !(mask[i - 1] && mask[i + 1] && mask[i - width] && mask[i + width]);
  eachPiece(width, height, mask, 8, (pixels) => {
    const outline = pixels.filter(isOutline);
    const slopes = Float32Array.from(outline, slopeAt).sort();
    if (slopes[slopes.length >> 1] < least) for (const i of pixels) mask[i] = 0;
  });
}

/** The median of the darkness where a mask is 1, or 0. */
export function medianDarkness(dark: Uint8Array, mask: Uint8Array, where: 0 | 1 = 1): number {
  const counts = new Uint32Array(256);
  let n = 0;
  for (let i = 0; i < dark.length; i++) {
    if (mask[i] !== where) continue;
    counts[dark[i]]++;
    n++;
  }
  let [seen, v] = [0, 0];
  while (v < 255 && (seen += counts[v]) < n / 2) v++;
  return v;
}

/** How much darker each pixel of a picture, which may be smoothed, is than its paper there; 0 where it is not. */
export function darknessOf(smooth: GrayImage, image: GrayImage): Uint8Array {
  const field = paperField(image);
  const dark = new Uint8Array(smooth.data.length);
  const row = new Float32Array(smooth.width);
  for (let y = 0; y < smooth.height; y++) {
    paperRow(field, y, row);
    for (let x = 0; x < smooth.width; x++) {
      const i = y * smooth.width + x;
      dark[i] = Math.max(0, Math.min(255, row[x] - smooth.data[i]));
    }
  }
  return dark;
}

const byLevel = (smooth: GrayImage, level: number): Uint8Array =>
  Uint8Array.from(smooth.data, (v) => (v < level ? 1 : 0));

function byContrast(dark: Uint8Array, width: number, height: number): Uint8Array {
  const { faint, clear } = contrastLevels(dark);
  const mask = new Uint8Array(dark.length);
  eachPiece(
    width,
    height,
    dark.map((v) => (v >= faint ? 1 : 0)),
    8,
    (pixels) => {
      if (pixels.some((i) => dark[i] >= clear)) for (const i of pixels) mask[i] = 1;
    },
  );
  return mask;
}

/**
 * From which darkness on a pixel may be ink, and from which it is for sure. The grain of the paper is judged by the
 * pixels a little darker than the paper's middle, the ink by the median of what stands far out of that grain.
 */
export function contrastLevels(dark: Uint8Array): { faint: number; clear: number } {
  const counts = new Uint32Array(256);
  for (let i = 0; i < dark.length; i++) counts[dark[i]]++;
  // Of paper alone about four fifths are darker than the quantile taken for it; ink is rarely a fifth of a page.
  let below = 0;
  let grain = 0;
  while (grain < 255 && (below += counts[grain]) < 0.75 * dark.length) grain++;
  const floor = Math.max(10, 3 * grain);
  let ink = 0;
  for (let v = floor; v < 256; v++) ink += counts[v];
  if (ink === 0) return { faint: 256, clear: 256 };
  let [seen, median] = [0, floor];
  while (median < 255 && (seen += counts[median]) < ink / 2) median++;
  return { faint: Math.max(floor, 0.38 * median), clear: Math.max(1.3 * floor, 0.6 * median) };
}
