import { expect, test } from '@playwright/test';
import sharp from 'sharp';
import type { Line, Reference } from '../src/core';
import type { Item, Picture } from '../src/core/drawing/item';
import { isGroup, linesOf } from '../src/core/drawing/items';
import { compare, drawnItems, itemsDrawn } from './itemsDrawn';

/** Items moved in the list, copied, nudged, and pictures among them. */

test('rows of the list are dragged into a group, out of it, and to another place in it', async ({ page }) => {
  const hand = await drawnItems(page);
  const ids = async () =>
    (await hand.saved()).sheets[0].items.map((i) => (isGroup(i) ? [i.id, ...i.items.map((x) => x.id)] : i.id));
  const start = await ids();
  const row = (title: string) => page.locator('.lines-list .ant-tree-treenode', { hasText: title });
  const title = (t: string) => row(t).locator('.ant-tree-node-content-wrapper');
  await expect(row('Half seen')).toBeVisible();
  const grip = async (t: string) => (await title(t).boundingBox())!;
  // Held over a group it opens; let go of there, what is dragged lies in it, on top of what is in it.
  const [leaf, half] = [await grip('1 · closed'), await grip('Half seen')];
  await page.mouse.move(leaf.x + 20, leaf.y + 12);
  await page.mouse.down();
  const inHalf = half.y + 0.6 * half.height;
  await page.mouse.move(half.x + 20, inHalf - 2, { steps: 6 });
  await page.mouse.move(half.x + 24, inHalf, { steps: 3 });
  await expect(row('Half seen').locator('.ant-tree-switcher_open')).toBeVisible();
  await page.mouse.move(half.x + 22, inHalf, { steps: 3 });
  await page.mouse.up();
  await expect.poll(ids).toEqual(['sun', 'vein', ['half', 'red', 'blue', 'leaf'], ...start.slice(4)]);
  await page.keyboard.press('Control+z');
  await expect.poll(ids).toEqual(start);
  // Out of it: between the rows around.
  await expect(title('5 · closed')).toBeVisible();
  const [onto, from] = [await grip('3 · open'), await grip('5 · closed')];
  await page.mouse.move(from.x + 20, from.y + 12);
  await page.mouse.down();
  await page.mouse.move(onto.x + 10, onto.y + 14, { steps: 6 });
  await page.mouse.move(onto.x + 10, onto.y + onto.height - 2, { steps: 4 });
  await page.mouse.up();
  await expect.poll(ids).toEqual(['leaf', 'sun', 'blue', 'vein', ['half', 'red'], ...start.slice(4)]);
  await page.keyboard.press('Control+z');
  await expect.poll(ids).toEqual(start);
});

test('a group in a group is copied, cut and pasted whole, its clip and opacity with it', async ({ page, context }) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write']);
  const hand = await drawnItems(page);
  const before = await hand.saved();
  await hand.click({ x: 550, y: 440 });
  await page.keyboard.press('Control+c');
  await hand.move({ x: 300, y: 520 });
  await page.keyboard.press('Control+v');
  const after = await expect
    .poll(async () => (await hand.saved()).sheets[0].items.length)
    .toBe(itemsDrawn.length + 1)
    .then(() => hand.saved());
  const shape = (i: Item): unknown =>
    isGroup(i)
      ? { name: i.name, opacity: i.opacity, clip: i.clip?.runs.length, items: i.items.map(shape) }
      : (i.kind ?? 'line');
  const copy = after.sheets[0].items.at(-1)!;
  const outer = before.sheets[0].items[4];
  expect(shape(copy)).toEqual(shape(outer));
  expect(copy.id).not.toBe(outer.id);
  // Its middle lies where the pointer was, and it is what is chosen: cut, it is gone; pasted in its place, it is back there.
  await page.keyboard.press('Control+x');
  await expect.poll(async () => (await hand.saved()).sheets[0].items.length).toBe(itemsDrawn.length);
  await page.keyboard.press('Control+Shift+v');
  await expect.poll(async () => (await hand.saved()).sheets[0].items.length).toBe(itemsDrawn.length + 1);
  const back = (await hand.saved()).sheets[0].items.at(-1)!;
  expect(shape(back)).toEqual(shape(outer));
  const runsOf = (i: Item): unknown => (isGroup(i) ? [i.clip?.runs, i.items.map(runsOf)] : (i as Line).runs);
  expect(runsOf(back)).toEqual(runsOf(copy));
});

test('an arrow key that is held moves on and on, and is taken back by one press', async ({ page }) => {
  const hand = await drawnItems(page);
  const before = await hand.saved();
  const x = async () => (linesOf((await hand.saved()).sheets[0])[1] as Line).runs[0].nodes[0].point.x;
  const start = await x();
  await hand.click({ x: 470, y: 180 });
  for (let i = 0; i < 24; i++) await page.keyboard.down('ArrowRight');
  await page.keyboard.up('ArrowRight');
  await expect.poll(x).toBeCloseTo(start + 24, 3);
  const journal = await page.request.get(`/api/drawings/${hand.id}/changes?before=99`);
  expect(((await journal.json()) as { changes: unknown[] }).changes).toHaveLength(2);
  await page.keyboard.press('Control+z');
  await expect.poll(() => hand.saved()).toEqual(before);
});

test('a picture in the art is painted in its place in the order, on the page and in files', async ({ page }) => {
  const hand = await drawnItems(page);
  const { data: bytes } = await sharp({ create: { width: 60, height: 40, channels: 3, background: '#20a060' } })
    .png()
    .toBuffer({ resolveWithObject: true });
  const taken = await page.request.post(`/api/drawings/${hand.id}/references?name=patch.png&place=0`, { data: bytes });
  const { reference } = (await taken.json()) as { reference: Reference };
  const { id: sheet } = (await hand.saved()).sheets[0];
  const item: Picture = {
    kind: 'picture',
    id: 'patch',
    name: 'Patch',
    picture: reference.picture,
    pixelWidth: reference.pixelWidth,
    pixelHeight: reference.pixelHeight,
    corrections: [],
    at: { x: 420, y: 120 },
    width: 180,
    height: 120,
    turn: 90,
    flipX: false,
    flipY: false,
    opacity: 0.8,
  };
  const step = { step: 'insertItem' as const, at: { sheet, index: 2 }, item };
  const laid = { base: 1, changes: [{ id: 'patch', label: 'Lay a picture', steps: [step] }] };
  expect((await page.request.post(`/api/drawings/${hand.id}/changes`, { data: laid })).status()).toBe(200);
  await page.reload();
  await hand.ready();
  // Over the sun, under the glass; turned by a quarter about its middle.
  const patch: [number, number][] = [
    [510, 110],
    [510, 240],
    [435, 180],
    [560, 160],
    [540, 180],
    [600, 180],
  ];
  await expect.poll(() => compare(hand, patch)).toBeLessThan(6);
  const over = await hand.colourAt({ x: 510, y: 110 });
  expect(over[1]).toBeGreaterThan(over[0] + 60);
  expect(await hand.colourAt({ x: 435, y: 180 })).toEqual([255, 254, 251]);
});
