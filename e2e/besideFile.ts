import { expect, type Page } from '@playwright/test';
import { Resvg } from '@resvg/resvg-js';
import sharp from 'sharp';
import type { BenchHand } from './bench';

/**
 * The upper left of the page as the bench shows it, at its own scale, and as another renderer draws it from the SVG: red, green
 * and blue of each pixel. `size` is in page units.
 */
export async function besideFile(
  page: Page,
  hand: BenchHand,
  size: { width: number; height: number },
): Promise<{ page: Buffer; file: Buffer }> {
  const { scale } = hand.view;
  const [width, height] = [Math.round(size.width * scale), Math.round(size.height * scale)];
  const from = hand.at({ x: 0, y: 0 });
  const shot = await page.screenshot({ clip: { x: from.x, y: from.y, width, height } });
  const svg = await (await page.request.get(`/api/drawings/${hand.id}/export?format=svg&scope=page`)).text();
  const drawn = new Resvg(svg, { fitTo: { mode: 'zoom', value: scale }, background: '#ffffff' }).render();
  const pixels = (image: Buffer): Promise<Buffer> =>
    sharp(image).extract({ left: 0, top: 0, width, height }).removeAlpha().raw().toBuffer();
  const [a, b] = await Promise.all([pixels(shot), pixels(Buffer.from(drawn.asPng()))]);
  expect(a.length).toBe(b.length);
  return { page: a, file: b };
}
