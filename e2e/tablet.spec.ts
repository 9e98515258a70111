import { expect, test } from '@playwright/test';
import { BenchHand, demoCopy } from './bench';

test.use({ viewport: { width: 1024, height: 700 }, hasTouch: true });

test('by touch no button of a sheet lies on another: a tap on its state changes just that', async ({ page }) => {
  const hand = await BenchHand.open(page, await demoCopy(page.request, 'Pear'));
  expect(await page.evaluate(() => matchMedia('(pointer: coarse)').matches)).toBe(true);
  const before = (await hand.saved()).sheets;
  const overlaps = await page.evaluate(() =>
    [...document.querySelectorAll('.sheet')].flatMap((sheet) => {
      const boxes = [...sheet.querySelectorAll('.sheet-buttons button, .name')].map((b) => b.getBoundingClientRect());
      return boxes.flatMap((a, i) =>
        boxes
          .slice(i + 1)
          .filter((b) => a.left < b.right - 1 && b.left < a.right - 1 && a.top < b.bottom - 1 && b.top < a.bottom - 1),
      );
    }),
  );
  expect(overlaps).toEqual([]);
  const first = page.locator('.sheet').first();
  const name = await first.getAttribute('data-sheet');
  await first.locator('.state').tap();
  const after = (await hand.saved()).sheets;
  expect(after.map((s) => s.name)).toEqual(before.map((s) => s.name));
  const state = (sheets: typeof before): string => sheets.find((s) => s.name === name)!.state;
  expect(state(after)).not.toBe(state(before));
});
