import { createHash } from 'node:crypto';
import path from 'node:path';
import sharp from 'sharp';
import { asShown } from '@/core/raster/correction';
import type { PictureNode } from '@/core/scene/scene';
import { CorrectionRun } from '@/core/raster/correct';
import { isKept, keepDerived } from './derived';
import { shownFile, type ShownSize } from './pictures';
import { folder } from './place';

/**
 * A file with a placed picture as the bench shows it, corrected and tinted, made from the size asked for: on first
 * use, and again if it was thrown away. Without corrections it is the plain picture.
 */
export async function correctedFile(placed: PictureNode['placed'], size: ShownSize): Promise<string> {
  const plain = await shownFile(placed.picture, size);
  const corrections = asShown(placed).filter((c) => c.on);
  if (corrections.length === 0) return plain;
  const key = createHash('sha256')
    .update(JSON.stringify([placed.picture, size, corrections]))
    .digest('hex');
  const file = path.join(folder('derived'), `${key}-corrected.png`);
  if (await isKept(file)) return file;
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
  const made = new CorrectionRun(image, info.width / placed.pixelWidth).after(corrections);
  await keepDerived(file, (temporary) =>
    sharp(Buffer.from(made.data.buffer), { raw: { width: made.width, height: made.height, channels: 4 } })
      .png({ compressionLevel: 3 })
      .toFile(temporary),
  );
  return file;
}
