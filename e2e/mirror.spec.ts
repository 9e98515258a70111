import { expect, test } from '@playwright/test';
import { BenchHand, makeDrawing } from './bench';

test('half a vase is drawn in a mirror and is a whole one; the axis is dragged by its bead, and stays after a reload', async ({
  page,
}) => {
  const hand = await BenchHand.open(page, await makeDrawing(page.request), { view: { scale: 1, x: 20, y: -60 } });
  await page.getByRole('button', { name: /not mirrored/ }).click();
  await page
    .getByRole('radio', { name: 'across', exact: true })
    .or(page.getByText('across', { exact: true }))
    .first()
    .click();
  await page.keyboard.press('Escape');
  // The page is 800 px wide, its axis in the middle.
  const half = [
    { x: 402, y: 100 },
    { x: 330, y: 130 },
    { x: 360, y: 300 },
    { x: 398, y: 320 },
  ];
  await hand.click(half[0]);
  await hand.drag(half[1], { x: 320, y: 180 });
  await expect.poll(async () => (await hand.lines()).length).toBe(2);
  await hand.click(half[2]);
  await hand.click(half[3]);
  await page.keyboard.press('Enter');
  await expect.poll(async () => (await hand.lines()).length).toBe(1);
  const [vase] = await hand.lines();
  expect(vase.runs[0].closed).toBe(true);
  expect(vase.runs[0].nodes).toHaveLength(6);
  expect(vase.runs[0].nodes.filter((n) => n.point.x === 400)).toHaveLength(2);
  // The bead lies beyond the page's lower edge.
  await hand.drag({ x: 400, y: 618 }, { x: 300, y: 618 });
  await page.reload();
  await hand.ready();
  await hand.click({ x: 100, y: 100 });
  await hand.click({ x: 100, y: 200 });
  await page.keyboard.press('Enter');
  const images = (await hand.lines()).slice(-2).map((l) => Math.round(l.runs[0].nodes[0].point.x));
  expect(images).toEqual([100, 500]);
  await page.getByRole('button', { name: /mirrored across/ }).click();
  await page.getByText('nowhere', { exact: true }).click();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('button', { name: /not mirrored/ })).toBeVisible();
});
