import { createHash } from 'node:crypto';
import path from 'node:path';
import sharp from 'sharp';
import { CorrectionRun } from '@/core/raster/correct';
import { asShown } from '@/core/raster/correction';
import type { PictureNode } from '@/core/scene/scene';
import { isKept, keepDerived } from '../derived';

/**
 * A file with a placed picture as the bench shows it, corrected and tinted, made from a plain one: on first use, and again if it
 * was thrown away. Without corrections it is the plain one. `folder` is where it is kept.
 */
export async function correctedFile(plain: string, placed: PictureNode['placed'], folder: string): Promise<string> {
  const corrections = asShown(placed).filter((c) => c.on);
  if (corrections.length === 0) return plain;
  const key = createHash('sha256')
    .update(JSON.stringify([path.basename(plain), corrections]))
    .digest('hex');
  const file = path.join(folder, `${key}-corrected.png`);
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
