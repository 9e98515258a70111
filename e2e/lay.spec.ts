import { expect, test, type APIRequestContext } from '@playwright/test';
import { cubicAt, nearestOnCubic, type Cubic, type Line, type Point } from '../src/core';
import { cubicsOf } from '../src/core/drawing/run';
import { pearLines, pearPage } from '../src/server/simulated/curves/pear';
import { BenchHand, demoDrawing, makeDrawing, near } from './bench';

const k = 559.3701 / pearPage.width;
const scaled = (p: Point): Point => ({ x: p.x * k, y: p.y * k });
const trueCubics = (part: string, i = 0): Cubic[] =>
  pearLines.filter((l) => l.part === part)[i].cubics.map((c) => c.map(scaled) as Cubic);

/** A copy of a demo drawing, for this test alone, opened on one of its sheets, which is seen alone. */
async function openCopy(
  page: Parameters<typeof BenchHand.open>[0],
  request: APIRequestContext,
  sheet: string,
  view = { scale: 1.1, x: 60, y: -280 },
) {
  const id = await demoDrawing(request, 'Pear');
  const copy = (await (await request.post(`/api/drawings/${id}/duplicate`)).json()) as { id: string };
  const hand = await BenchHand.open(page, copy.id, { view });
  await page.getByRole('button', { name: new RegExp(`^${sheet}`) }).click();
  await page.keyboard.press('Shift+s');
  await hand.ready();
  const before = new Set((await hand.lines()).map((l) => l.id));
  const made = async (): Promise<Line[]> => (await hand.lines()).filter((l) => !before.has(l.id));
  return { hand, made };
}
const furthest = (line: Line, truth: readonly Cubic[]): number =>
  Math.max(
    ...line.runs
      .flatMap(cubicsOf)
      .flatMap((c) => [0.1, 0.3, 0.5, 0.7, 0.9].map((t) => cubicAt(c, t)))
      .map((p) => Math.min(...truth.map((c) => nearestOnCubic(c, p).distance))),
  );

test('the pear by pen: straight first, then each segment bent onto the ink', async ({ page, request }) => {
  const { hand, made } = await openCopy(page, request, 'Speckles');
  const truth = trueCubics('Pear outline');
  await page.getByRole('button', { name: 'straight first' }).click();
  for (const c of truth) await hand.drag({ x: c[0].x + 6, y: c[0].y + 4 }, c[0]);
  await hand.click(truth[0][0]);
  let [line] = await made();
  expect(line.runs[0]).toMatchObject({ closed: true, nodes: { length: truth.length } });
  expect(line.runs[0].nodes.every((n) => !n.in && !n.out)).toBe(true);
  await page.keyboard.press('f');
  for (const c of truth) {
    const middle = { x: (c[0].x + c[3].x) / 2, y: (c[0].y + c[3].y) / 2 };
    await hand.drag(middle, cubicAt(c, 0.5));
  }
  [line] = await made();
  expect(line.runs[0].nodes.every((n) => n.in && n.out)).toBe(true);
  expect(furthest(line, truth)).toBeLessThan(7);
  // Every bend is one step back.
  for (const _ of truth) await page.keyboard.press('Control+z');
  [line] = await made();
  expect(line.runs[0].nodes.every((n) => !n.in && !n.out)).toBe(true);
});

test('a leaf vein by pencil, smoothed further afterwards; drawn over, that part is redrawn', async ({
  page,
  request,
}) => {
  const { hand, made } = await openCopy(page, request, 'Leaf veins', { scale: 3, x: -800, y: -400 });
  const vein = trueCubics('Leaf veins', 2);
  await page.keyboard.press('q');
  const places = vein.flatMap((c) => Array.from({ length: 30 }, (_, i) => cubicAt(c, i / 29)));
  const stroke = async (points: Point[]): Promise<void> => {
    await hand.move(points[0]);
    await page.mouse.down();
    for (const [i, p] of points.entries()) await hand.move({ x: p.x + 0.4 * Math.sin(i * 2.1), y: p.y }, 1);
    await page.mouse.up();
  };
  await stroke(places);
  await expect.poll(async () => (await made()).length).toBe(1);
  let [line] = await made();
  expect(line.runs[0].nodes.length).toBeLessThanOrEqual(5);
  expect(furthest(line, vein)).toBeLessThan(2);
  const undo = page.getByRole('button', { name: 'Undo' });
  const slider = page.getByRole('slider', { name: 'Smoothing' });
  await slider.focus();
  for (let i = 0; i < 12; i++) await page.keyboard.press('ArrowRight');
  await expect(page.getByText('Smooth this line')).toBeVisible();
  await expect(undo).toHaveAttribute('title', 'Undo: Smooth line');
  line = (await made())[0];
  expect(line.runs[0].nodes.length).toBeLessThanOrEqual(3);
  expect(furthest(line, vein)).toBeLessThan(9);

  // Over its middle, a little aside.
  const run = cubicsOf(line.runs[0]);
  const along = run.flatMap((c) => Array.from({ length: 30 }, (_, i) => cubicAt(c, i / 29)));
  const part = along.slice(Math.floor(along.length * 0.2), Math.ceil(along.length * 0.8));
  const bulge = part.map((p, i) => ({ y: p.y, x: p.x - 9 * Math.sin((Math.PI * i) / (part.length - 1)) ** 2 }));
  // The slider was the last to be touched, and has no letters of its own.
  await page.keyboard.press('b');
  await expect(page.getByRole('button', { name: 'bare lines' })).toHaveAttribute('aria-pressed', 'true');
  await page.keyboard.press('b');
  await page.keyboard.down('Alt');
  await stroke(bulge);
  await page.keyboard.up('Alt');
  await expect(undo).toHaveAttribute('title', 'Undo: Redraw');
  const redrawn = await made();
  expect(redrawn).toHaveLength(1);
  near(redrawn[0].runs[0].nodes[0].point, line.runs[0].nodes[0].point, 0.01);
  const top = bulge[Math.floor(bulge.length / 2)];
  expect(Math.min(...redrawn[0].runs.flatMap(cubicsOf).map((c) => nearestOnCubic(c, top).distance))).toBeLessThan(4);
});

test('a circle is pulled to fit, its figures typed, its nodes moved like any others', async ({ page, request }) => {
  const id = await makeDrawing(request);
  const hand = await BenchHand.open(page, id);
  await page.keyboard.press('Shift+A');
  await hand.move({ x: 300, y: 300 });
  await page.mouse.down();
  await page.keyboard.down('Alt');
  await page.keyboard.down('Shift');
  await hand.move({ x: 360, y: 340 }, 4);
  await page.mouse.up();
  await page.keyboard.up('Alt');
  await page.keyboard.up('Shift');
  let [line] = await hand.lines();
  for (const c of line.runs.flatMap(cubicsOf)) {
    const p = cubicAt(c, 0.3);
    expect(Math.hypot(p.x - 300, p.y - 300)).toBeCloseTo(60, 0);
  }
  await page.keyboard.press('d');
  await hand.drag({ x: 300, y: 240 }, { x: 300, y: 200 });
  [line] = await hand.lines();
  near(line.runs[0].nodes[0].point, { x: 300, y: 200 });

  await page.keyboard.press('Shift+A');
  await page.getByRole('combobox', { name: 'Kind of shape' }).click();
  await page.getByTitle('rectangle').click();
  await page.getByLabel('width of the shape').fill('2in');
  await page.getByLabel('width of the shape').press('Enter');
  await page.getByLabel('height of the shape').fill('96');
  await page.getByLabel('height of the shape').press('Enter');
  await hand.click({ x: 420, y: 100 });
  const box = (await hand.lines())[1].runs[0].nodes.map((n) => n.point);
  near(box[0], { x: 420, y: 100 });
  near(box[2], { x: 612, y: 196 });
  // A corner pulled inwards rounds all four.
  const inward = {
    x: box[0].x + (18 * Math.SQRT1_2) / hand.view.scale,
    y: box[0].y + (18 * Math.SQRT1_2) / hand.view.scale,
  };
  await hand.drag(inward, { x: box[0].x + 20, y: box[0].y + 20 });
  const radii = (await hand.lines())[1].runs[0].nodes.map((n) => Math.round(n.radius ?? 0));
  expect(radii).toEqual([20, 20, 20, 20]);
});

test('a line is continued from its start, joined to another, and copied to another drawing', async ({
  page,
  request,
}) => {
  const id = await makeDrawing(request, 'First');
  const other = await makeDrawing(request, 'Second');
  const hand = await BenchHand.open(page, id);
  const draw = async (...places: [number, number][]): Promise<void> => {
    for (const [x, y] of places) await hand.click({ x, y });
    await page.keyboard.press('Enter');
  };
  await draw([200, 200], [300, 200]);
  await draw([200, 400], [300, 400]);
  // From the first one's start, by way of a node, onto the second one's start.
  await hand.move({ x: 201, y: 201 });
  await expect(page.locator('.hints')).toContainText('draw that line on instead');
  await page.keyboard.down('Alt');
  await expect(page.locator('.hints')).toContainText('draw on from this end');
  await hand.click({ x: 201, y: 201 });
  await page.keyboard.up('Alt');
  await hand.click({ x: 120, y: 300 });
  await hand.move({ x: 200, y: 400 });
  await page.keyboard.down('Alt');
  await expect(page.locator('.hints')).toContainText('join the two lines');
  await hand.click({ x: 200, y: 400 });
  await page.keyboard.up('Alt');
  const joined = await hand.nodes();
  expect(joined.map((n) => [Math.round(n.point.x), Math.round(n.point.y)])).toEqual([
    [300, 400],
    [200, 400],
    [120, 300],
    [200, 200],
    [300, 200],
  ]);

  await page.keyboard.press('s');
  await page.keyboard.press('Control+a');
  await page.keyboard.press('Control+c');
  const there = await BenchHand.open(page, other);
  await page.keyboard.press('Control+Shift+V');
  const pasted = await there.nodes();
  expect(pasted).toEqual(joined);
  await there.move({ x: 500, y: 120 });
  await page.keyboard.press('Control+v');
  const both = await there.lines();
  expect(both).toHaveLength(2);
  const xs = both[1].runs[0].nodes.map((n) => n.point.x);
  expect((Math.min(...xs) + Math.max(...xs)) / 2).toBeCloseTo(500, 0);
  await page.keyboard.press('Control+x');
  expect(await there.lines()).toHaveLength(1);
});

test('the pen follows the ink of the scan, a press takes the curve, Escape makes it plain again', async ({
  page,
  request,
}) => {
  const { hand, made } = await openCopy(page, request, 'Speckles');
  const truth = trueCubics('Pear outline');
  await page.keyboard.press('Shift+f');
  await expect(page.locator('.hints')).not.toContainText('a moment', { timeout: 30_000 });
  const way = truth.slice(0, 2).flatMap((c) => Array.from({ length: 12 }, (_, i) => cubicAt(c, i / 11)));
  await hand.click(way[0]);
  for (const p of way) await hand.move(p, 2);
  await expect(page.locator('.hints')).toContainText('take the curve along the ink');
  await page.mouse.down();
  await page.mouse.up();
  await expect(page.getByRole('button', { name: 'Undo' })).toHaveAttribute('title', 'Undo: Follow the ink');
  const [line] = await made();
  expect(line.runs[0].nodes.length).toBeLessThan(9);
  expect(line.runs[0].nodes.length).toBeGreaterThan(2);
  expect(furthest(line, truth)).toBeLessThan(1);
  near(line.runs[0].nodes.at(-1)!.point, way.at(-1)!, 4);
  await page.keyboard.press('Escape');
  await expect(page.getByRole('button', { name: 'follow', exact: true })).toHaveAttribute('aria-pressed', 'false');
  await hand.click({ x: 200, y: 600 });
  expect((await made())[0].runs[0].nodes).toHaveLength(line.runs[0].nodes.length + 1);
});
