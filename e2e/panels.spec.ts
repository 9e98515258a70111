import { expect, test } from '@playwright/test';
import sharp from 'sharp';
import { BenchHand, makeDrawing, near } from './bench';

const red = () =>
  sharp({ create: { width: 400, height: 300, channels: 3, background: '#ff0000' } })
    .png()
    .toBuffer();

test('sheets: add, rename, tag, hide, lock, reorder by hand and by keys, delete, and undo', async ({
  page,
  request,
}) => {
  const hand = await BenchHand.open(page, await makeDrawing(request));
  const names = async () => (await hand.saved()).sheets.map((s) => s.name).reverse();
  await page.getByRole('button', { name: 'Add a sheet' }).click();
  await page.getByRole('button', { name: 'Add a sheet' }).click();
  expect(await names()).toEqual(['Sheet 3', 'Sheet 2', 'Sheet 1']);
  await page.getByRole('button', { name: /^Sheet 2/ }).dblclick();
  await page.getByRole('textbox', { name: 'Sheet name' }).fill('Veins');
  await page.keyboard.press('Enter');
  expect(await names()).toEqual(['Sheet 3', 'Veins', 'Sheet 1']);
  const grip = (await page.getByRole('button', { name: 'Move Sheet 3' }).boundingBox())!;
  await page.mouse.move(grip.x + 6, grip.y + 8);
  await page.mouse.down();
  await page.mouse.move(grip.x + 6, grip.y + 60, { steps: 8 });
  await page.mouse.move(grip.x + 6, grip.y + 130, { steps: 8 });
  await page.mouse.up();
  expect(await names()).toEqual(['Veins', 'Sheet 1', 'Sheet 3']);
  await page.getByRole('button', { name: 'Move Sheet 3' }).focus();
  await page.keyboard.press('Space');
  await page.waitForTimeout(150);
  await page.keyboard.press('ArrowUp');
  await page.waitForTimeout(150);
  await page.keyboard.press('Space');
  await expect.poll(names).toEqual(['Veins', 'Sheet 3', 'Sheet 1']);
  await page.getByRole('button', { name: 'Hide Veins' }).click();
  await page.getByRole('button', { name: 'Lock Veins' }).click();
  expect((await hand.saved()).sheets.at(-1)).toMatchObject({ name: 'Veins', visible: false, locked: true });
  await page.locator('[data-sheet=Veins]').hover();
  await page.getByRole('button', { name: 'Delete Veins' }).click();
  expect(await names()).toEqual(['Sheet 3', 'Sheet 1']);
  await page.getByRole('alert').getByRole('button', { name: 'Undo' }).click();
  expect(await names()).toEqual(['Veins', 'Sheet 3', 'Sheet 1']);
});

test('a reference: dropped, dimmed 40 % and locked; dim, peek, hide, unlock, move, scale', async ({
  page,
  request,
}) => {
  const hand = await BenchHand.open(page, await makeDrawing(request), {
    stage: 'prepare',
    tool: 'place',
    view: { scale: 0.6, x: 60, y: 60 },
  });
  const bytes = [...(await red())];
  const drop = await page.evaluateHandle((b) => {
    const data = new DataTransfer();
    data.items.add(new File([new Uint8Array(b)], 'red.png', { type: 'image/png' }));
    return data;
  }, bytes);
  await page.locator('main.page-view').dispatchEvent('drop', { dataTransfer: drop });
  await expect(page.locator('[data-reference="red.png"]')).toBeVisible();
  const placed = (await hand.saved()).references[0];
  expect(placed).toMatchObject({ dim: 0.4, locked: true, width: 800, height: 600, at: { x: 0, y: 0 } });

  const middle = { x: 400, y: 300 };
  await expect.poll(async () => (await hand.colourAt(middle))[1]).toBeLessThan(120);
  const [, dimmed] = await hand.colourAt(middle);
  expect(dimmed).toBeGreaterThan(90);
  await hand.move(middle);
  await page.keyboard.down('v');
  await expect.poll(async () => (await hand.colourAt(middle))[1]).toBeGreaterThan(240);
  await page.keyboard.up('v');
  await expect.poll(async () => (await hand.colourAt(middle))[1]).toBeLessThan(120);

  const dim = page.getByRole('slider', { name: 'Dim of red.png' });
  await dim.focus();
  for (let i = 0; i < 10; i++) await page.keyboard.press('ArrowRight');
  await expect.poll(async () => (await hand.saved()).references[0].dim).toBeCloseTo(0.5, 5);
  await page.getByRole('button', { name: 'Hide red.png' }).click();
  await expect.poll(async () => (await hand.colourAt(middle))[1]).toBeGreaterThan(240);
  await page.getByRole('button', { name: 'Show red.png' }).click();

  await hand.drag(middle, { x: 450, y: 300 });
  await expect(page.getByRole('alert').filter({ hasText: 'is locked' })).toBeVisible();
  expect((await hand.saved()).references[0].at).toEqual({ x: 0, y: 0 });
  await page.getByRole('button', { name: 'Unlock red.png' }).click();
  await hand.drag(middle, { x: 450, y: 330 });
  near((await hand.saved()).references[0].at, { x: 50, y: 30 }, 1.5);
  await hand.drag({ x: 850, y: 630 }, { x: 450, y: 330 });
  const scaled = (await hand.saved()).references[0];
  expect(scaled.width / scaled.height).toBeCloseTo(4 / 3, 6);
  expect(Math.abs(scaled.width - 400)).toBeLessThan(12);
  near(scaled.at, { x: 50, y: 30 }, 1.5);
  await page.keyboard.press('Control+z');
  expect((await hand.saved()).references[0].width).toBe(800);
});

test('the view: zoom at the pointer, whole page, 100 %, pan; sharp at two device pixels', async ({
  browser,
  request,
}) => {
  const context = await browser.newContext({ deviceScaleFactor: 2, viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  const hand = await BenchHand.open(page, await makeDrawing(request));
  await hand.click({ x: 100, y: 100 });
  await hand.click({ x: 300, y: 100 });
  await page.keyboard.press('Enter');
  await hand.move({ x: 300, y: 100 });
  const before = hand.at({ x: 300, y: 100 });
  for (let i = 0; i < 5; i++) await page.mouse.wheel(0, -100);
  await hand.followView();
  expect(hand.view.scale).toBeGreaterThan(1.1);
  expect(Math.hypot(hand.at({ x: 300, y: 100 }).x - before.x, hand.at({ x: 300, y: 100 }).y - before.y)).toBeLessThan(
    1.5,
  );
  await expect(page.getByTestId('page')).toHaveAttribute('data-sharp', 'true');
  const [r, , b] = await hand.colourAt({ x: 200, y: 100 });
  expect(Math.max(r, b)).toBeLessThan(140);
  await page.keyboard.press('Shift+Digit0');
  await hand.followView();
  const one = hand.view;
  expect(one.scale).toBeCloseTo(1, 9);
  await page.mouse.wheel(30, 12);
  await hand.followView();
  const beside = hand.view;
  expect(beside.scale).toBe(one.scale);
  expect(one.x - beside.x).toBeGreaterThan(5);
  expect((one.x - beside.x) / (one.y - beside.y)).toBeCloseTo(30 / 12, 6);
  await page.keyboard.press('0');
  await hand.followView();
  const whole = hand.view;
  const canvas = (await page.getByTestId('page').boundingBox())!;
  expect(whole.x + 400 * whole.scale).toBeCloseTo(canvas.width / 2, 0);
  await context.close();
});

test('keys can be seen in one place', async ({ page, request }) => {
  await BenchHand.open(page, await makeDrawing(request));
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog')).toContainText('lift the reference away');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toBeHidden();
});

test('Space pans right after a button was clicked, and presses one that was reached by keys', async ({
  page,
  request,
}) => {
  const hand = await BenchHand.open(page, await makeDrawing(request));
  await page.getByRole('button', { name: 'Lock Sheet 1' }).click();
  await hand.move({ x: 300, y: 300 });
  await page.keyboard.down('Space');
  await page.mouse.down();
  await hand.move({ x: 350, y: 275 });
  await page.mouse.up();
  await page.keyboard.up('Space');
  const before = hand.view;
  await hand.followView();
  expect(hand.view.x - before.x).toBeCloseTo(50 * before.scale, 0);
  expect(hand.view.y - before.y).toBeCloseTo(-25 * before.scale, 0);
  expect((await hand.saved()).sheets[0].locked).toBe(true);
  const lock = page.getByRole('button', { name: /^(Lock|Unlock) Sheet 1/ });
  await page.getByRole('button', { name: 'Hide Sheet 1' }).focus();
  await page.keyboard.press('Tab');
  await expect(lock).toBeFocused();
  await page.keyboard.press('Space');
  expect((await hand.saved()).sheets[0].locked).toBe(false);
});

test('the page: its size in units and arithmetic, its resolution, and undo', async ({ page, request }) => {
  const hand = await BenchHand.open(page, await makeDrawing(request), { stage: 'prepare', tool: 'place' });
  const width = page.getByRole('textbox', { name: 'Page width' });
  await width.fill('2in * 3');
  await width.press('Enter');
  const dpi = page.getByRole('textbox', { name: 'Resolution of the page' });
  await dpi.fill('150');
  await dpi.press('Enter');
  await expect.poll(async () => (await hand.saved()).page).toMatchObject({ width: 576, height: 600, dpi: 150 });
  await expect(page.getByRole('group', { name: 'Page' })).toContainText('900 x 938');
  await width.press('Escape');
  await page.getByTestId('page').click({ position: { x: 20, y: 500 } });
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  expect((await hand.saved()).page).toMatchObject({ width: 800, dpi: 96 });
});
