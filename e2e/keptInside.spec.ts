import { expect, test, type Locator } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { firstStyle, type Drawing, type Flat, type Item, type Line } from '../src/core';
import { isGroup, linesIn } from '../src/core/drawing/items';
import { ellipse } from '../src/core/drawing/shapes';
import { cornerAt } from '../src/core/drawing/run';
import { BenchHand, drawingOf } from './bench';

const VIEW = { scale: 1, x: 40, y: 20 };
const ring = ellipse({ minX: 200, minY: 120, maxX: 500, maxY: 420 });
const leaf: Line = { id: 'leaf', name: 'Leaf', runs: [ring], style: { ...firstStyle, width: 4 } };
const bar = (id: string, y: number): Line => ({
  id,
  runs: [{ closed: false, nodes: [cornerAt({ x: 120, y }), cornerAt({ x: 580, y })] }],
  style: { ...firstStyle, width: 6, stroke: '#aa3311' },
});
const green: Flat = { kind: 'flat', id: 'green', at: { x: 350, y: 270 }, gap: 0, runs: [ring], fill: '#6f9a4c' };
const withLeaf = (d: Drawing): Drawing => ({
  ...d,
  sheets: [{ ...d.sheets[0], items: [green, leaf, bar('one', 200), bar('two', 330)] }],
});
const items = (d: Drawing): readonly Item[] => d.sheets.flatMap((s) => s.items);
const isRed = ([r, g]: number[]): boolean => r > 140 && g < 90;

test('lines are held inside of a shape, more are drawn into it; it is edited, and they are let go whole', async ({
  page,
}) => {
  const hand = await BenchHand.open(page, await drawingOf(page.request, withLeaf), {
    view: VIEW,
    stage: 'colour',
    tool: 'select',
  });
  const start = await hand.saved();
  expect(isRed(await hand.colourAt({ x: 150, y: 200 }))).toBe(true);
  await hand.click({ x: 150, y: 200 });
  await page.keyboard.down('Shift');
  await hand.click({ x: 150, y: 330 });
  await page.keyboard.up('Shift');
  const card = page.getByRole('group', { name: 'Keep inside' });
  await card.getByRole('button', { name: 'Keep 2 inside' }).click();
  const held = async () => items(await hand.saved()).filter(isGroup);
  await expect.poll(async () => (await held()).map((g) => linesIn(g.items).length)).toEqual([2]);
  await page.keyboard.press('Escape');
  await page.mouse.move(640, 30);
  // What is beyond the shape is not seen any more; what is in it is.
  await expect.poll(async () => isRed(await hand.colourAt({ x: 150, y: 200 }))).toBe(false);
  expect(isRed(await hand.colourAt({ x: 350, y: 200 }))).toBe(true);

  // A line drawn into it comes to lie with them.
  await hand.click({ x: 350, y: 270 });
  await card.getByRole('button', { name: 'draw into it' }).click();
  await expect(page.getByText('New lines go inside of the shape.')).toBeVisible();
  await hand.move({ x: 100, y: 260 });
  await page.mouse.down();
  await hand.move({ x: 350, y: 280 }, 8);
  await hand.move({ x: 620, y: 262 }, 8);
  await page.mouse.up();
  await expect.poll(async () => (await held()).reduce((n, g) => n + linesIn(g.items).length, 0)).toBe(3);
  await page.getByRole('button', { name: 'Stop' }).click();

  // The shape's own side is pulled out: more of the bars is seen.
  await page.keyboard.press('d');
  await hand.click({ x: 350, y: 120 });
  await hand.click({ x: 200, y: 270 });
  await hand.drag({ x: 200, y: 270 }, { x: 120, y: 270 });
  await page.keyboard.press('Escape');
  await page.mouse.move(640, 30);
  await expect.poll(async () => isRed(await hand.colourAt({ x: 172, y: 330 }))).toBe(true);

  for (let i = 0; i < 3; i++) await page.keyboard.press('Control+z');
  await expect.poll(async () => JSON.stringify(await hand.saved()) === JSON.stringify(start)).toBe(true);
});

test('a flat is chosen with Select; what lies there is listed, and put over or under; new lines go behind', async ({
  page,
}) => {
  const hand = await BenchHand.open(page, await drawingOf(page.request, withLeaf), {
    view: VIEW,
    stage: 'colour',
    tool: 'select',
  });
  await hand.click({ x: 350, y: 270 });
  await expect(page.getByRole('group', { name: 'Chosen flats' })).toContainText('follows its lines');
  await page.keyboard.press('Delete');
  await expect.poll(async () => items(await hand.saved()).map((i) => i.id)).toEqual(['leaf', 'one', 'two']);
  await page.keyboard.press('Control+z');

  await hand.click({ x: 350, y: 200 });
  const list = page.getByRole('group', { name: 'What lies here' });
  await expect(list.getByRole('listitem')).toHaveCount(2);
  await expect(list.getByRole('listitem').first()).toContainText('line on');
  const order = async () => items(await hand.saved()).map((i) => i.id);
  await expect(list.getByRole('button', { name: /^flat.*: under the next/ })).toBeDisabled();
  await list.getByRole('button', { name: /^flat.*: over the next/ }).click();
  await expect.poll(order).toEqual(['leaf', 'one', 'green', 'two']);
  await expect(list.getByRole('listitem').first()).toContainText('flat');
  await list.getByRole('button', { name: /^flat, [a-z ]+$/ }).click();
  await expect(page.getByRole('group', { name: 'Chosen flats' })).toBeVisible();

  // Dragged in the list it comes to lie right under the line again.
  const [flat, bar] = [
    list.getByRole('button', { name: /^flat, [a-z ]+$/ }),
    list.getByRole('button', { name: /^line on \S+( \S+)?$/ }),
  ];
  const middle = async (row: Locator) => {
    const { x, y, width, height } = (await row.boundingBox())!;
    return { x: x + width / 2, y: y + height / 2 };
  };
  await list.scrollIntoViewIfNeeded();
  const [from, to] = [await middle(flat), await middle(bar)];
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move(from.x, from.y + 8, { steps: 4 });
  await page.mouse.move(to.x, to.y, { steps: 6 });
  await page.mouse.up();
  await expect.poll(order).toEqual(['leaf', 'green', 'one', 'two']);

  // Drawn behind a chosen line.
  await hand.click({ x: 150, y: 200 });
  await page.keyboard.press('2');
  await page.keyboard.press('s');
  await page.getByRole('button', { name: 'draw behind' }).click();
  await hand.click({ x: 540, y: 150 });
  await hand.click({ x: 560, y: 250 });
  await page.keyboard.press('Enter');
  await expect.poll(async () => items(await hand.saved()).length).toBe(5);
  const ids = items(await hand.saved()).map((i) => i.id);
  expect(ids.indexOf('one')).toBe(3);
  expect(ids[4]).toBe('two');
});

test('a colour is sampled for what is chosen and for the palette, which is saved and brought in again', async ({
  page,
}) => {
  const hand = await BenchHand.open(page, await drawingOf(page.request, withLeaf), {
    view: VIEW,
    stage: 'colour',
    tool: 'sample',
  });
  const aim = async (what: string): Promise<void> => {
    await page.getByRole('combobox', { name: 'What the colour is for' }).click();
    await page.locator('.ant-select-item-option', { hasText: what }).click();
  };
  await aim('as a swatch');
  await page.keyboard.down('Alt');
  await hand.click({ x: 350, y: 270 });
  await hand.click({ x: 150, y: 200 });
  await page.keyboard.up('Alt');
  const palette = async () => (await hand.saved()).palette?.map((s) => s.colour);
  await expect.poll(palette).toEqual(['#6f9a4c', '#aa3311']);
  await page.keyboard.press('s');
  await hand.click({ x: 150, y: 330 });
  await page.keyboard.press('t');
  await aim('for chosen strokes');
  await page.keyboard.down('Alt');
  await hand.click({ x: 350, y: 270 });
  await page.keyboard.up('Alt');
  const two = async () => (items(await hand.saved()).find((i) => i.id === 'two') as Line).style.stroke;
  // The palette has that colour: the stroke is linked to it.
  await expect.poll(two).toEqual({ swatch: (await hand.saved()).palette![0].id });

  await page.getByRole('radiogroup', { name: 'What the cards show' }).getByText('Palette').click();
  const saving = page.waitForEvent('download');
  await page.getByRole('group', { name: 'Save the palette as' }).getByRole('button', { name: 'CSS' }).click();
  const text = readFileSync((await (await saving).path())!, 'utf8');
  expect(text).toContain('#6f9a4c');
  expect(text).toMatch(/^:root \{/);
  await page.getByLabel('A palette to bring in').setInputFiles({
    name: 'Autumn.css',
    mimeType: 'text/css',
    buffer: Buffer.from(':root { --rust: #8a3b12; --straw: hsl(45 60% 70%); }'),
  });
  await expect.poll(async () => (await palette())?.length).toBe(4);
  expect((await hand.saved()).palette!.slice(2).map((s) => [s.name, s.group])).toEqual([
    ['rust', 'Autumn'],
    ['straw', 'Autumn'],
  ]);
  await page.getByLabel('A palette to bring in').setInputFiles({
    name: 'notes.txt',
    mimeType: 'text/plain',
    buffer: Buffer.from('nothing here'),
  });
  await expect(page.locator('.message')).toContainText('“notes.txt” is no palette: there is no colour in it');
  // What is painted in a swatch's plain colour is linked to it; then only what came with the file is not used.
  await page.getByRole('button', { name: 'Link colours that have a swatch' }).click();
  await page.getByRole('button', { name: 'Take 2 unused away' }).click();
  await expect.poll(palette).toEqual(['#6f9a4c', '#aa3311']);
});
