import { expect, test } from '@playwright/test';
import sharp from 'sharp';
import { BenchHand, chooseFile, makeDrawing } from './bench';

test('ink and paper are picked in the picture itself', async ({ page, request }) => {
  const hand = await BenchHand.open(page, await makeDrawing(request), {
    stage: 'prepare',
    tool: 'place',
    view: { scale: 1, x: 20, y: 20 },
  });
  // Grey paper with a grey stroke, 40 px broad, down its middle.
  const picture = await sharp({ create: { width: 400, height: 300, channels: 3, background: '#c8c8c8' } })
    .composite([
      { input: { create: { width: 40, height: 300, channels: 3, background: '#505050' } }, left: 180, top: 0 },
    ])
    .png()
    .toBuffer();
  await chooseFile(page, 'Bring in a picture', 'grey.png', 'image/png', picture);
  await expect(page.locator('[data-reference="grey.png"]')).toBeVisible({ timeout: 30_000 });
  const reference = async () => (await hand.saved()).references[0];
  const levels = async () => (await reference()).corrections.find((c) => c.kind === 'levels');
  await page.getByRole('switch', { name: 'Ink and paper' }).click();
  await page.getByRole('button', { name: 'Pick them in the picture' }).click();
  const r = await reference();
  const at = (x: number) => ({ x: r.at.x + x * r.width, y: r.at.y + 0.5 * r.height });
  // The picture comes as it was before its tones were set; then a press reads it.
  await expect(async () => {
    await hand.click(at(0.5));
    expect(await levels()).toMatchObject({ on: true, black: 80, white: 255 });
  }).toPass({ timeout: 20_000 });
  await hand.click(at(0.2));
  await expect.poll(levels).toMatchObject({ black: 80, white: 200 });
  await page.getByRole('button', { name: 'Done' }).click();
  await page.keyboard.press('Control+z');
  await expect.poll(levels).toMatchObject({ black: 80, white: 255 });
});
