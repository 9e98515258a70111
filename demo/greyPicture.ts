import sharp from 'sharp';
import type { GrayImage } from '../src/core';

/** A picture file's bytes as grey values. */
export async function greyPicture(bytes: Buffer): Promise<GrayImage> {
  const { data, info } = await sharp(bytes).greyscale().raw().toBuffer({ resolveWithObject: true });
  return { width: info.width, height: info.height, data: new Uint8Array(data) };
}
