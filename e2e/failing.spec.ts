import { expect, test } from '@playwright/test';
import { BenchHand, makeDrawing } from './bench';

test('cards that the server cannot give just now come when it can; the hand goes on', async ({ page, request }) => {
  let away = false;
  let refused = 0;
  await page.route(/\/_next\/static\/chunks\/.*\.js/, (route) => {
    if (!away) return route.continue();
    refused++;
    return route.abort();
  });
  const hand = await BenchHand.open(page, await makeDrawing(request));
  away = true;
  await page.keyboard.press('6');
  await expect.poll(() => refused, { timeout: 10_000 }).toBeGreaterThan(0);
  const card = page.getByRole('group', { name: 'Save as a file' });
  await expect(card).toHaveCount(0);
  await page.keyboard.press('2');
  await page.getByRole('toolbar', { name: 'Tools' }).getByRole('button', { name: /Pen$/ }).click();
  await hand.click({ x: 100, y: 100 });
  await hand.click({ x: 300, y: 200 });
  await page.keyboard.press('Enter');
  expect(await hand.lines()).toHaveLength(1);
  away = false;
  await page.keyboard.press('6');
  await expect(card).toBeVisible({ timeout: 15_000 });
});

test('a part of the desk that fails leaves the page to the hand, and is there again with what it can show', async ({
  page,
  request,
}) => {
  const hand = await BenchHand.open(page, await makeDrawing(request));
  /** Has no figure written any more, or again. */
  const failing = (is: boolean) =>
    page.evaluate((fails) => {
      const part = Intl.NumberFormat.prototype;
      const known = part as unknown as { was?: PropertyDescriptor };
      known.was ??= Object.getOwnPropertyDescriptor(part, 'format')!;
      const broken = {
        configurable: true,
        get: () => {
          throw new RangeError('made to fail');
        },
      };
      Object.defineProperty(part, 'format', fails ? broken : known.was);
    }, is);
  const cards = page.getByLabel('Figures and settings');
  await failing(true);
  await page.keyboard.press('6');
  await expect(cards.getByRole('alert')).toContainText('made to fail');
  await failing(false);
  await page.keyboard.press('2');
  await expect(cards.getByRole('alert')).toHaveCount(0);
  await page.getByRole('toolbar', { name: 'Tools' }).getByRole('button', { name: /Pen$/ }).click();
  await hand.click({ x: 100, y: 100 });
  await hand.click({ x: 300, y: 200 });
  await page.keyboard.press('Enter');
  expect(await hand.lines()).toHaveLength(1);
  await failing(true);
  await page.keyboard.press('6');
  await expect(cards.getByRole('alert')).toBeVisible();
  await failing(false);
  await cards.getByRole('button', { name: 'Show again' }).click();
  await expect(cards.getByRole('group', { name: 'Save as a file' })).toBeVisible();
});

test('a page that fails as a whole says so, and is opened again', async ({ page, request }) => {
  await page.addInitScript(() => {
    const { getContext } = HTMLCanvasElement.prototype;
    HTMLCanvasElement.prototype.getContext = function (this: HTMLCanvasElement, ...asked: unknown[]) {
      if (!('isMended' in window)) throw new RangeError('made to fail');
      return (getContext as (...a: unknown[]) => unknown).apply(this, asked);
    } as typeof getContext;
  });
  await page.goto(`/drawing/${await makeDrawing(request)}`);
  await expect(page.getByText('This page cannot be shown just now')).toBeVisible();
  await page.evaluate(() => Object.assign(window, { isMended: true }));
  await page.getByRole('button', { name: 'Try again' }).click();
  await expect(page.getByTestId('page')).toHaveAttribute('data-sharp', 'true', { timeout: 30_000 });
});
