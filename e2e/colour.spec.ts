import { expect, test } from '@playwright/test';
import { flatsIn } from '../src/core/drawing/items';
import { cubicsOf } from '../src/core/drawing/run';
import { cubicArea } from '../src/core/geometry/cubic';
import { firstStyle, type Drawing, type Flat, type Line, type Node } from '../src/core';
import { BenchHand, cornerNode, drawingWith } from './bench';

const VIEW = { scale: 1, x: 40, y: 20 };
const line = (id: string, nodes: Node[], closed = false): Line => ({
  id,
  style: { ...firstStyle, width: 4 },
  runs: [{ closed, nodes }],
});
/** A box in two halves; the wall between them stops 5 px short of the floor. */
const halves = [
  line('frame', [cornerNode(100, 100), cornerNode(500, 100), cornerNode(500, 400), cornerNode(100, 400)], true),
  line('wall', [cornerNode(300, 100), cornerNode(300, 395)]),
];
const flats = (d: Drawing): Flat[] => d.sheets.flatMap((s) => flatsIn(s.items));
const size = (f: Flat): number =>
  Math.round(Math.abs(f.runs.flatMap(cubicsOf).reduce((sum, c) => sum + cubicArea(c), 0)));

test('areas are poured by a press and by a drag; a flat follows a node, opens and is kept, and shuts again', async ({
  page,
}) => {
  const hand = await BenchHand.open(page, await drawingWith(page.request, halves), {
    view: VIEW,
    stage: 'colour',
    tool: 'pour',
  });
  const card = page.getByRole('group', { name: 'Flats', exact: true });
  await expect(card).toContainText('No area is filled yet');
  await hand.click({ x: 200, y: 250 });
  await expect.poll(async () => flats(await hand.saved()).map(size)).toEqual([60_000]);
  await expect(card).toContainText('1 flat');
  await expect(page.getByRole('button', { name: /^Colour/ }).first()).toContainText('1 of 2 areas');

  // A press on bare ground says what is the matter, and nothing is made.
  await hand.click({ x: 600, y: 450 });
  await expect(page.locator('.message')).toContainText('Nothing bounds this place');
  expect(flats(await hand.saved())).toHaveLength(1);

  // One press takes it back; a drag across both pours both, in one change.
  await page.keyboard.press('Control+z');
  await expect.poll(async () => flats(await hand.saved()).length).toBe(0);
  await hand.drag({ x: 200, y: 250 }, { x: 400, y: 260 });
  await expect.poll(async () => flats(await hand.saved()).map(size)).toEqual([60_000, 60_000]);

  // A corner is pulled out: the flat goes along with it, under the hand already.
  await page.keyboard.press('3');
  await page.keyboard.press('d');
  await hand.click({ x: 500, y: 250 });
  await hand.drag({ x: 500, y: 400 }, { x: 560, y: 400 });
  await expect.poll(async () => flats(await hand.saved()).map(size)).toEqual([60_000, 69_000]);

  // The wall is taken further off than is closed: both flats are kept, one of them over all of it or both marked.
  await page.keyboard.press('Control+z');
  await hand.click({ x: 300, y: 250 });
  await hand.drag({ x: 300, y: 395 }, { x: 300, y: 330 });
  await expect.poll(async () => flats(await hand.saved()).map(size)).toEqual([120_000]);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => flats(await hand.saved()).map(size)).toEqual([60_000, 60_000]);
});

test('an area that opens is marked and can be found; a colour is changed wherever it is; a flat made a line', async ({
  page,
}) => {
  const sides = [
    line('top', [cornerNode(100, 400), cornerNode(100, 100), cornerNode(500, 100)]),
    line('right', [cornerNode(500, 100), cornerNode(500, 400), cornerNode(100, 400)]),
  ];
  const hand = await BenchHand.open(page, await drawingWith(page.request, sides), {
    view: VIEW,
    stage: 'colour',
    tool: 'pour',
  });
  await hand.click({ x: 200, y: 250 });
  await expect.poll(async () => flats(await hand.saved()).length).toBe(1);
  const before = flats(await hand.saved())[0];
  await page.keyboard.press('3');
  await page.keyboard.press('d');
  await hand.click({ x: 500, y: 250 });
  await hand.drag({ x: 500, y: 100 }, { x: 540, y: 60 });
  await expect.poll(async () => flats(await hand.saved())[0].open).toBe(true);
  expect(flats(await hand.saved())[0].runs).toEqual(before.runs);
  await page.keyboard.press('5');
  const card = page.getByRole('group', { name: 'Flats', exact: true });
  await expect(card).toContainText('One is not shut any more');
  await card.getByRole('button', { name: 'Show' }).click();
  await expect(page.getByRole('group', { name: 'Chosen flats' })).toContainText('not shut');

  await card.getByRole('button', { name: /^All flats in/ }).click();
  const field = page.locator('.ant-color-picker-hex-input input');
  await field.fill('336699');
  await page.mouse.click(640, 760);
  await expect.poll(async () => flats(await hand.saved())[0].fill).toBe('#336699');

  await page.getByRole('button', { name: 'Into a line' }).click();
  await expect.poll(async () => flats(await hand.saved()).length).toBe(0);
  const made = (await hand.saved()).sheets[0].items[0] as Line;
  expect(made.style.fill).toBe('#336699');
  await page.keyboard.press('Control+z');
  await expect.poll(async () => flats(await hand.saved()).length).toBe(1);
});

test('all areas at once, and what the file shows of them', async ({ page }) => {
  const id = await drawingWith(page.request, [
    ...halves,
    line('ring', [cornerNode(150, 150), cornerNode(250, 150), cornerNode(250, 250), cornerNode(150, 250)], true),
  ]);
  const hand = await BenchHand.open(page, id, { view: VIEW, stage: 'colour', tool: 'pour' });
  await page.getByRole('button', { name: 'Fill all areas' }).click();
  await expect
    .poll(async () =>
      flats(await hand.saved())
        .map(size)
        .sort(),
    )
    .toEqual([10_000, 50_000, 60_000]);
  // Below the lines, and in the file as seen.
  expect((await hand.saved()).sheets[0].name).toBe('Flats');
  const svg = await (await page.request.get(`/api/drawings/${id}/export?format=svg&scope=page`)).text();
  expect(svg.match(/fill="#c8b89a"/g)).toHaveLength(3);
  expect(svg.indexOf('#c8b89a')).toBeLessThan(svg.indexOf('stroke-width="4"'));
  await page.keyboard.press('Enter');
  await expect(page.locator('.message')).toContainText('There is no area without a flat');
  await page.keyboard.press('Control+z');
  await expect.poll(async () => flats(await hand.saved()).length).toBe(0);

  // Up to the edges of the lines' strokes only, 4 px wide; then one of them to their middles.
  const painted = async () => flats(await hand.saved()).map((f) => size({ ...f, runs: f.inner ?? f.runs }));
  await page.getByRole('group', { name: 'How far flats go' }).getByText('edges').click();
  await page.getByRole('button', { name: 'Fill all areas' }).click();
  await expect.poll(async () => (await painted()).length).toBe(3);
  const [ring] = (await painted()).sort((a, b) => a - b);
  expect(Math.abs(ring - 96.8 ** 2)).toBeLessThan(5);
  await page.keyboard.press('s');
  await hand.click({ x: 200, y: 200 });
  await page.getByRole('group', { name: 'How far these flats go' }).getByText('middles').click();
  await expect.poll(async () => (await painted()).sort((a, b) => a - b)[0]).toBe(10_000);
});

test('a colour is taken from the picture, at a place or over a box, and poured', async ({ page }) => {
  const id = await drawingWith(page.request, halves);
  const { default: sharp } = await import('sharp');
  const half = (background: string) =>
    sharp({ create: { width: 400, height: 600, channels: 3, background } })
      .png()
      .toBuffer();
  const picture = await sharp({ create: { width: 800, height: 600, channels: 3, background: '#336699' } })
    .composite([{ input: await half('#cc8844'), left: 400, top: 0 }])
    .png()
    .toBuffer();
  const sent = await page.request.post(`/api/drawings/${id}/references?name=two.png`, { data: picture });
  expect(sent.status()).toBeLessThan(300);
  const hand = await BenchHand.open(page, id, { view: VIEW, stage: 'colour', tool: 'sample' });
  const inHand = page.getByRole('button', { name: /^Colour to pour/ });
  await expect(async () => {
    await hand.click({ x: 150, y: 300 });
    await expect(inHand).toContainText('#336699', { timeout: 500 });
  }).toPass();
  await hand.drag({ x: 500, y: 200 }, { x: 600, y: 300 });
  await expect(inHand).toContainText('#cc8844');
  // A box over both has their mean; what was taken before is at hand.
  await hand.drag({ x: 300, y: 200 }, { x: 500, y: 300 });
  await expect(inHand).toContainText(/#(7f|80)7[67]6[ef]/);
  // So has the half beyond the wall, pressed; and most of the other half is blue, which its mean is as well.
  const sampled = page.getByRole('group', { name: 'What is sampled' });
  await hand.drag({ x: 500, y: 200 }, { x: 600, y: 300 });
  await sampled.getByText('area’s mean').click();
  await hand.click({ x: 350, y: 250 });
  await expect(inHand).toContainText(/#(7f|80)7[67]6[ef]/);
  await sampled.getByText('most of area').click();
  await hand.click({ x: 200, y: 250 });
  await expect(inHand).toContainText('#336699');
  await page.getByRole('button', { name: 'Take #336699 in hand' }).click();
  await page.keyboard.press('h');
  // A press that puts the mixer away does nothing else.
  await inHand.click();
  await expect(page.getByText('Darks')).toBeVisible();
  await hand.click({ x: 400, y: 250 });
  await expect(page.getByText('Darks')).toBeHidden();
  await hand.click({ x: 200, y: 250 });
  await expect.poll(async () => flats(await hand.saved()).map((f) => f.fill)).toEqual(['#336699']);
});

test('a sheet as a whole covers less when the hand lets go of its slider, and one press takes that back', async ({
  page,
}) => {
  const id = await drawingWith(page.request, halves);
  const hand = await BenchHand.open(page, id, { view: VIEW, stage: 'colour', tool: 'select' });
  const start = await hand.saved();
  const onLine = async (): Promise<number> => (await hand.colourAt({ x: 100, y: 250 }))[1];
  await expect.poll(onLine).toBeLessThan(80);
  const card = page.getByRole('group', { name: 'Whole sheet' });
  const slider = card.getByRole('slider');
  await slider.scrollIntoViewIfNeeded();
  const from = (await slider.boundingBox())!;
  const rail = (await card.locator('.ant-slider-rail').boundingBox())!;
  await page.mouse.move(from.x + from.width / 2, from.y + from.height / 2);
  await page.mouse.down();
  await page.mouse.move(rail.x + 0.3 * rail.width, from.y + from.height / 2, { steps: 5 });
  await expect(card).toContainText(/covers\s*30/i);
  expect((await hand.saved()).sheets[0].opacity).toBeUndefined();
  await page.mouse.up();
  await expect.poll(async () => (await hand.saved()).sheets[0].opacity).toBeCloseTo(0.3, 1);
  await expect.poll(onLine).toBeGreaterThan(150);
  await page.keyboard.press('Control+z');
  await expect.poll(() => hand.saved()).toEqual(start);
  await expect.poll(onLine).toBeLessThan(80);
});
