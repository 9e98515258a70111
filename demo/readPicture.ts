import sharp from 'sharp';
import type { GrayImage } from '../src/core';
import type { ColourImage } from '../src/core/raster/colourImage';
import { paperValues } from '../src/core/raster/rgba';

/** A picture file's bytes as colours. */
export async function colourPicture(bytes: Buffer): Promise<ColourImage> {
  const { data, info } = await sharp(bytes).removeAlpha().raw().toBuffer({ resolveWithObject: true });
  return { width: info.width, height: info.height, channels: 3, data: new Uint8Array(data) };
}

/** A picture file's bytes as grey values. */
export async function greyPicture(bytes: Buffer): Promise<GrayImage> {
  const { data, info } = await sharp(bytes).greyscale().raw().toBuffer({ resolveWithObject: true });
  return { width: info.width, height: info.height, data: new Uint8Array(data) };
}

/** A picture file's bytes as what tells paper from what it lies on. */
export async function paperPicture(bytes: Buffer): Promise<GrayImage> {
  const { data, info } = await sharp(bytes).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  return paperValues({ width: info.width, height: info.height, data: new Uint8ClampedArray(data) });
}
