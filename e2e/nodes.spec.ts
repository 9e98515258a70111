import { linesOf } from '../src/core/drawing/items';
import { expect, test, type Page } from '@playwright/test';
import { firstStyle, type Line, type Node, type Point } from '../src/core';
import { cubicsOf, lineLength } from '../src/core/drawing/run';
import { distanceToCurves, walk } from '../src/core/test/strokes';
import { BenchHand, drawingWith, near } from './bench';

const corner = (x: number, y: number): Node => ({ point: { x, y }, in: null, out: null, kind: 'corner' });
const smooth = (x: number, y: number, dx: number, dy: number): Node => ({
  point: { x, y },
  in: { x: -dx, y: -dy },
  out: { x: dx, y: dy },
  kind: 'smooth',
});
const lineOf = (id: string, nodes: Node[], closed = false): Line => ({
  id,
  style: firstStyle,
  runs: [{ closed, nodes }],
});

let hand: BenchHand;
const open = async (page: Page, lines: Line[]): Promise<void> => {
  hand = await BenchHand.open(page, await drawingWith(page.request, lines), { stage: 'refine', tool: 'nodes' });
};
const line = async (id: string): Promise<Line> => (await hand.lines()).find((l) => l.id === id)!;
const nodesOf = async (id: string): Promise<readonly Node[]> => (await line(id)).runs[0].nodes;
const press = (page: Page, name: string) => page.getByRole('button', { name, exact: true }).click();

/** Holds a modifier, or Space, while a bead is dragged. */
async function dragHolding(page: Page, key: string, from: Point, to: Point): Promise<void> {
  await hand.move(from);
  await page.mouse.down();
  await page.keyboard.down(key);
  await hand.move(to, 6);
  await page.mouse.up();
  await page.keyboard.up(key);
}

const wave = (id: string, y: number): Line =>
  lineOf(id, [
    { point: { x: 80, y }, in: null, out: { x: 40, y: -60 }, kind: 'corner' },
    smooth(240, y, 50, 40),
    smooth(400, y, 50, -40),
    { point: { x: 560, y }, in: { x: -40, y: -60 }, out: null, kind: 'corner' },
  ]);

test('a bead is lengthened with Ctrl, turned with Space, and dropped and given back by a double-click', async ({
  page,
}) => {
  await open(page, [wave('w', 200)]);
  await hand.click({ x: 240, y: 200 });
  await hand.click({ x: 240, y: 200 });
  await dragHolding(page, 'Control', { x: 290, y: 240 }, { x: 330, y: 240 });
  const longer = (await nodesOf('w'))[1];
  expect(longer.out!.x / longer.out!.y).toBeCloseTo(50 / 40, 4);
  expect(Math.hypot(longer.out!.x, longer.out!.y)).toBeGreaterThan(70);
  const bead = { x: 240 + longer.out!.x, y: 200 + longer.out!.y };
  await dragHolding(page, 'Space', bead, { x: bead.x, y: bead.y - 90 });
  const turned = (await nodesOf('w'))[1];
  expect(Math.hypot(turned.out!.x, turned.out!.y)).toBeCloseTo(Math.hypot(longer.out!.x, longer.out!.y), 4);
  expect(turned.out!.y).toBeLessThan(longer.out!.y);
  const at = hand.at({ x: 240 + turned.out!.x, y: 200 + turned.out!.y });
  await page.mouse.dblclick(at.x, at.y);
  expect((await nodesOf('w'))[1].out).toBeNull();
  const node = hand.at({ x: 400, y: 200 });
  await page.mouse.dblclick(node.x, node.y);
  expect((await nodesOf('w'))[2]).toMatchObject({ in: null, out: null, kind: 'corner' });
  await page.waitForTimeout(400);
  await page.mouse.dblclick(node.x, node.y);
  expect((await nodesOf('w'))[2].out).not.toBeNull();
});

test('nodes are added by number, removed with the shape kept or plainly, straightened, cut', async ({ page }) => {
  await open(page, [wave('w', 200)]);
  const before = cubicsOf((await line('w')).runs[0]);
  await hand.click({ x: 240, y: 200 });
  await page.getByRole('textbox', { name: 'How many nodes on each segment' }).fill('2');
  await page.getByRole('textbox', { name: 'How many nodes on each segment' }).press('Enter');
  await press(page, 'add to each');
  expect(await nodesOf('w')).toHaveLength(10);
  for (const p of walk(cubicsOf((await line('w')).runs[0]), 6)) expect(distanceToCurves(before, p)).toBeLessThan(0.01);
  await page.keyboard.press('Control+z');
  await hand.click({ x: 240, y: 200 });
  await page.keyboard.press('Delete');
  expect(await nodesOf('w')).toHaveLength(3);
  expect((await nodesOf('w'))[0].out).not.toEqual({ x: 40, y: -60 });
  await page.keyboard.press('Control+z');
  await hand.click({ x: 240, y: 200 });
  await page.keyboard.press('Shift+Delete');
  expect((await nodesOf('w'))[0].out).toEqual({ x: 40, y: -60 });
  await page.keyboard.press('Control+z');
  await hand.click({ x: 240, y: 200 });
  await page.keyboard.down('Shift');
  await hand.click({ x: 400, y: 200 });
  await page.keyboard.up('Shift');
  await press(page, 'straighten');
  const straight = await nodesOf('w');
  expect([straight[1].out, straight[2].in]).toEqual([null, null]);
  await page.keyboard.press('f');
  await hand.drag({ x: 320, y: 200 }, { x: 320, y: 150 });
  expect((await nodesOf('w'))[1].out).not.toBeNull();
  await page.keyboard.press('d');
  await hand.click({ x: 240, y: 200 });
  await press(page, 'cut');
  expect((await hand.lines()).map((l) => l.runs[0].nodes.length)).toEqual([2, 3]);
  await hand.move({ x: 480, y: 170 });
  await page.keyboard.press('Shift+n');
  expect(await hand.lines()).toHaveLength(3);
});

test('ends are joined, led to the line they should meet, and cut back to it', async ({ page }) => {
  await open(page, [
    lineOf('wall', [corner(400, 60), corner(400, 400)]),
    lineOf('short', [corner(100, 120), corner(360, 120)]),
    lineOf('long', [corner(100, 220), corner(440, 220)]),
    lineOf('a', [corner(100, 320), corner(200, 320)]),
    lineOf('b', [corner(260, 320), corner(340, 340)]),
  ]);
  const meet = async (p: Point): Promise<void> => {
    await hand.click({ x: 180, y: p.y });
    await hand.click(p);
    await press(page, 'meet line');
  };
  await meet({ x: 360, y: 120 });
  near((await nodesOf('short'))[1].point, { x: 400, y: 120 }, 1e-3);
  await meet({ x: 440, y: 220 });
  near((await nodesOf('long'))[1].point, { x: 400, y: 220 }, 1e-3);
  await hand.click({ x: 150, y: 320 });
  await page.keyboard.down('Shift');
  await hand.click({ x: 300, y: 330 });
  await page.keyboard.up('Shift');
  await page.keyboard.press('r');
  expect((await nodesOf('a')).map((n) => n.point.x)).toEqual([100, 200, 260, 340]);
  await page.keyboard.press('Control+z');
  await hand.click({ x: 150, y: 320 });
  await page.keyboard.down('Shift');
  await hand.click({ x: 300, y: 330 });
  await hand.click({ x: 200, y: 320 });
  await hand.click({ x: 260, y: 320 });
  await page.keyboard.up('Shift');
  await press(page, 'merge');
  expect((await nodesOf('a')).map((n) => n.point.x)).toEqual([100, 230, 340]);
});

test('a line is reversed, a ring begins elsewhere; nodes are aligned, spread, averaged, turned and scaled', async ({
  page,
}) => {
  await open(page, [lineOf('r', [corner(100, 100), corner(220, 120), corner(330, 260), corner(120, 240)], true)]);
  await hand.click({ x: 160, y: 110 });
  await press(page, 'reverse');
  expect((await nodesOf('r'))[0].point).toEqual({ x: 120, y: 240 });
  await page.keyboard.press('Control+z');
  await hand.click({ x: 330, y: 260 });
  await press(page, 'start here');
  expect((await nodesOf('r'))[0].point).toEqual({ x: 330, y: 260 });
  await page.keyboard.press('Control+z');
  await hand.click({ x: 100, y: 100 });
  await page.keyboard.down('Shift');
  await hand.click({ x: 220, y: 120 });
  await hand.click({ x: 330, y: 260 });
  await page.keyboard.up('Shift');
  await press(page, 'spread across');
  expect((await nodesOf('r')).slice(0, 3).map((n) => n.point.x)).toEqual([100, 215, 330]);
  await page.getByRole('button', { name: 'align…' }).click();
  await page.getByText('to the highest').click();
  expect((await nodesOf('r')).slice(0, 3).map((n) => n.point.y)).toEqual([100, 100, 100]);
  await page
    .getByRole('button', { name: 'Turn the nodes and their handles' })
    .or(page.getByTitle('Turn the nodes and their handles'))
    .first()
    .click();
  const turned = await nodesOf('r');
  expect(Math.atan2(turned[2].point.y - turned[0].point.y, turned[2].point.x - turned[0].point.x)).toBeCloseTo(
    (15 * Math.PI) / 180,
    5,
  );
  await page.getByTitle('Scale the nodes and their handles').click();
  const scaled = await nodesOf('r');
  expect(Math.hypot(scaled[2].point.x - scaled[0].point.x, scaled[2].point.y - scaled[0].point.y)).toBeCloseTo(253, 3);
  await press(page, 'to their middle');
  const [a, b, c] = await nodesOf('r');
  expect(a.point).toEqual(b.point);
  expect(b.point).toEqual(c.point);
});

test('chosen corners are rounded by their grip and by figures, and sharp again', async ({ page }) => {
  await open(page, [lineOf('s', [corner(100, 100), corner(300, 100), corner(300, 300), corner(100, 300)], true)]);
  await hand.click({ x: 200, y: 100 });
  await hand.click({ x: 300, y: 100 });
  await hand.drag({ x: 300 - 16, y: 100 + 16 }, { x: 260, y: 140 });
  const rounded = (await nodesOf('s')).map((n) => n.radius ?? 0);
  expect(rounded[1]).toBeCloseTo(40, 0);
  expect([rounded[0], rounded[2]]).toEqual([0, 0]);
  const field = page.getByRole('textbox', { name: 'Radius of the corners' });
  await field.fill('25');
  await field.press('Enter');
  expect((await nodesOf('s'))[1].radius).toBe(25);
  await field.fill('0');
  await field.press('Enter');
  expect((await nodesOf('s'))[1].radius).toBeUndefined();
});

test('sway carries neighbours along, the nearer the more; what is shown can be chosen', async ({ page }) => {
  const row = Array.from({ length: 7 }, (_, i) => corner(100 + i * 60, 200));
  await open(page, [lineOf('l', row)]);
  await hand.click({ x: 130, y: 200 });
  await page.getByRole('button', { name: 'sway' }).click();
  await hand.drag({ x: 280, y: 200 }, { x: 280, y: 260 });
  const by = (await nodesOf('l')).map((n) => Math.round(n.point.y - 200));
  expect(by[3]).toBe(60);
  expect([by[2], by[4]]).toEqual([30, 30]);
  expect([by[0], by[1], by[5], by[6]]).toEqual([0, 0, 0, 0]);
  await page.getByRole('button', { name: 'sway' }).click();
  const dark = async (): Promise<number> => (await hand.colourAt({ x: 280, y: 260 })).reduce((a, b) => a + b);
  const shown = await dark();
  await page.getByRole('button', { name: 'nodes', exact: true }).click();
  await page.getByRole('button', { name: 'skeleton' }).click();
  await hand.move({ x: 600, y: 500 });
  expect(await dark()).not.toBe(shown);
  await page.getByRole('button', { name: 'nodes', exact: true }).click();
  await page.getByRole('button', { name: 'skeleton' }).click();
});

test('thin out: fewer nodes and the same shape, tried first, in one step', async ({ page }) => {
  const arc = Array.from({ length: 25 }, (_, i): Node => {
    const a = Math.PI + (i / 24) * Math.PI;
    const [s, c] = [Math.sin(a) * 8.6, Math.cos(a) * 8.6];
    return smooth(300 + 200 * Math.cos(a), 320 + 200 * Math.sin(a), -s, c);
  });
  arc[0] = { ...arc[0], in: null, kind: 'corner' };
  arc[24] = { ...arc[24], out: null, kind: 'corner' };
  await open(page, [lineOf('arc', arc)]);
  const before = await hand.saved();
  await page.keyboard.press('e');
  await hand.click({ x: 300, y: 120 });
  await expect(page.locator('.trial')).toHaveText(/25 nodes → [2-6]$/);
  expect(await hand.saved()).toEqual(before);
  await page.keyboard.press('Enter');
  const thin = await line('arc');
  expect(thin.runs[0].nodes.length).toBeLessThan(7);
  const was = cubicsOf(linesOf(before.sheets[0])[0].runs[0]);
  for (const p of walk(cubicsOf(thin.runs[0]), 5)) expect(distanceToCurves(was, p)).toBeLessThan(0.51);
  expect(Math.abs(lineLength(thin) - lineLength(linesOf(before.sheets[0])[0]))).toBeLessThan(3);
  await page.keyboard.press('Control+z');
  expect(await hand.saved()).toEqual(before);
});
