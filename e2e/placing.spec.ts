import { expect, test, type Page } from '@playwright/test';
import sharp from 'sharp';
import { BenchHand, makeDrawing, near } from './bench';

/** A picture whose left half is dark red and whose right half is light grey. */
const halves = async (): Promise<Buffer> =>
  sharp({ create: { width: 400, height: 300, channels: 3, background: '#d8d8d8' } })
    .composite([
      {
        input: await sharp({ create: { width: 200, height: 300, channels: 3, background: '#801010' } })
          .png()
          .toBuffer(),
        left: 0,
        top: 0,
      },
    ])
    .png()
    .toBuffer();

let hand: BenchHand;
test.beforeEach(async ({ page, request }) => {
  const id = await makeDrawing(request);
  await request.post(`/api/drawings/${id}/references?name=halves.png`, { data: await halves() });
  hand = await BenchHand.open(page, id, { stage: 'prepare', tool: 'place', view: { scale: 0.55, x: 90, y: 90 } });
});
const reference = async (k = 0) => (await hand.saved()).references[k];
const undim = async (page: Page): Promise<void> => {
  await page.getByRole('slider', { name: 'Dim of halves.png' }).focus();
  await page.keyboard.press('Home');
  await expect.poll(async () => (await reference()).dim).toBe(0);
};

test('a picture is turned by its stalk, by 15° with Shift, and its proportions let go with Alt; each is one undo step', async ({
  page,
}) => {
  await page.getByRole('button', { name: 'Unlock halves.png' }).click();
  const stalk = { x: 400, y: -26 / 0.55 };
  await hand.drag(stalk, { x: 700, y: 10 });
  const turned = await reference();
  expect(turned.turn).toBeGreaterThan(30);
  expect(turned.turn % 15).not.toBeCloseTo(0, 1);
  await page.keyboard.press('Control+z');
  expect((await reference()).turn).toBe(0);
  await page.keyboard.down('Shift');
  await hand.drag(stalk, { x: 700, y: 10 });
  await page.keyboard.up('Shift');
  const stepped = await reference();
  expect(stepped.turn % 15).toBeCloseTo(0, 5);
  expect(stepped.turn).not.toBe(0);
  // It is turned about its middle.
  near({ x: stepped.at.x + stepped.width / 2, y: stepped.at.y + stepped.height / 2 }, { x: 400, y: 300 }, 1.5);
  await page.keyboard.press('Control+z');
  await page.keyboard.down('Alt');
  await hand.drag({ x: 800, y: 600 }, { x: 700, y: 450 });
  await page.keyboard.up('Alt');
  const squeezed = await reference();
  // About its middle: both sides come in.
  expect(Math.abs(squeezed.width - 600)).toBeLessThan(24);
  expect(Math.abs(squeezed.height - 300)).toBeLessThan(24);
  near({ x: squeezed.at.x + squeezed.width / 2, y: squeezed.at.y + squeezed.height / 2 }, { x: 400, y: 300 }, 1.5);
  await page.keyboard.press('Control+z');
  expect(await reference()).toMatchObject({ width: 800, height: 600, turn: 0 });
});

test('corrections: switched, done in another order, seen before and after, and the picture flipped, by what is on the screen', async ({
  page,
}) => {
  await undim(page);
  const [left, right] = [
    { x: 200, y: 300 },
    { x: 600, y: 300 },
  ];
  const red = async (p: typeof left) => (await hand.colourAt(p))[0];
  await expect.poll(async () => (await hand.colourAt(left))[1]).toBeLessThan(60);
  await page.getByRole('switch', { name: 'Invert' }).click();
  await expect.poll(() => red(left)).toBeLessThan(140);
  await expect.poll(() => red(right)).toBeLessThan(60);
  await page.getByRole('switch', { name: 'Tint' }).click();
  await expect.poll(async () => (await reference()).corrections.map((c) => c.kind)).toEqual(['invert', 'tint']);
  await page.getByRole('button', { name: 'Do Tint sooner' }).click();
  await expect.poll(async () => (await reference()).corrections.map((c) => c.kind)).toEqual(['tint', 'invert']);
  // Tinted blue first and inverted then, the dark is light and the light dark.
  await expect.poll(() => red(left)).toBeGreaterThan(120);
  await hand.move({ x: 400, y: 300 });
  await page.keyboard.down('x');
  await expect.poll(async () => (await hand.colourAt(left))[1]).toBeLessThan(60);
  await page.keyboard.up('x');
  await expect.poll(() => red(left)).toBeGreaterThan(120);
  await page.getByRole('switch', { name: 'Tint' }).click();
  await page.getByRole('switch', { name: 'Invert' }).click();
  await expect.poll(async () => (await hand.colourAt(left))[1]).toBeLessThan(60);
  await page.getByRole('button', { name: 'Unlock halves.png' }).click();
  await page.getByRole('button', { name: 'Flip ↔' }).click();
  await expect.poll(async () => (await hand.colourAt(right))[1]).toBeLessThan(60);
  await expect.poll(() => red(left)).toBeGreaterThan(190);
});

test('two pictures: one beside the page, their order, another in the same place, all dimmed at once', async ({
  page,
  request,
}) => {
  await request.post(`/api/drawings/${hand.id}/references?name=second.png`, {
    data: await sharp({ create: { width: 300, height: 300, channels: 3, background: '#10a010' } })
      .png()
      .toBuffer(),
  });
  await page.reload();
  await hand.ready();
  await page.locator('[data-reference="second.png"]').click();
  await page.getByText('Beside it').click();
  const second = async () => (await hand.saved()).references.find((r) => r.name === 'second.png');
  await expect.poll(async () => (await second())?.beside).toBe(true);
  // Both are seen then.
  await hand.followView();
  expect(hand.at({ x: 824 + 100, y: 300 }).x).toBeLessThan(1028);
  expect(await second()).toMatchObject({ dim: 0, at: { x: 824, y: 0 }, height: 600 });
  await page.locator('[data-reference="halves.png"]').hover();
  await page.getByRole('button', { name: 'Lay halves.png nearer' }).click();
  await expect
    .poll(async () => (await hand.saved()).references.map((r) => r.name))
    .toEqual(['second.png', 'halves.png']);
  await page.getByRole('slider', { name: 'Dim of all pictures' }).focus();
  await page.keyboard.press('End');
  await expect.poll(async () => (await hand.saved()).dim).toBe(1);
  await expect.poll(async () => Math.min(...(await hand.colourAt({ x: 200, y: 300 })))).toBeGreaterThan(240);
  await page.keyboard.press('Control+z');
  await page.locator('[data-reference="second.png"] .reference-name').click();
  await page.getByText('Under work').click();
  await expect.poll(async () => (await second())?.beside).toBe(false);
  const [chooser] = await Promise.all([
    page.waitForEvent('filechooser'),
    page.getByRole('button', { name: 'Swap second.png' }).click(),
  ]);
  const wide = await sharp({ create: { width: 600, height: 150, channels: 3, background: '#2020c0' } })
    .png()
    .toBuffer();
  const before = (await second())!;
  await chooser.setFiles({ name: 'wide.png', mimeType: 'image/png', buffer: wide });
  await expect.poll(async () => (await hand.saved()).references.map((r) => r.name)).toContain('wide.png');
  const swapped = (await hand.saved()).references.find((r) => r.name === 'wide.png')!;
  expect([swapped.id, swapped.width, swapped.height]).toEqual([before.id, before.width, before.width / 4]);
});
