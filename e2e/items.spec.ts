import { expect, test, type Page } from '@playwright/test';
import sharp from 'sharp';
import { applyChange, firstStyle, type Drawing, type Line, type Reference } from '../src/core';
import { changeOf } from '../src/core/change/changeOf';
import type { Group, Item, Picture } from '../src/core/drawing/item';
import { isGroup, linesOf } from '../src/core/drawing/items';
import type { Paint } from '../src/core/drawing/paint';
import { ellipse } from '../src/core/drawing/shapes';
import { BenchHand, cornerNode, makeDrawing } from './bench';

/** Groups in groups, what lies over what and how, and paints that are looked up: seen alike on the page and in a file. */

const ring = (id: string, x: number, y: number, r: number, fill: Paint | null, more: Partial<Line> = {}): Line => ({
  id,
  runs: [ellipse({ minX: x - r, minY: y - r, maxX: x + r, maxY: y + r })],
  style: { ...firstStyle, width: 0, fill },
  ...more,
});
const bar = (id: string, from: [number, number], to: [number, number], stroke: Paint, width = 20): Line => ({
  id,
  style: { ...firstStyle, stroke, width, cap: 'butt' },
  runs: [{ closed: false, nodes: [cornerNode(...from), cornerNode(...to)] }],
});
const group = (id: string, items: Item[], more: Partial<Group> = {}): Group => ({
  kind: 'group',
  id,
  name: '',
  items,
  ...more,
});

const items: Item[] = [
  ring('leaf', 200, 200, 120, { swatch: 'leaf' }, { style: { ...firstStyle, width: 2, fill: { swatch: 'leaf' } } }),
  ring('sun', 560, 180, 90, { gradient: 'sun' }),
  bar('vein', [120, 200], [280, 200], { of: 'beside', by: 0.5, else: '#000000' }),
  group('half', [ring('red', 160, 430, 60, '#c03030'), ring('blue', 220, 430, 60, '#3048c0')], {
    opacity: 0.5,
    name: 'Half seen',
  }),
  group('outer', [
    group('cut', [bar('across', [400, 440], [700, 440], '#27241d')], { clip: ring('window', 550, 440, 60, null) }),
  ]),
  ring('shade', 290, 260, 60, '#e8a0c0', { blend: 'multiply' }),
  bar('glass', [480, 180], [640, 180], '#3048c080'),
];

async function drawn(page: Page): Promise<BenchHand> {
  const id = await makeDrawing(page.request, 'Items');
  const { drawing } = (await (await page.request.get(`/api/drawings/${id}`)).json()) as { drawing: Drawing };
  const stops = [
    { at: 0, colour: '#ffe9a8' },
    { at: 1, colour: '#c8860a' },
  ];
  const [from, to] = [
    { x: 0.5, y: 0.5 },
    { x: 1, y: 0.5 },
  ];
  const change = {
    id: 'lay',
    label: 'Lay',
    steps: [
      {
        step: 'setDrawing' as const,
        before: { palette: [], gradients: [] },
        after: {
          palette: [{ id: 'leaf', name: 'Leaf', colour: '#5b8c4a' }],
          gradients: [{ id: 'sun', name: '', kind: 'radial' as const, space: 'item' as const, from, to, stops }],
        },
      },
      ...items.map((item, index) => ({
        step: 'insertItem' as const,
        at: { sheet: drawing.sheets[0].id, index },
        item,
      })),
    ],
  };
  const sent = await page.request.post(`/api/drawings/${id}/changes`, {
    data: { base: 0, changes: [changeOf(change, 'lay')] },
  });
  expect(sent.status()).toBe(200);
  return BenchHand.open(page, id, { tool: 'select', view: { scale: 1, x: 20, y: 10 } });
}

/** What the page shows at some places, and what the file has there. */
async function compare(hand: BenchHand, places: [number, number][]): Promise<number> {
  const answer = await hand.page.request.get(
    `/api/drawings/${hand.id}/export?format=png&scope=page&dpi=96&ground=page`,
  );
  const { data, info } = await sharp(await answer.body())
    .removeAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  let worst = 0;
  for (const [x, y] of places) {
    const seen = await hand.colourAt({ x, y });
    const kept = [0, 1, 2].map((k) => data[(y * info.width + x) * 3 + k]);
    worst = Math.max(worst, ...seen.map((v, k) => Math.abs(v - kept[k])));
  }
  return worst;
}

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
  const hand = await drawn(page);
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
  const hand = await drawn(page);
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

test('rows of the list are dragged into a group, out of it, and to another place in it', async ({ page }) => {
  const hand = await drawn(page);
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
  await page.mouse.move(half.x + 20, half.y + 10, { steps: 6 });
  await page.mouse.move(half.x + 24, half.y + 12, { steps: 3 });
  await expect(row('Half seen').locator('.ant-tree-switcher_open')).toBeVisible();
  await page.mouse.move(half.x + 22, half.y + 12, { steps: 3 });
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
  const hand = await drawn(page);
  const before = await hand.saved();
  await hand.click({ x: 550, y: 440 });
  await page.keyboard.press('Control+c');
  await hand.move({ x: 300, y: 520 });
  await page.keyboard.press('Control+v');
  const after = await expect
    .poll(async () => (await hand.saved()).sheets[0].items.length)
    .toBe(items.length + 1)
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
  await expect.poll(async () => (await hand.saved()).sheets[0].items.length).toBe(items.length);
  await page.keyboard.press('Control+Shift+v');
  await expect.poll(async () => (await hand.saved()).sheets[0].items.length).toBe(items.length + 1);
  const back = (await hand.saved()).sheets[0].items.at(-1)!;
  expect(shape(back)).toEqual(shape(outer));
  const runsOf = (i: Item): unknown => (isGroup(i) ? [i.clip?.runs, i.items.map(runsOf)] : (i as Line).runs);
  expect(runsOf(back)).toEqual(runsOf(copy));
});

test('an arrow key that is held moves on and on, and is taken back by one press', async ({ page }) => {
  const hand = await drawn(page);
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
  const hand = await drawn(page);
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
