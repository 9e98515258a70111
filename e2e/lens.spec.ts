import { expect, test } from '@playwright/test';
import sharp from 'sharp';
import { BenchHand, makeDrawing } from './bench';

test('a lens’s bend is taken out of a photo by going along one edge that should be straight', async ({
  page,
  request,
}) => {
  const bend = -0.15;
  const [width, height] = [1200, 900];
  const half = Math.hypot(width, height) / 2;
  const pixels = Buffer.alloc(width * height * 3);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const [dx, dy] = [x + 0.5 - width / 2, y + 0.5 - height / 2];
      const by = 1 / (1 + (bend * (dx * dx + dy * dy)) / (half * half));
      const isTable = Math.abs(dx * by) < 520 && Math.abs(dy * by) < 360;
      pixels.set(isTable ? [150, 96, 60] : [120, 132, 120], (y * width + x) * 3);
    }
  const photo = await sharp(pixels, { raw: { width, height, channels: 3 } })
    .blur(1)
    .jpeg({ quality: 90 })
    .toBuffer();
  const id = await makeDrawing(request);
  await request.post(`/api/drawings/${id}/references?name=table.jpg`, { data: photo });
  const view = { scale: 0.7, x: 40, y: 40 };
  const hand = await BenchHand.open(page, id, { stage: 'prepare', tool: 'place', view });
  await page.getByRole('switch', { name: 'Lens' }).click();
  await expect(page.getByRole('button', { name: 'Lens' })).toHaveAttribute('aria-pressed', 'true');

  // Along the table's upper edge, a little unsteadily; the photo fills the page of 800 by 600.
  const seen = (x: number): { x: number; y: number } => {
    const u = Math.hypot(x, 360) / half;
    let r = u;
    for (let i = 0; i < 100; i++) r = u * (1 + bend * r * r);
    return { x: ((width / 2 + (x * r) / u) * 2) / 3, y: ((height / 2 - (360 * r) / u) * 2) / 3 };
  };
  const way = Array.from({ length: 36 }, (_, i) => seen(-490 + 28 * i)).map((p, i) => ({
    x: p.x,
    y: p.y + (i % 3) - 1,
  }));
  await hand.move(way[0]);
  await page.mouse.down();
  for (const p of way.slice(1)) await hand.move(p, 1);
  await page.mouse.up();
  const lens = async () => (await hand.saved()).references[0].corrections.find((c) => c.kind === 'lens');
  await expect.poll(async () => (await lens())?.bend ?? 0, { timeout: 30_000 }).toBeLessThan(bend + 0.015);
  expect((await lens())!.bend).toBeGreaterThan(bend - 0.015);

  // By figures as well; the lines no longer tell then. Each is taken back by one press.
  await page.keyboard.press('Enter');
  const slider = page.getByRole('slider', { name: 'Bulge, %' });
  await slider.focus();
  await page.keyboard.press('Home');
  await expect.poll(async () => (await lens())?.bend).toBe(0.6);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await lens())?.lines.length).toBe(1);
  await page.keyboard.press('Control+z');
  await expect.poll(lens).toBeUndefined();
});
