import { expose, transfer } from 'comlink';
import { pageCorners, paletteOf, skewAngle, type Correction, type Point, type Quad } from '@/core';
import { outlinePlaces } from '@/core/check/outlinePlaces';
import { areaColour, type AreaColour } from '@/core/colour/areaColour';
import type { PaletteColour } from '@/core/colour/palette';
import { pullTones, type AreaTones, type PullTonesOptions } from '@/core/colour/pullTones';
import { thingWithin } from '@/core/pull/thingWithin';
import type { ColourImage } from '@/core/raster/colourImage';
import { CorrectionRun } from '@/core/raster/correct';
import { colourImageOf, greyOf, paperValues, type RgbaImage } from '@/core/raster/rgba';
import { toneHistogram } from '@/core/raster/tone';
import type { CorrectionSize } from './correctProtocol';

/** The longer side of a picture that answers while a hand is moving, px. */
const PREVIEW = 1100;
const MOST_OPEN = 2;
/** A line that tells of the lens is told by so many places. */
const PLACES = 48;

type Open = Record<CorrectionSize, CorrectionRun>;

/** The pictures last worked on, each whole and reduced. */
const open = new Map<string, Promise<Open>>();

function opened(picture: string, url: string, pixelWidth: number): Promise<Open> {
  let found = open.get(picture);
  if (!found) {
    found = decode(url, pixelWidth).catch((error: unknown) => {
      open.delete(picture);
      throw error;
    });
  }
  open.delete(picture);
  open.set(picture, found);
  if (open.size > MOST_OPEN) open.delete(open.keys().next().value!);
  return found;
}

async function decode(url: string, pixelWidth: number): Promise<Open> {
  const response = await fetch(url);
  if (!response.ok) throw new Error('The picture could not be loaded.');
  const bitmap = await createImageBitmap(await response.blob());
  const whole = pixels(bitmap, bitmap.width, bitmap.height);
  const k = Math.min(1, PREVIEW / Math.max(bitmap.width, bitmap.height));
  const reduced = pixels(bitmap, Math.max(1, Math.round(bitmap.width * k)), Math.max(1, Math.round(bitmap.height * k)));
  bitmap.close();
  return {
    whole: new CorrectionRun(whole, whole.width / pixelWidth),
    preview: new CorrectionRun(reduced, reduced.width / pixelWidth),
  };
}

function pixels(bitmap: ImageBitmap, width: number, height: number): RgbaImage {
  const ctx = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true })!;
  ctx.imageSmoothingQuality = 'high';
  ctx.drawImage(bitmap, 0, 0, width, height);
  return { width, height, data: ctx.getImageData(0, 0, width, height).data };
}

const colours = new WeakMap<RgbaImage, ColourImage>();

/** The corrected picture in colour, made once for each state of it. */
async function inColour(source: Source, list: readonly Correction[]): Promise<ColourImage> {
  const runs = await opened(source.picture, source.url, source.pixelWidth);
  const image = runs.whole.after(list);
  let found = colours.get(image);
  if (!found) colours.set(image, (found = colourImageOf(image)));
  return found;
}

/** Outlines by shares of a picture's sides, in its px. */
const inPixels = ({ width, height }: ColourImage, outlines: readonly (readonly Point[])[]): Point[][] =>
  outlines.map((o) => o.map((p) => ({ x: p.x * width, y: p.y * height })));

type Source = { picture: string; url: string; pixelWidth: number };

/** What the bench asks of this worker. Each answer rejects with words for a person when it cannot be given. */
const corrections = {
  /** The corrected picture as a bitmap. */
  async render(source: Source, list: readonly Correction[], size: CorrectionSize): Promise<ImageBitmap> {
    const runs = await opened(source.picture, source.url, source.pixelWidth);
    const { width, height, data } = runs[size].after(list);
    const bitmap = await createImageBitmap(new ImageData(data as ImageDataArray, width, height));
    return transfer(bitmap, [bitmap]);
  },

  /** How many pixels have each tone once `list` is done. */
  async tones(source: Source, list: readonly Correction[]): Promise<number[]> {
    const runs = await opened(source.picture, source.url, source.pixelWidth);
    return toneHistogram(runs.preview.after(list));
  },

  /** The page's corners in the picture after `list`, in shares of its sides; null when none is found. */
  async corners(source: Source, list: readonly Correction[]): Promise<Quad | null> {
    const runs = await opened(source.picture, source.url, source.pixelWidth);
    const image = runs.whole.after(list);
    const quad = pageCorners(paperValues(image));
    return quad && (quad.map((p) => ({ x: p.x / image.width, y: p.y / image.height })) as Quad);
  },

  /** By how many degrees the picture after `list` must be turned to lie straight; null when nothing straight is found. */
  async skew(source: Source, list: readonly Correction[]): Promise<number | null> {
    const runs = await opened(source.picture, source.url, source.pixelWidth);
    return skewAngle(paperValues(runs.whole.after(list)));
  },

  /** The corrected picture in grey, for work on its ink. */
  async grey(
    source: Source,
    list: readonly Correction[],
  ): Promise<{ width: number; height: number; data: Uint8Array }> {
    const runs = await opened(source.picture, source.url, source.pixelWidth);
    const image = greyOf(runs.whole.after(list));
    return transfer(image, [image.data.buffer]);
  },

  /** The same in colour, for work on its edges. */
  async colour(source: Source, list: readonly Correction[]): Promise<ColourImage> {
    const runs = await opened(source.picture, source.url, source.pixelWidth);
    const image = colourImageOf(runs.whole.after(list));
    return transfer(image, [image.data.buffer]);
  },

  /** Places along the edge that a hand went along, all in shares of the picture's sides: of ink as well as of things. */
  async along(source: Source, list: readonly Correction[], way: readonly Point[]): Promise<Point[]> {
    const image = await inColour(source, list);
    const { width, height } = image;
    const hand = way.map((p) => ({ x: p.x * width, y: p.y * height }));
    return outlinePlaces(image, hand, PLACES).map((p) => ({ x: p.x / width, y: p.y / height }));
  },

  /** The thing that a loose outline goes around, both in shares of the picture's sides; none where nothing stands out. */
  async thing(source: Source, list: readonly Correction[], loose: readonly Point[]): Promise<Point[][]> {
    return thingWithin(await inColour(source, list), loose);
  },

  /** The colours that are typical of areas, each by its outlines in shares of the picture's sides. */
  async areas(
    source: Source,
    list: readonly Correction[],
    areas: readonly (readonly (readonly Point[])[])[],
  ): Promise<(AreaColour | null)[]> {
    const image = await inColour(source, list);
    return areas.map((outlines) => areaColour(image, inPixels(image, outlines)));
  },

  /**
   * An area brought down to some tones; its parts' outlines in px, with the picture's size. Lengths are asked for in shares of
   * its width.
   */
  async pullTones(
    source: Source,
    list: readonly Correction[],
    outlines: readonly (readonly Point[])[],
    options: PullTonesOptions,
  ): Promise<(AreaTones & { width: number; height: number }) | null> {
    const image = await inColour(source, list);
    const { width } = image;
    const { steps, smooth, tolerance } = options;
    const found = pullTones(image, inPixels(image, outlines), {
      steps,
      smooth: Math.max(0.8, smooth * width),
      tolerance: Math.max(0.3, tolerance * width),
    });
    return found && { ...found, width: image.width, height: image.height };
  },

  /** The colours that stand for the whole picture. */
  async palette(source: Source, list: readonly Correction[], count: number): Promise<PaletteColour[]> {
    return paletteOf(await inColour(source, list), { count });
  },
};

export type CorrectionWorker = typeof corrections;
expose(corrections);
