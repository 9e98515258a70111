import { linesOf } from '../src/core/drawing/items';
import sharp from 'sharp';
import { drawingSchema, type Drawing, type Reference, type Sheet } from '../src/core';
import { cubicsOf } from '../src/core/drawing/run';
import { wanderingLine } from '../src/core/test/drawings';
import { seeded } from '../src/core/seeded';
import { smoothNoise } from '../src/server/simulated/pictures/noise';
import { emptyDrawing, plainPage, type Line } from '../src/core';

export const LINES = 2_000;
export const SEGMENTS = 8;
export const PICTURE = { width: 3264, height: 2448 };
const PAGE = plainPage({ width: 1632, height: 1224, unit: 'px', dpi: 192, ground: '#fffefb' });

/** An 8-megapixel picture of uneven paper, with the lines of the first sheet in ink on it. */
export function picture(): Promise<Buffer> {
  const noise = smoothNoise(4);
  const { width, height } = PICTURE;
  const pixels = Buffer.alloc(width * height * 3);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const v = 205 + 25 * noise(x / 170, y / 170) + 12 * noise(x / 5, y / 5);
      pixels.fill(Math.max(0, Math.min(255, v)), (y * width + x) * 3, (y * width + x) * 3 + 3);
    }
  }
  const k = width / PAGE.width;
  const paths = linesOf(sheets()[0]).flatMap((l) =>
    l.runs.map((run) => {
      const curves = cubicsOf(run).map((c) => `C${c.slice(1).map((p) => `${p.x * k},${p.y * k}`)}`);
      const { x, y } = run.nodes[0].point;
      return `<path d="M${x * k},${y * k}${curves.join('')}" stroke-width="${l.style.width * k}"/>`;
    }),
  );
  const ink = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}"><g fill="none" stroke="#333" stroke-linecap="round">${paths.join('')}</g></svg>`;
  return sharp(pixels, { raw: { width, height, channels: 3 } })
    .composite([{ input: Buffer.from(ink) }])
    .jpeg({ quality: 85 })
    .toBuffer();
}

/** So many lines of `SEGMENTS` segments on four sheets. */
export function drawing(reference: Reference | null, lines = LINES): Drawing {
  const empty = emptyDrawing(PAGE, { id: 's0', name: 'Sheet 1', tag: '#8f2d63' });
  return drawingSchema.parse({ ...empty, sheets: sheets(lines), references: reference ? [reference] : [] }) as Drawing;
}

function sheets(lines = LINES): Sheet[] {
  const random = seeded(2026);
  const empty = emptyDrawing(PAGE, { id: 's0', name: 'Sheet 1', tag: '#8f2d63' });
  const list = [0, 1, 2, 3].map((k) => ({
    ...empty.sheets[0],
    id: `s${k}`,
    name: `Sheet ${k + 1}`,
    items: [] as Line[],
  }));
  for (let i = 0; i < lines; i++)
    list[i % 4].items.push(wanderingLine(`l${i}`, SEGMENTS, random, PAGE.width, PAGE.height, 180));
  return list;
}

export const page = PAGE;
