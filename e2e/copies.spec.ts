import { expect, test } from '@playwright/test';
import { BenchHand, drawingWith, levelLine } from './bench';

test('a mirrored copy, copies turned about a place, and a width that takes the height along; each is one press of undo', async ({
  page,
  request,
}) => {
  const hand = await BenchHand.open(page, await drawingWith(request, [levelLine('a', 200), levelLine('b', 260)]), {
    tool: 'select',
  });
  await page.keyboard.press('Control+a');
  const copies = page.getByRole('group', { name: 'Copies' });
  await copies.getByRole('button', { name: /^Mirrored copy down/ }).click();
  await expect.poll(async () => (await hand.lines()).length).toBe(4);
  // The axis goes through the middle of both: each copy lies on the other line.
  const ys = (await hand.lines()).map((l) => Math.round(l.runs[0].nodes[0].point.y)).sort();
  expect(ys).toEqual([200, 200, 260, 260]);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await hand.lines()).length).toBe(2);

  await page.keyboard.press('Control+a');
  await copies.getByLabel('How many with the copies').fill('4');
  await page.keyboard.press('Enter');
  await copies.getByRole('button', { name: /^Turned copies/ }).click();
  await expect.poll(async () => (await hand.lines()).length).toBe(8);
  const [, , quarter] = await hand.lines();
  const [a, b] = quarter.runs[0].nodes.map((n) => n.point);
  expect(Math.abs(a.x - b.x)).toBeLessThan(0.01);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await hand.lines()).length).toBe(2);

  await page.keyboard.press('Control+a');
  await page.getByLabel('w of what is chosen').fill('250');
  await page.keyboard.press('Enter');
  const spread = async (): Promise<number> => {
    const [p, q] = (await hand.lines()).map((l) => l.runs[0].nodes[0].point.y);
    return Math.round(Math.abs(p - q));
  };
  await expect.poll(spread).toBe(30);
  await page.getByRole('button', { name: 'keep the shape' }).click();
  await page.getByLabel('w of what is chosen').fill('500');
  await page.keyboard.press('Enter');
  await expect.poll(async () => Math.round((await hand.lines())[0].runs[0].nodes[1].point.x)).toBeGreaterThan(550);
  expect(await spread()).toBe(30);
});
