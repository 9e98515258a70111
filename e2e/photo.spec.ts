import { expect, test, type APIRequestContext, type Locator, type Page } from '@playwright/test';
import { allLines, linesOf } from '../src/core/drawing/items';
import { cubicsOf } from '../src/core/drawing/run';
import type { Cubic, Point } from '../src/core';
import { distanceToCurves, walk } from '../src/core/test/strokes';
import { potLines } from '../src/server/simulated/curves/pot';
import { pictures } from '../demo/pictures';
import { BenchHand, makeDrawing } from './bench';

/** The photo lies on the page at half its size. */
const SCALE = 0.5;
const onPage = (part: string): Cubic[] =>
  potLines.find((l) => l.part === part)!.cubics.map((c) => c.map((p) => ({ x: p.x * SCALE, y: p.y * SCALE })) as Cubic);
const nearShare = (cubics: readonly Cubic[], truth: readonly Cubic[], within: number): number => {
  const off = walk(cubics, 1).map((p) => distanceToCurves(truth, p));
  return off.filter((d) => d <= within).length / off.length;
};
const figure = async (card: Locator, what: string): Promise<number> =>
  Number(/[\d.]+/.exec((await card.locator('.row', { hasText: what }).first().textContent()) ?? '')?.[0]);

/** A drawing with the photo of the pot under it. */
async function openPhoto(
  page: Page,
  request: APIRequestContext,
  options: Parameters<typeof BenchHand.open>[2],
): Promise<BenchHand> {
  const id = await makeDrawing(request);
  await request.post(`/api/drawings/${id}/references?name=pot.jpg`, {
    data: await pictures.pot(),
  });
  return BenchHand.open(page, id, options);
}

test('a photo is traced: edges are followed around a thing, settled onto, measured by, and it is exported', async ({
  page,
  request,
}) => {
  test.setTimeout(180_000);
  const hand = await openPhoto(page, request, { view: { scale: 1, x: 20, y: 20 } });
  expect((await hand.saved()).references[0].target).toBe('edge');
  await page.keyboard.press('Shift+f');
  await expect(page.locator('.hints')).not.toContainText('a moment', { timeout: 60_000 });
  const truth = onPage('shell');
  const way = walk(truth, 4);
  const presses = 8;
  let strays = 0;
  const stray = (p: Point): Point => ({ x: p.x + (strays++ % 3) - 1, y: p.y + (strays % 2) - 0.5 });
  await hand.click(way[0]);
  for (let k = 1; k <= presses; k++) {
    const [from, to] = [k - 1, k].map((n) => Math.round((n * (way.length - 1)) / presses));
    for (let i = from + 1; i < to; i += 2) await hand.move(stray(way[i]), 1);
    await hand.move(k === presses ? way[0] : way[to], 2);
    await expect(page.locator('.hints')).toContainText('take the curve');
    await page.waitForTimeout(120);
    await page.mouse.down();
    await page.mouse.up();
    const made = k === presses ? 'Undo: Close line' : 'Undo: Follow the ink';
    await expect(page.getByRole('button', { name: 'Undo' })).toHaveAttribute('title', made);
  }
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  const [line] = allLines(await hand.saved());
  const followed = line.runs.flatMap(cubicsOf);
  expect(line.runs[0].closed).toBe(true);
  expect(nearShare(followed, truth, 0.75)).toBeGreaterThan(0.93);
  expect(followed.length).toBeLessThanOrEqual(14);
  await page
    .getByRole('button', { name: /Refine/ })
    .first()
    .click();
  await page.keyboard.press('g');
  await hand.click(truth[0][0]);
  await expect(page.locator('.trial')).toHaveText(/^one line moves/, { timeout: 30_000 });
  await page.keyboard.press('Enter');
  const settled = allLines(await hand.saved())[0].runs.flatMap(cubicsOf);
  expect(settled).toHaveLength(followed.length);
  expect(nearShare(settled, truth, 0.5)).toBeGreaterThan(0.96);
  const mean = page
    .getByRole('row', { name: /^This line/ })
    .getByRole('cell')
    .nth(0);
  await expect.poll(async () => Number(await mean.textContent()), { timeout: 20_000 }).toBeLessThan(0.5);
  const svg = await (await request.get(`/api/drawings/${hand.id}/export?format=svg&scope=page`)).text();
  expect(svg.match(/<path /g)).toHaveLength(1);
});

test('outlines of a photo that have no line are led to, made a line with a press, or waved through', async ({
  page,
  request,
}) => {
  test.setTimeout(120_000);
  const hand = await openPhoto(page, request, { stage: 'refine', view: { scale: 0.8, x: 40, y: 40 } });
  await page.keyboard.press('Shift+2');
  const card = page.getByRole('group', { name: 'Ink without a line' });
  await expect(card).toContainText(/\d+ outlines/, { timeout: 60_000 });
  await expect(card).toContainText('Outlines that have a line');
  const covered = async (): Promise<number> =>
    Number(/[\d.]+/.exec((await page.getByTestId('covered').textContent()) ?? '')![0]);
  expect(await covered()).toBe(0);
  await card.getByRole('button', { name: 'The next patch' }).click();
  await expect(card).toContainText(/outline 1 of \d+/);
  await card.getByRole('button', { name: 'Make it a line' }).click();
  await expect(page.getByRole('button', { name: 'Undo' })).toHaveAttribute('title', 'Undo: Draw outline');
  const [line] = await hand.lines();
  const truths = potLines.flatMap((l) => onPage(l.part));
  expect(nearShare(line.runs.flatMap(cubicsOf), truths, 0.8)).toBeGreaterThan(0.9);
  await expect.poll(covered, { timeout: 20_000 }).toBeGreaterThan(5);
  const before = /of (\d+)/.exec((await card.textContent())!)![1];
  await card.getByRole('button', { name: 'Wave through' }).click();
  expect((await hand.saved()).waved).toHaveLength(1);
  await expect(card).not.toContainText(`of ${before}`);
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  expect(await hand.lines()).toHaveLength(0);
});

test('shapes are pulled from a photo: seen first, one dropped, laid on sheets by colour, or as outlines', async ({
  page,
  request,
}) => {
  test.setTimeout(150_000);
  const hand = await openPhoto(page, request, {
    stage: 'prepare',
    tool: 'pullShapes',
    view: { scale: 0.8, x: 40, y: 40 },
  });
  const card = page.getByRole('group', { name: 'Pull shapes' });
  await card.getByRole('button', { name: 'Pull shapes' }).click();
  await expect(card).toContainText('Shapes kept', { timeout: 60_000 });
  const all = await figure(card, 'Shapes kept');
  expect(all).toBeGreaterThan(6);
  const inLeaf = { x: 620, y: 180 };
  const [r, g, b] = await hand.colourAt(inLeaf);
  expect(g).toBeGreaterThan(Math.max(r, b) + 15);
  await hand.click(inLeaf);
  await expect(card).toContainText(`${all - 1} of ${all}`);
  expect(await hand.lines()).toHaveLength(0);
  await card.getByRole('button', { name: 'Lay them on the page' }).click();
  const drawing = await hand.saved();
  expect(drawing.folders.map((f) => f.name)).toEqual(['Shapes of pot.jpg']);
  const sheets = drawing.sheets.filter((s) => s.folder === drawing.folders[0].id);
  expect(sheets.length).toBeGreaterThan(4);
  for (const s of sheets) expect(new Set(linesOf(s).map((l) => l.style.fill)).size).toBe(1);
  expect(allLines(drawing)).toHaveLength(all - 1);
  const borders = allLines(drawing).flatMap((l) => l.runs.flatMap(cubicsOf));
  expect(nearShare(onPage('shell'), borders, 1)).toBeGreaterThan(0.95);
  await page.keyboard.press('Control+z');
  expect((await hand.saved()).folders).toEqual([]);
});

test('a thing is gone around loosely and set apart; the rest is dimmed, a photo simplified and brought to a few colours', async ({
  page,
  request,
}) => {
  test.setTimeout(120_000);
  const hand = await openPhoto(page, request, { stage: 'prepare', tool: 'place', view: { scale: 0.8, x: 40, y: 40 } });
  const card = page.getByRole('group', { name: 'Corrections' });
  await card.getByRole('switch', { name: 'Set apart' }).click();
  const around = Array.from({ length: 25 }, (_, i): Point => {
    const turn = (2 * Math.PI * i) / 24;
    return { x: 172 + 108 * Math.cos(turn), y: 490 + 92 * Math.sin(turn) };
  });
  await hand.move(around[0]);
  await page.mouse.down();
  for (const p of around) await hand.move(p, 1);
  await page.mouse.up();
  await expect(page.getByRole('button', { name: 'Undo' })).toHaveAttribute('title', 'Undo: Set apart', {
    timeout: 30_000,
  });
  const { corrections } = (await hand.saved()).references[0];
  const apart = corrections.find((c) => c.kind === 'apart');
  if (apart?.kind !== 'apart') throw new Error('nothing was set apart');
  const shell = onPage('shell');
  const off = apart.outlines[0].map((p) => distanceToCurves(shell, { x: 800 * p.x, y: 600 * p.y }));
  expect(off.filter((d) => d < 2).length / off.length).toBeGreaterThan(0.8);
  await page.keyboard.press('Enter');
  const lightness = async (p: Point): Promise<number> => (await hand.colourAt(p)).reduce((a, b) => a + b) / 3;
  const ground = { x: 700, y: 550 };
  await expect.poll(() => lightness(ground), { timeout: 20_000 }).toBeGreaterThan(225);
  expect(await lightness({ x: 172, y: 490 })).toBeLessThan(222);
  await card.getByRole('switch', { name: 'Simplify' }).click();
  await card.getByRole('switch', { name: 'Steps' }).click();
  await card.getByText('colours', { exact: true }).click();
  await expect
    .poll(async () => {
      const steps = (await hand.saved()).references[0].corrections.find((c) => c.kind === 'steps');
      return steps?.kind === 'steps' ? steps.colours.some((c) => c.slice(1, 3) !== c.slice(3, 5)) : false;
    })
    .toBe(true);
  for (let k = 0; k < 4; k++) await page.keyboard.press('Control+z');
  expect((await hand.saved()).references[0].corrections).toEqual([]);
});
