import { expect, test } from '@playwright/test';
import { BenchHand, makeDrawing } from './bench';

test('rulers, guides and grid: a guide is pulled out, the pen keeps to it, it is moved, put back, and undone', async ({
  page,
  request,
}) => {
  const hand = await BenchHand.open(page, await makeDrawing(request), {
    stage: 'prepare',
    tool: 'place',
    view: { scale: 0.8, x: 60, y: 60 },
  });
  await page.getByRole('checkbox', { name: /^Rulers/ }).check();
  const guides = async () => (await hand.saved()).page.guides;
  const canvas = (await page.getByTestId('page').boundingBox())!;
  const pull = async (from: { x: number; y: number }, to: { x: number; y: number }): Promise<void> => {
    await page.mouse.move(from.x, from.y);
    await page.mouse.down();
    await page.mouse.move((from.x + to.x) / 2, (from.y + to.y) / 2, { steps: 4 });
    await page.mouse.move(to.x, to.y, { steps: 4 });
    await page.mouse.up();
  };
  const at = hand.at({ x: 200, y: 300 });
  await pull({ x: canvas.x + 8, y: canvas.y + 200 }, { x: at.x, y: canvas.y + 220 });
  await pull({ x: canvas.x + 200, y: canvas.y + 8 }, { x: canvas.x + 220, y: at.y });
  let list = await guides();
  expect(list.map((g) => g.axis)).toEqual(['x', 'y']);
  expect([Math.abs(list[0].at - 200) < 1.5, Math.abs(list[1].at - 300) < 1.5]).toEqual([true, true]);

  await page.keyboard.press('a');
  await hand.click({ x: list[0].at + 4, y: list[1].at - 4 });
  await hand.click({ x: 350, y: list[1].at + 5 });
  await page.keyboard.press('Enter');
  const nodes = await hand.nodes();
  expect(nodes[0].point).toEqual({ x: list[0].at, y: list[1].at });
  expect(nodes[1].point.y).toBe(list[1].at);

  await page.keyboard.press('1');
  await pull({ x: at.x, y: canvas.y + 400 }, { x: at.x + 40, y: canvas.y + 400 });
  list = await guides();
  expect(Math.abs(list.find((g) => g.axis === 'x')!.at - 250)).toBeLessThan(1.5);
  await pull({ x: canvas.x + 400, y: at.y }, { x: canvas.x + 400, y: canvas.y + 6 });
  expect((await guides()).map((g) => g.axis)).toEqual(['x']);
  await page.keyboard.press('Control+z');
  expect(await guides()).toHaveLength(2);

  await page.getByRole('checkbox', { name: 'Grid', exact: true }).check();
  await page.getByRole('checkbox', { name: 'Snap to the grid' }).check();
  await expect.poll(async () => (await hand.saved()).page.grid).toMatchObject({ visible: true, snap: true });
});
