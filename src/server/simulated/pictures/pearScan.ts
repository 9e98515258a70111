import sharp from 'sharp';
import { seeded } from '@/core/seeded';
import type { TrueLine } from '../curves/path';
import { pearLines, pearPage } from '../curves/pear';
import { gaussian, octaves, smoothNoise } from './noise';
import { drawInPencil } from './pencil';

/** 148 x 210 mm at 300 dpi. */
export const pearScanSize = { width: 1748, height: 2480 };

/** A pencil scan of the pear branch. Grey PNG. */
export const pearScan = (size = pearScanSize): Promise<Buffer> => pencilPage(pearLines, pearPage.width, size, 41);

/** Rows that are painted before the server is let do something else. */
const ROWS = 48;

/**
 * A pencil drawing as a flat-bed sees it: paper grain, uneven graphite, a smudge, a slight blur. Grey PNG. The lines are
 * drawn on a page `unitsWide` wide.
 */
export async function pencilPage(
  lines: readonly TrueLine[],
  unitsWide: number,
  { width, height }: { width: number; height: number },
  seed: number,
): Promise<Buffer> {
  const graphite = drawInPencil(lines, width, height, width / unitsWide, seed);
  const grain = octaves(17, 4);
  const cloud = smoothNoise(5);
  const random = seeded(3);
  const pixels = Buffer.alloc(width * height);
  for (let y = 0; y < height; y++) {
    if (y % ROWS === 0) await new Promise(setImmediate);
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      const paper = 243 + 5 * grain(x / 9, y / 9) + 3 * cloud(x / 700, y / 700) + 1.6 * gaussian(random);
      const smudge =
        9 * Math.max(0, cloud(x / 260 + 40, y / 260)) * Math.exp(-(((x - 1230) / 330) ** 2) - ((y - 1900) / 300) ** 2);
      pixels[i] = Math.min(255, Math.max(0, paper - smudge - graphite.data[i] * 186));
    }
  }
  return sharp(pixels, { raw: { width, height, channels: 1 } })
    .blur(0.7)
    .withMetadata({ density: 300 })
    .toColourspace('b-w')
    .png({ compressionLevel: 9 })
    .toBuffer();
}
