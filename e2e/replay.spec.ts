import { expect, test, type Page } from '@playwright/test';
import { readFile } from 'node:fs/promises';
import sharp from 'sharp';
import { drawnLines } from '../src/core/replay/order';
import { BenchHand, drawingWith, levelLine } from './bench';

const lines = ['a', 'b', 'c'].map((id, i) => levelLine(id, 150 + 100 * i));
const open = async (page: Page) => {
  await page.addInitScript(() => {
    if (localStorage.getItem('yellow-quill-preferences')) return;
    const state = { deliverCards: 'order', replay: { by: 'length', length: 3, speed: 300, pause: 0.3 } };
    localStorage.setItem('yellow-quill-preferences', JSON.stringify({ state, version: 1 }));
  });
  return BenchHand.open(page, await drawingWith(page.request, lines), { stage: 'deliver', tool: 'select' });
};
const ids = async (hand: BenchHand) => drawnLines(await hand.saved()).map((x) => x.line.id);

test('lines appear one after the other, are scrubbed, and the drawing is as it was after', async ({ page }) => {
  const hand = await open(page);
  // Away from arrows and numbers, well within the line.
  const isThere = async (y: number, x = 270): Promise<boolean> => Math.max(...(await hand.colourAt({ x, y }))) < 110;
  const all = async () => Promise.all([150, 250, 350].map((y) => isThere(y)));
  expect(await all()).toEqual([true, true, true]);
  const scrub = page.getByRole('slider', { name: 'Time of the replay' });
  const box = (await page.locator('.scrub .ant-slider-rail').boundingBox())!;
  const to = (share: number) => page.mouse.click(box.x + share * box.width, box.y + box.height / 2);
  await to(0.36);
  await expect(page.getByRole('group', { name: 'Replay', exact: true })).toContainText(/1\.1 of 3 s/);
  await expect.poll(all).toEqual([true, false, false]);
  await to(0.02);
  await expect.poll(all).toEqual([false, false, false]);
  await page.getByRole('button', { name: 'Play' }).click();
  await expect(page.getByRole('button', { name: 'Halt' })).toBeVisible();
  await expect.poll(all, { timeout: 15_000 }).toEqual([true, true, true]);
  await expect(page.getByRole('button', { name: 'Play' })).toBeVisible({ timeout: 15_000 });
  await expect(scrub).toHaveAttribute('aria-valuenow', /^3/);
  await to(0.02);
  await page.getByRole('button', { name: 'Back to the drawing' }).click();
  await expect.poll(all).toEqual([true, true, true]);
  // As it came about: from nothing to all of it.
  await page.getByRole('button', { name: 'As it truly came about' }).click();
  await expect.poll(all, { timeout: 15_000 }).toEqual([false, false, false]);
  await expect.poll(all, { timeout: 15_000 }).toEqual([true, true, true]);
  // Going on with the work ends it. The knob is moved off its end first: a press on it would move nothing.
  await to(0.5);
  await to(0.02);
  await expect.poll(all).toEqual([false, false, false]);
  await page.keyboard.press('2');
  await expect.poll(all).toEqual([true, true, true]);
  expect((await hand.lines()).map((l) => l.id)).toEqual(['a', 'b', 'c']);
});

test('the order is dragged, taken back, made shorter; a line is turned about', async ({ page }) => {
  const hand = await open(page);
  const row = (i: number) => page.getByRole('group', { name: 'Order of lines' }).locator('.item-title').nth(i);
  await expect(row(0)).toContainText('1 ·');
  await row(2).dragTo(row(0), { targetPosition: { x: 30, y: 2 } });
  await expect.poll(() => ids(hand)).not.toEqual(['a', 'b', 'c']);
  expect((await ids(hand)).indexOf('c')).toBeLessThan(2);
  await page.keyboard.press('Control+z');
  await expect.poll(() => ids(hand)).toEqual(['a', 'b', 'c']);
  await page.getByRole('button', { name: 'as drawn' }).click();
  await expect.poll(() => ids(hand)).toEqual(['a', 'b', 'c']);
  await row(1).click();
  await page.getByRole('button', { name: 'Reverse what is chosen' }).click();
  await expect
    .poll(async () => (await hand.lines()).find((l) => l.id === 'b')!.runs[0].nodes[0].point.x)
    .toBe(lines[1].runs[0].nodes.at(-1)!.point.x);
  await page.getByRole('button', { name: 'less travel' }).click();
  await expect(page.locator('.message')).toBeVisible();
});

test('the replay is saved as an SVG that plays from the file, and stands still where less motion is wanted', async ({
  page,
  browser,
}) => {
  await open(page);
  const card = page.getByRole('group', { name: 'Save the replay' });
  await card.getByRole('button', { name: 'Make it' }).click();
  const made = page.getByRole('group', { name: 'Made files' });
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    made.getByRole('link', { name: /^Save / }).click({ timeout: 20_000 }),
  ]);
  const svg = await readFile(await download.path(), 'utf8');
  const darkRows = async (p: Page): Promise<boolean[]> => {
    const { data, info } = await sharp(await p.screenshot())
      .greyscale()
      .raw()
      .toBuffer({ resolveWithObject: true });
    return [150, 250, 350].map((y) => data[y * info.width + 270] < 110);
  };
  const show = async (reducedMotion: 'reduce' | 'no-preference') => {
    const context = await browser.newContext({ reducedMotion, viewport: { width: 1000, height: 700 } });
    const p = await context.newPage();
    await p.setContent(`<style>body{margin:0}svg{display:block}</style>${svg}`);
    return { p, context };
  };
  const still = await show('reduce');
  expect(await darkRows(still.p)).toEqual([true, true, true]);
  await still.context.close();
  const moving = await show('no-preference');
  const at = (seconds: number) =>
    moving.p.evaluate((t) => {
      for (const a of document.getAnimations()) {
        a.pause();
        a.currentTime = t * 1000;
      }
    }, seconds);
  const seen: boolean[][] = [];
  for (const t of [0.03, 1.3, 2.15, 3]) {
    await at(t);
    seen.push(await darkRows(moving.p));
  }
  expect(seen).toEqual([
    [false, false, false],
    [true, false, false],
    [true, true, false],
    [true, true, true],
  ]);
  await moving.context.close();
});
