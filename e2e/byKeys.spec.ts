import { expect, test, type Page } from '@playwright/test';
import { readFile } from 'node:fs/promises';
import { BenchHand, makeDrawing } from './bench';

/** Everything by the keyboard: no pointer is ever moved. */

const press = async (page: Page, key: string, times: number): Promise<void> => {
  for (let i = 0; i < times; i++) await page.keyboard.press(key);
};

/** Goes on by Tab until what has the focus is called so. */
async function tabTo(page: Page, name: RegExp): Promise<void> {
  for (let i = 0; i < 120; i++) {
    await page.keyboard.press('Tab');
    const at = await page.evaluate(() => {
      const e = document.activeElement as HTMLElement | null;
      return e ? (e.getAttribute('aria-label') ?? e.textContent ?? '') : '';
    });
    if (name.test(at)) return;
  }
  throw new Error(`nothing called ${name} is reached by Tab`);
}

test('fifteen lines are laid, mended, swelled and saved by keys alone', async ({ page, request }) => {
  test.setTimeout(180_000);
  const id = await makeDrawing(request);
  const hand = await BenchHand.open(page, id, { view: { scale: 1, x: 0, y: 0 } });
  const lines = () => hand.lines();
  await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
  await tabTo(page, /^To the page$/);
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('page')).toBeFocused();
  await press(page, 'ArrowUp', 20);
  await press(page, 'ArrowLeft', 20);
  for (let k = 0; k < 15; k++) {
    await page.keyboard.press('Space');
    if (k % 5 === 4) {
      // A curve: the button is held while the arrows draw the handle out.
      await press(page, 'ArrowRight', 12);
      await page.keyboard.down('Space');
      await press(page, 'ArrowDown', 4);
      await page.keyboard.up('Space');
      await press(page, 'ArrowUp', 4);
    } else {
      await press(page, 'ArrowRight', 12);
      await page.keyboard.press('Space');
    }
    await page.keyboard.press('Enter');
    await press(page, 'ArrowLeft', 12);
    await press(page, 'ArrowDown', 2);
    await page.keyboard.press('Shift+ArrowDown');
  }
  await expect.poll(async () => (await lines()).length).toBe(15);
  const laid = await lines();
  for (const l of laid) {
    const [a, b] = l.runs[0].nodes;
    // Where another line is near, the pen keeps to it.
    expect(Math.abs(b.point.x - a.point.x - 96)).toBeLessThan(13);
    expect(Math.abs(b.point.y - a.point.y)).toBeLessThan(13);
  }
  expect(laid.filter((l) => l.runs[0].nodes[1].in).length).toBe(3);

  // Mended: all are nudged into place, and one press of undo takes one gesture back.
  await page.keyboard.press('Control+a');
  await page.keyboard.press('Alt+ArrowRight');
  await expect
    .poll(async () => (await lines())[0].runs[0].nodes[0].point.x)
    .toBeCloseTo(laid[0].runs[0].nodes[0].point.x + 1, 3);
  await page.keyboard.press('Control+z');
  await expect
    .poll(async () => (await lines())[0].runs[0].nodes[0].point.x)
    .toBeCloseTo(laid[0].runs[0].nodes[0].point.x, 3);

  // Made wider, in Ink.
  await page.keyboard.press('4');
  await page.keyboard.press('Control+a');
  await page.keyboard.press('+');
  await expect.poll(async () => (await lines())[14].style.width).toBeGreaterThan(laid[14].style.width);

  // Swelled at one place: the cross is brought onto a line, and pulls while Space is held.
  await page.keyboard.press('w');
  await tabTo(page, /^To the page$/);
  await page.keyboard.press('Enter');
  await press(page, 'ArrowUp', 4);
  await press(page, 'Shift+ArrowUp', 2);
  await press(page, 'ArrowRight', 6);
  await page.keyboard.down('Space');
  await press(page, 'ArrowUp', 2);
  await page.keyboard.up('Space');
  const widest = async (): Promise<number> =>
    Math.max(0, ...((await lines())[13].marks ?? []).map((m) => m.left + m.right));
  await expect.poll(widest).toBeGreaterThan(20);
  const before = await widest();
  // The mark in hand answers to Alt and arrows.
  await page.keyboard.press('Alt+ArrowUp');
  await expect.poll(widest).toBeCloseTo(before + 0.5, 6);

  await page.keyboard.press('6');
  const download = page.waitForEvent('download');
  await tabTo(page, /^Save SVG$/);
  await page.keyboard.press('Enter');
  const svg = await readFile((await (await download).path())!, 'utf8');
  expect(svg.match(/<path/g)!.length).toBeGreaterThanOrEqual(15);
});
