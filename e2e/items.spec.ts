import { expect, test } from '@playwright/test';
import { applyChange, type Drawing } from '../src/core';
import type { Group } from '../src/core/drawing/item';
import { isGroup, linesOf } from '../src/core/drawing/items';
import { BenchHand, cornerNode, makeDrawing } from './bench';
import { bar, compare, drawnItems } from './itemsDrawn';

/** Groups in groups, what lies over what and how, and paints that are looked up: seen alike on the page and in a file. */

const places: [number, number][] = [
  [200, 140],
  [200, 200],
  [290, 230],
  [320, 290],
  [130, 430],
  [190, 430],
  [250, 430],
  [450, 440],
  [550, 440],
  [650, 440],
  [560, 120],
  [560, 180],
];

test('the page shows what the file shows: groups see-through, clipped, blended, swatches, gradients, tints', async ({
  page,
}) => {
  const hand = await drawnItems(page);
  expect(await compare(hand, places)).toBeLessThan(6);
  const at = async (x: number, y: number) => hand.colourAt({ x, y });
  // Outside of the window there is nothing of the bar; where the two circles meet, the upper is seen as one with its group.
  expect(await at(450, 440)).toEqual([255, 254, 251]);
  expect((await at(190, 430))[2]).toBeGreaterThan((await at(190, 430))[0]);
  // The leaf is dragged away: its vein, which was not touched, is seen in its own colour.
  const vein = await at(200, 200);
  const before = await hand.saved();
  const [leaf] = linesOf(before.sheets[0]);
  expect(leaf.style.fill).toEqual({ swatch: 'leaf' });
  await hand.drag({ x: 200, y: 80 }, { x: 200, y: 580 });
  await expect.poll(async () => (await at(200, 200)).join()).not.toBe(vein.join());
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await at(200, 200)).join()).toBe(vein.join());
  expect(await hand.saved()).toEqual(before);
});

test('groups in groups are listed, chosen, entered, dragged with their clip, moved out of by hand, and had back', async ({
  page,
}) => {
  const hand = await drawnItems(page);
  const start = await hand.saved();
  const list = page.locator('.lines-list');
  await expect(list).toContainText('Half seen');
  // The whole group is dragged, its window with it.
  await hand.drag({ x: 550, y: 440 }, { x: 550, y: 380 });
  await expect.poll(async () => (await hand.colourAt({ x: 560, y: 386 }))[0]).toBeLessThan(60);
  await expect.poll(async () => (await hand.colourAt({ x: 640, y: 387 }))[0]).toBe(255);
  const moved = (await hand.saved()).sheets[0].items.filter(isGroup).find((g) => g.id === 'outer')!;
  const cut = moved.items[0] as Group;
  expect(cut.clip!.runs[0].nodes[0].point.y).toBeCloseTo(320, 6);
  await page.keyboard.press('Control+z');
  expect(await hand.saved()).toEqual(start);
  // A double-click enters a group: its lines are chosen one by one, and copied within it.
  const rim = hand.at({ x: 100, y: 430 });
  await page.mouse.dblclick(rim.x, rim.y);
  await page.keyboard.press('Shift+D');
  const half = () => hand.saved().then((d) => d.sheets[0].items.find((item) => item.id === 'half') as Group);
  await expect.poll(async () => (await half()).items.length).toBe(3);
  await page.keyboard.press('Control+z');
  // Grouped with another they lie in a group around both; taken apart, the inner one stays.
  await page.keyboard.press('Escape');
  await hand.click({ x: 100, y: 430 });
  await page.keyboard.down('Shift');
  await hand.click({ x: 550, y: 440 });
  await page.keyboard.up('Shift');
  await page.keyboard.press('Shift+G');
  const groups = async () => (await hand.saved()).sheets[0].items.filter(isGroup).map((g) => g.items.map((i) => i.id));
  await expect.poll(async () => JSON.stringify(await groups())).toBe('[["half","outer"]]');
  await page.keyboard.press('Shift+T');
  await expect.poll(async () => JSON.stringify(await groups())).toBe('[["red","blue"],["cut"]]');
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect.poll(() => hand.saved()).toEqual(start);
});

test('a chosen node stays the one it was when another before it is taken back, and put in again', async ({ page }) => {
  const id = await makeDrawing(page.request);
  let { drawing } = (await (await page.request.get(`/api/drawings/${id}`)).json()) as { drawing: Drawing };
  const line = {
    ...bar('a', [100, 200], [300, 200], '#27241d', 4),
    runs: [{ closed: false, nodes: [cornerNode(100, 200), cornerNode(300, 200), cornerNode(500, 300)] }],
  };
  const edit = {
    label: 'Draw',
    steps: [{ step: 'insertItem' as const, at: { sheet: drawing.sheets[0].id, index: 0 }, item: line }],
  };
  drawing = applyChange(drawing, edit);
  await page.request.post(`/api/drawings/${id}/changes`, { data: { base: 0, changes: [{ id: 'a', ...edit }] } });
  const hand = await BenchHand.open(page, id, { tool: 'nodes', view: { scale: 1, x: 20, y: 10 } });
  await hand.click({ x: 200, y: 200 });
  await hand.move({ x: 180, y: 200 });
  await page.keyboard.press('n');
  expect(await hand.nodes()).toHaveLength(4);
  await hand.click({ x: 500, y: 300 });
  const x = page.getByLabel('x of the node');
  await expect(x).toHaveValue(/^500/);
  await page.keyboard.press('Control+z');
  expect(await hand.nodes()).toHaveLength(3);
  await expect(x).toHaveValue(/^500/);
  await page.keyboard.press('Control+Shift+z');
  await page.keyboard.press('ArrowDown');
  const nodes = await hand.nodes();
  expect(nodes.map((n) => Math.round(n.point.x))).toEqual([100, 180, 300, 500]);
  expect(nodes.map((n) => Math.round(n.point.y))).toEqual([200, 200, 200, 301]);
});

test('a line in the list is seen as it looks, and is called by a name that stays', async ({ page }) => {
  const hand = await BenchHand.open(page, await makeDrawing(page.request), { view: { scale: 1, x: 20, y: 10 } });
  for (const p of [
    { x: 100, y: 100 },
    { x: 200, y: 160 },
  ])
    await hand.click(p);
  await page.keyboard.press('Enter');
  const row = page.locator('.lines-list .item-title');
  await expect(row).toContainText('1 · open, 2 nodes');
  await expect(row.locator('path')).toHaveAttribute('d', /^M\s?100[ ,]100/);
  // What is pressed stays under the hand, though more is told of what is chosen, above it.
  const before = (await row.boundingBox())!;
  const at = { x: before.x + 60, y: before.y + before.height / 2 };
  await page.keyboard.press('Escape');
  await page.mouse.click(at.x, at.y);
  await expect(page.locator('.cards h2')).toContainText('Line');
  await expect(page.locator('.cards > .card')).not.toHaveCount(2);
  await expect.poll(async () => Math.round((await row.boundingBox())!.y)).toBe(Math.round(before.y));
  await page.mouse.dblclick(at.x, at.y, { delay: 30 });
  await page.getByRole('textbox', { name: 'Name' }).fill('Stem');
  await page.keyboard.press('Enter');
  await expect(row).toContainText('Stem · open, 2 nodes');
  await hand.saved();
  await page.reload();
  await hand.ready();
  await expect(row).toContainText('Stem');
  await page.keyboard.press('?');
  const promise = page.getByRole('region', { name: 'What a press of the pen does' });
  await expect(promise.getByRole('row', { name: /the first node click close the line/ })).toBeVisible();
});
