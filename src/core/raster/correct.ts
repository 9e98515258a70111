import { sizeAfter, type Correction, type Size } from './correction';
import type { Point } from '../geometry/point';
import { cornersOfBox, homographyBetween } from './homography';
import { evenLight } from './light';
import { rgbaImage, type RgbaImage } from './rgba';
import { blurredRgba } from './blurRgba';
import { denoised } from './denoise';
import { lensMap } from './lens';
import { greyed, levelled, mapValues, thresholded, tinted, twoToned } from './tone';
import { setApart } from './setApart';
import { simplified } from './simplify';
import { inColours } from './steps';
import { warp } from './warp';

/**
 * A picture after one correction. `scale` is how many pixels of this picture one of the whole picture has (1 for the
 * whole one, below 1 for a reduced one). The picture handed in is not changed.
 */
export function corrected(image: RgbaImage, c: Correction, scale = 1): RgbaImage {
  if (!c.on) return image;
  switch (c.kind) {
    case 'lens':
      return c.bend === 0 ? image : unbent(image, c.bend, sizeAfter(image, c));
    case 'crop':
      return cropped(image, c.left, c.top, sizeAfter(image, c));
    case 'turn':
      return c.degrees === 0 ? image : turned(image, c.degrees, sizeAfter(image, c));
    case 'straighten': {
      const corners = c.corners.map((p) => ({ x: p.x * image.width, y: p.y * image.height }));
      return seenThrough(image, corners, sizeAfter(image, c));
    }
    case 'light':
      return evenLight(image, c.strength);
    case 'levels':
      return mapValues(image, (v) => levelled(v, c.black, c.white, c.middle));
    case 'invert':
      return mapValues(image, (v) => 255 - v);
    case 'grey':
      return greyed(image);
    case 'threshold':
      return thresholded(image, c);
    case 'tint':
      return tinted(image, c.colour);
    case 'twoTone':
      return twoToned(image, c);
    case 'blur':
      return blurredRgba(image, c.radius * scale);
    case 'denoise':
      return denoised(image, c.rounds);
    case 'apart':
      return c.outlines.length === 0 ? image : setApart(image, c.outlines, c.dim);
    case 'simplify':
      return simplified(image, c.radius * scale, c.contrast);
    case 'steps':
      return inColours(image, c.colours);
  }
}

function cropped(image: RgbaImage, left: number, top: number, size: Size): RgbaImage {
  const result = rgbaImage(size.width, size.height);
  const x = Math.min(image.width - size.width, Math.round(left * image.width));
  const y = Math.min(image.height - size.height, Math.round(top * image.height));
  for (let row = 0; row < size.height; row++) {
    const from = ((y + row) * image.width + x) * 4;
    result.data.set(image.data.subarray(from, from + size.width * 4), row * size.width * 4);
  }
  return result;
}

function turned(image: RgbaImage, degrees: number, size: Size): RgbaImage {
  const a = (degrees * Math.PI) / 180;
  const [cos, sin] = [Math.cos(a), Math.sin(a)];
  // Where the upright result's corners come from in the source.
  const back = (p: Point): Point => {
    const [x, y] = [p.x - size.width / 2, p.y - size.height / 2];
    return { x: image.width / 2 + cos * x + sin * y, y: image.height / 2 - sin * x + cos * y };
  };
  return seenThrough(image, cornersOfBox(size.width, size.height).map(back), size);
}

const CLEAR = [0, 0, 0, 0];

function seenThrough(image: RgbaImage, corners: readonly Point[], size: Size): RgbaImage {
  const toSource = homographyBetween(cornersOfBox(size.width, size.height), corners);
  const { data } = warp({ ...image, channels: 4 }, size, toSource, CLEAR);
  return { ...size, data: data as Uint8ClampedArray };
}

function unbent(image: RgbaImage, bend: number, size: Size): RgbaImage {
  const { data } = warp({ ...image, channels: 4 }, size, lensMap(image, size, bend), CLEAR);
  return { ...size, data: data as Uint8ClampedArray };
}

/** A picture may grow beyond so many pixels only where it came with as many, and then by a tenth. */
const MOST_PIXELS = 36_000_000;
const MOST_GROWTH = 1.1;

/** How much smaller a picture is to be made, so that a correction makes no more pixels of it than `most`; 1: not at all. */
function reduction(image: Size, c: Correction, most: number): number {
  const { width, height } = sizeAfter(image, c);
  return Math.min(1, Math.sqrt(most / (width * height)));
}

function reduced(image: RgbaImage, k: number): RgbaImage {
  const size = { width: Math.max(1, Math.floor(image.width * k)), height: Math.max(1, Math.floor(image.height * k)) };
  return seenThrough(image, cornersOfBox(image.width, image.height), size);
}

/** A row of corrections under way: what each made of the picture, so that a changed one need not begin at the first. */
export class CorrectionRun {
  private made: { key: string; image: RgbaImage; scale: number }[] = [];

  constructor(
    private readonly image: RgbaImage,
    private readonly scale = 1,
  ) {}

  /** The picture after `corrections`, of a bounded size. What was made before and is still wanted is used again. */
  after(corrections: readonly Correction[]): RgbaImage {
    const wanted = corrections.filter((c) => c.on);
    const keys = wanted.map((c) => JSON.stringify(c));
    let k = 0;
    while (k < keys.length && this.made[k]?.key === keys[k]) k++;
    this.made.length = k;
    const most = Math.max(MOST_PIXELS, MOST_GROWTH * this.image.width * this.image.height);
    for (; k < wanted.length; k++) {
      const before = this.made[k - 1] ?? { image: this.image, scale: this.scale };
      const less = reduction(before.image, wanted[k], most);
      const [image, scale] =
        less < 1 ? [reduced(before.image, less), before.scale * less] : [before.image, before.scale];
      this.made.push({ key: keys[k], image: corrected(image, wanted[k], scale), scale });
    }
    return this.made.at(-1)?.image ?? this.image;
  }
}
