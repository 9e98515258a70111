import sharp from 'sharp';
import { drawingSchema, type Drawing, type Reference } from '../src/core';
import { wanderingLine } from '../src/core/test/drawings';
import { seeded } from '../src/core/seeded';
import { smoothNoise } from '../src/server/simulated/pictures/noise';
import { emptyDrawing, plainPage, type Line } from '../src/core';

export const LINES = 2_000;
export const SEGMENTS = 8;
export const PICTURE = { width: 3264, height: 2448 };
const PAGE = plainPage({ width: 1632, height: 1224, unit: 'px', dpi: 192, ground: '#fffefb' });

/** An 8-megapixel picture with something on every part of it. */
export function picture(): Promise<Buffer> {
  const noise = smoothNoise(4);
  const { width, height } = PICTURE;
  const pixels = Buffer.alloc(width * height * 3);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const v = 150 + 80 * noise(x / 170, y / 170) + 20 * noise(x / 5, y / 5);
      pixels.fill(Math.max(0, Math.min(255, v)), (y * width + x) * 3, (y * width + x) * 3 + 3);
    }
  }
  return sharp(pixels, { raw: { width, height, channels: 3 } })
    .jpeg({ quality: 85 })
    .toBuffer();
}

/** `LINES` lines of `SEGMENTS` segments on four sheets. */
export function drawing(reference: Reference): Drawing {
  const random = seeded(2026);
  const empty = emptyDrawing(PAGE, { id: 's0', name: 'Sheet 1', tag: '#8f2d63' });
  const sheets = [0, 1, 2, 3].map((k) => ({
    ...empty.sheets[0],
    id: `s${k}`,
    name: `Sheet ${k + 1}`,
    lines: [] as Line[],
  }));
  for (let i = 0; i < LINES; i++)
    sheets[i % 4].lines.push(wanderingLine(`l${i}`, SEGMENTS, random, PAGE.width, PAGE.height, 180));
  return drawingSchema.parse({ ...empty, sheets, references: [reference] }) as Drawing;
}

export const page = PAGE;
