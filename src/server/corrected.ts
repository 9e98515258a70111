import { createHash, randomUUID } from 'node:crypto';
import { rename, stat } from 'node:fs/promises';
import path from 'node:path';
import sharp from 'sharp';
import type { Reference } from '@/core';
import { asShown } from '@/core/drawing/correction';
import { CorrectionRun } from '@/core/raster/correct';
import { shownFile, type ShownSize } from './pictures';
import { folder } from './place';

/**
 * A file with a reference's picture as the bench shows it, corrected and tinted, made from the size asked for: on first
 * use, and again if it was thrown away. Without corrections it is the plain picture.
 */
export async function correctedFile(reference: Reference, size: ShownSize): Promise<string> {
  const plain = await shownFile(reference.picture, size);
  const corrections = asShown(reference).filter((c) => c.on);
  if (corrections.length === 0) return plain;
  const key = createHash('sha256')
    .update(JSON.stringify([reference.picture, size, corrections]))
    .digest('hex');
  const file = path.join(folder('derived'), `${key}-corrected.png`);
  if (
    await stat(file).then(
      (s) => s.size > 0,
      () => false,
    )
  )
    return file;
  const { data, info } = await sharp(plain)
    .toColourspace('srgb')
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  const image = {
    width: info.width,
    height: info.height,
    data: new Uint8ClampedArray(data.buffer, data.byteOffset, data.length),
  };
  const made = new CorrectionRun(image, info.width / reference.pixelWidth).after(corrections);
  const temporary = `${file}.${randomUUID()}`;
  await sharp(Buffer.from(made.data.buffer), { raw: { width: made.width, height: made.height, channels: 4 } })
    .png({ compressionLevel: 3 })
    .toFile(temporary);
  await rename(temporary, file);
  return file;
}
