import { expect, test } from '@playwright/test';
import type { Line, Point } from '../src/core';
import { BenchHand, cornerNode, drawingWith, levelLine } from './bench';

/** What is chosen is scaled, turned, slanted and brought into line by the hand, on the page. */

const angle: Line = {
  ...levelLine('a', 0),
  runs: [{ closed: false, nodes: [cornerNode(200, 200), cornerNode(300, 200), cornerNode(300, 300)] }],
};

test('chosen lines are scaled by a corner, turned about a ring that was put on a node, and come into line', async ({
  page,
}) => {
  const hand = await BenchHand.open(page, await drawingWith(page.request, [angle, levelLine('b', 420)]), {
    tool: 'select',
    view: { scale: 1, x: 20, y: 10 },
  });
  const nodes = async (i = 0): Promise<number[][]> =>
    (await hand.lines())[i].runs[0].nodes.map(({ point: { x, y } }) => [Math.round(x), Math.round(y)]);
  const drag = async (from: Point, to: Point): Promise<void> => {
    await hand.move(from);
    await page.mouse.down();
    await hand.move(to, 5);
    await page.mouse.up();
  };
  await hand.click({ x: 250, y: 200 });
  await drag({ x: 314, y: 314 }, { x: 364, y: 364 });
  await expect
    .poll(() => nodes())
    .toEqual([
      [200, 200],
      [350, 200],
      [350, 350],
    ]);
  await page.keyboard.press('Control+z');
  // The ring waits below the frame; it is put on the line's last node, and the line turned about it.
  await drag({ x: 250, y: 331 }, { x: 298, y: 302 });
  await page.keyboard.down('Shift');
  await drag({ x: 331, y: 169 }, { x: 480, y: 330 });
  await page.keyboard.up('Shift');
  await expect
    .poll(() => nodes())
    .toEqual([
      [400, 200],
      [400, 300],
      [300, 300],
    ]);
  await expect(page.getByRole('combobox', { name: 'About which place' })).toBeVisible();
  await page.keyboard.press('Control+z');
  // Its left side comes over the left end of the level line.
  const [[left]] = await nodes(1);
  await drag({ x: 250, y: 200 }, { x: 250 + left - 196, y: 230 });
  await expect.poll(async () => (await nodes())[0][0]).toBe(left);
});
