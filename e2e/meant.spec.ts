import { linesOf } from '../src/core/drawing/items';
import { expect, test, type Page } from '@playwright/test';
import type { Line, Point } from '../src/core';
import { BenchHand, makeDrawing } from './bench';

/** Recorded hands: many lines that begin and end on each other. Every one is as the recording means it, and no other. */

const around = (k: number, radius: number): Point => ({
  x: Math.round(400 + radius * Math.cos((k * Math.PI) / 6)),
  y: Math.round(300 + radius * Math.sin((k * Math.PI) / 6)),
});
const places = (l: Line): number[][] => l.runs[0].nodes.map((n) => [Math.round(n.point.x), Math.round(n.point.y)]);
const asPlaces = (line: readonly Point[]): number[][] => line.map((p) => [p.x, p.y]);

async function draw(page: Page, hand: BenchHand, lines: readonly (readonly Point[])[]): Promise<void> {
  for (const line of lines) {
    for (const p of line) await hand.click(p);
    await page.keyboard.press('Enter');
  }
}

/** One page unit is one px. */
const open = async (page: Page): Promise<BenchHand> =>
  BenchHand.open(page, await makeDrawing(page.request), { view: { scale: 1, x: 20, y: 10 } });

const centre = { x: 400, y: 300 };
const fan = Array.from({ length: 12 }, (_, k) => [centre, around(k, 220)]);

for (const keep of [true, false])
  test(`a fan of 12 rays from one point, with lines ${keep ? '' : 'not '}kept to`, async ({ page }) => {
    const hand = await open(page);
    if (!keep) await page.getByRole('button', { name: 'keep to lines' }).click();
    await draw(page, hand, fan);
    expect((await hand.lines()).map(places)).toEqual(fan.map(asPlaces));
    // One press of undo a node, back to the empty page.
    for (let i = 0; i < 24; i++) await page.keyboard.press('Control+z');
    expect(await hand.lines()).toEqual([]);
  });

test('rays drawn inwards, and a wheel around them on other ends', async ({ page }) => {
  const hand = await open(page);
  const inwards = fan.map((ray) => ray.toReversed());
  const wheel = Array.from({ length: 12 }, (_, k) => [around(k, 220), around(k + 1, 220)]);
  await draw(page, hand, [...inwards, ...wheel]);
  expect((await hand.lines()).map(places)).toEqual([...inwards, ...wheel].map(asPlaces));
});

test('a mesh of 20 lines over two sheets: each stays on the sheet in hand', async ({ page }) => {
  const hand = await open(page);
  await page.getByRole('button', { name: 'Add a sheet' }).click();
  const level = Array.from({ length: 10 }, (_, k) => [
    { x: 100, y: 60 + 50 * k },
    { x: 550, y: 60 + 50 * k },
  ]);
  const upright = Array.from({ length: 10 }, (_, k) => [
    { x: 100 + 50 * k, y: 60 },
    { x: 100 + 50 * k, y: 510 },
  ]);
  const name = async (sheet: string): Promise<void> => page.locator(`[data-sheet="${sheet}"] .name`).click();
  await name('Sheet 1');
  await draw(page, hand, level);
  await name('Sheet 2');
  await draw(page, hand, upright);
  // The corners are ends of lines on the other sheet; with Alt nothing is taken up there either.
  await page.keyboard.down('Alt');
  await hand.click({ x: 100, y: 110 });
  await page.keyboard.up('Alt');
  await hand.click({ x: 60, y: 300 });
  await page.keyboard.press('Enter');
  const { sheets } = await hand.saved();
  const on = (title: string): number[][][] => linesOf(sheets.find((s) => s.name === title)!).map(places);
  expect(on('Sheet 1')).toEqual(level.map(asPlaces));
  expect(on('Sheet 2')).toEqual([
    ...upright.map(asPlaces),
    [
      [100, 110],
      [60, 300],
    ],
  ]);
});

test('30 pencil strokes 5 px apart are 30 lines, none of them closed or led to another', async ({ page }) => {
  const hand = await open(page);
  await page.keyboard.press('q');
  const strokes = Array.from({ length: 30 }, (_, k) => {
    const stroke = Array.from({ length: 12 }, (__, i) => ({ x: 200 + 8 * i, y: 100 + 5 * k + 3 * i }));
    return k % 2 ? stroke.toReversed() : stroke;
  });
  for (const stroke of strokes) {
    await hand.move(stroke[0]);
    await page.mouse.down();
    for (const p of stroke) await hand.move(p, 1);
    await page.mouse.up();
  }
  await expect.poll(async () => (await hand.lines()).length).toBe(30);
  const lines = await hand.lines();
  expect(lines.map((l) => l.runs.map((r) => r.closed))).toEqual(strokes.map(() => [false]));
  const ends = lines.map(places).map((l) => [l[0], l.at(-1)!]);
  ends.forEach(([first, last], k) => {
    const [from, to] = [strokes[k][0], strokes[k].at(-1)!];
    expect(Math.hypot(first[0] - from.x, first[1] - from.y)).toBeLessThan(2.5);
    expect(Math.hypot(last[0] - to.x, last[1] - to.y)).toBeLessThan(2.5);
  });
});

test('a double-click on the closing node closes a curved line smoothly, and does nothing else', async ({ page }) => {
  const hand = await open(page);
  await hand.drag({ x: 200, y: 200 }, { x: 260, y: 170 });
  await hand.drag({ x: 450, y: 220 }, { x: 470, y: 300 });
  await hand.drag({ x: 300, y: 420 }, { x: 240, y: 420 });
  const start = hand.at({ x: 200, y: 200 });
  await page.mouse.move(start.x + 1, start.y + 1);
  await page.mouse.dblclick(start.x, start.y);
  await page.keyboard.press('Enter');
  const [line, ...others] = await hand.lines();
  expect(others).toEqual([]);
  const [run] = line.runs;
  expect([run.closed, run.nodes.map((n) => n.kind)]).toEqual([true, ['smooth', 'smooth', 'smooth']]);
  const { in: into, out } = run.nodes[0];
  expect(Math.abs(into!.x * out!.y - into!.y * out!.x)).toBeLessThan(1e-6);
  expect(into!.x * out!.x + into!.y * out!.y).toBeLessThan(0);
});

test('with Alt, and only then, ends are drawn on and joined; the keys’ dialog says so', async ({ page }) => {
  const hand = await open(page);
  await draw(page, hand, [
    [
      { x: 100, y: 100 },
      { x: 200, y: 100 },
    ],
    [
      { x: 300, y: 200 },
      { x: 400, y: 200 },
    ],
  ]);
  await hand.move({ x: 201, y: 101 });
  await expect(page.locator('.hints')).toContainText('start a line on this node');
  await page.keyboard.down('Alt');
  await expect(page.locator('.hints')).toContainText('draw on from this end');
  await hand.click({ x: 200, y: 100 });
  await hand.click({ x: 300, y: 200 });
  await page.keyboard.up('Alt');
  const lines = await hand.lines();
  expect(lines.map(places)).toEqual([
    [
      [100, 100],
      [200, 100],
      [300, 200],
      [400, 200],
    ],
  ]);
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog')).toContainText('at an open end draw that line on, or join it');
});
