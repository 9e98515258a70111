import { expect, test, type Page } from '@playwright/test';
import { linesOf } from '../src/core/drawing/items';
import { nearestOnLine } from '../src/core/drawing/run';
import type { Point } from '../src/core';
import { BenchHand, demoCopy, drawingWith, levelLine, makeDrawing } from './bench';

/** Nothing happens that was not meant: keys, choices and views that stay what they are until they are to change. */

const open = async (page: Page, tool = 'pen', stage = 'trace'): Promise<BenchHand> =>
  BenchHand.open(page, await makeDrawing(page.request), { tool, stage, view: { scale: 1, x: 20, y: 10 } });
const withLines = async (page: Page, tool: string, stage: string, ys = [100, 300]): Promise<BenchHand> =>
  BenchHand.open(
    page,
    await drawingWith(
      page.request,
      ys.map((y, i) => levelLine(`l${i}`, y)),
    ),
    {
      tool,
      stage,
      view: { scale: 1, x: 20, y: 10 },
    },
  );
const isTool = (page: Page, name: string) =>
  expect(
    page
      .getByRole('radio', { name, exact: true })
      .or(page.getByRole('button', { name, exact: true }))
      .first(),
  ).toBeVisible();

test('what was held counts to the end of the gesture, though the keys go first', async ({ page }) => {
  const hand = await open(page);
  await hand.click({ x: 100, y: 300 });
  await hand.move({ x: 300, y: 300 });
  await page.mouse.down();
  await hand.move({ x: 360, y: 260 }, 4);
  await page.keyboard.down('Alt');
  await hand.move({ x: 340, y: 380 }, 4);
  await page.keyboard.up('Alt');
  await page.mouse.up();
  const [, node] = await hand.nodes();
  expect(node.kind).toBe('corner');
  expect(Math.round(node.out!.y)).toBe(80);
  // Before a press nothing is held that is not held: plain again at once.
  await page.keyboard.press('Backspace');
  await page.keyboard.down('Shift');
  await hand.move({ x: 300, y: 306 });
  await page.keyboard.up('Shift');
  await page.mouse.down();
  await page.mouse.up();
  expect((await hand.nodes())[1].point.y).toBeCloseTo(306, 6);
});

test('Ctrl Enter ends a line as Enter does, and keeps it', async ({ page }) => {
  const hand = await open(page);
  for (const p of [
    { x: 100, y: 100 },
    { x: 200, y: 120 },
  ])
    await hand.click(p);
  await page.keyboard.press('Control+Enter');
  for (const p of [
    { x: 300, y: 300 },
    { x: 400, y: 320 },
  ])
    await hand.click(p);
  await page.keyboard.press('Control+Enter');
  expect((await hand.lines()).map((l) => l.runs[0].nodes.length)).toEqual([2, 2]);
});

test('twelve strokes of hatching 2 px apart are twelve lines; a stroke with Alt that strays by 30 px redraws', async ({
  page,
}) => {
  const hand = await open(page, 'pencil');
  const stroke = async (places: Point[]): Promise<void> => {
    await hand.move(places[0]);
    await page.mouse.down();
    for (const p of places) await hand.move(p, 2);
    await page.mouse.up();
  };
  for (let k = 0; k < 12; k++) {
    const places = Array.from({ length: 6 }, (_, i) => ({ x: 200 + 25 * i, y: 200 + 2 * k + 4 * i }));
    await stroke(k % 2 ? places.toReversed() : places);
  }
  await expect.poll(async () => (await hand.lines()).length).toBe(12);
  expect((await hand.lines()).every((l) => !l.runs[0].closed)).toBe(true);
  for (let i = 0; i < 11; i++) await page.keyboard.press('Control+z');
  await expect.poll(async () => (await hand.lines()).length).toBe(1);
  await page.keyboard.press('Control+a');
  await page.keyboard.press('q');
  await page.keyboard.down('Alt');
  await stroke([
    { x: 214, y: 202 },
    { x: 240, y: 222 },
    { x: 265, y: 238 },
    { x: 290, y: 230 },
    { x: 312, y: 216 },
  ]);
  await page.keyboard.up('Alt');
  const middle = { x: 265, y: 238 };
  const away = async () => Math.min(...(await hand.lines()).map((l) => nearestOnLine(l, middle)!.distance));
  await expect.poll(away).toBeLessThan(4);
  const [line, ...others] = await hand.lines();
  expect([others.length, line.runs[0].closed]).toEqual([0, false]);
});

test('the figures of a shape are those of the shape just drawn; another kind or place begins anew', async ({
  page,
}) => {
  const hand = await open(page, 'shape');
  await page.getByLabel('Kind of shape').click();
  await page.getByText('rectangle', { exact: true }).last().click();
  await hand.drag({ x: 100, y: 100 }, { x: 300, y: 200 });
  const width = page.getByLabel('width of the shape');
  await expect(width).toHaveValue(/^200/);
  await width.fill('260');
  await width.press('Enter');
  const box = async (i: number) => {
    const nodes = (await hand.lines())[i].runs[0].nodes.map((n) => n.point);
    const [xs, ys] = [nodes.map((p) => p.x), nodes.map((p) => p.y)];
    return [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)].map(Math.round);
  };
  await expect.poll(() => box(0)).toEqual([100, 100, 360, 200]);
  const rounding = page.getByLabel('rounding of the shape');
  await rounding.fill('12');
  await rounding.press('Enter');
  await expect.poll(async () => (await hand.lines())[0].runs[0].nodes[0].radius).toBe(12);
  expect(await hand.lines()).toHaveLength(1);
  // A press of undo each.
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await hand.lines())[0].runs[0].nodes[0].radius ?? 0).toBe(0);
  await page.keyboard.press('Control+z');
  await expect.poll(() => box(0)).toEqual([100, 100, 300, 200]);
  // Let go of, it stays as it is.
  await page.keyboard.press('Escape');
  await width.fill('120');
  await width.press('Enter');
  await hand.click({ x: 500, y: 300 });
  await expect.poll(async () => (await hand.lines()).length).toBe(2);
  expect(await box(0)).toEqual([100, 100, 300, 200]);
  expect((await box(1))[2] - (await box(1))[0]).toBe(120);
});

test('keys go on working after a slider was touched; arrows are the slider’s own', async ({ page }) => {
  const hand = await withLines(page, 'select', 'trace');
  await hand.click({ x: 300, y: 100 });
  await page.keyboard.press('Delete');
  await expect.poll(async () => (await hand.lines()).length).toBe(1);
  await page.keyboard.press('q');
  const slider = page.getByRole('slider').first();
  const at = (await slider.boundingBox())!;
  await page.mouse.click(at.x + 2, at.y + 5);
  await slider.focus();
  const before = await slider.getAttribute('aria-valuenow');
  await page.keyboard.press('ArrowRight');
  await expect(slider).not.toHaveAttribute('aria-valuenow', before!);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await hand.lines()).length).toBe(2);
  await page.keyboard.press('a');
  await hand.click({ x: 100, y: 500 });
  await hand.click({ x: 200, y: 500 });
  await page.keyboard.press('Enter');
  await expect.poll(async () => (await hand.lines()).length).toBe(3);
});

for (const [tool, name] of [
  ['settle', 'Settle'],
  ['thin', 'Thin out'],
  ['readWidths', 'Read widths'],
] as const)
  test(`${name}: Ctrl A chooses all lines and stays in it`, async ({ page }) => {
    await withLines(page, tool, tool === 'readWidths' ? 'ink' : 'refine');
    await page.keyboard.press('Control+a');
    await expect(page.locator('.hints')).toContainText('leave it as it was');
    await isTool(page, name);
    await expect(page.locator('.cards h2')).toContainText(/Lines|2/);
  });

test('Escape closes the plan of the parts, and leaves side by side', async ({ page }) => {
  await withLines(page, 'select', 'trace');
  await page.getByRole('button', { name: 'Plan the parts' }).click();
  const dialog = page.getByRole('dialog', { name: 'Plan the parts' });
  await expect(dialog).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(dialog).toBeHidden();
  await page.getByRole('button', { name: 'Compare' }).click();
  await page.getByRole('menuitem', { name: 'side by side' }).click();
  await expect(page.getByRole('button', { name: 'Compare' })).toHaveClass(/primary/);
  await page.keyboard.press('Escape');
  await expect(page.getByRole('button', { name: 'Compare' })).not.toHaveClass(/primary/);
});

test('visiting a note with Select in hand leaves the notes and the figures where they are', async ({ page }) => {
  const id = await demoCopy(page.request, 'Pear');
  const hand = await BenchHand.open(page, id, { tool: 'select', stage: 'refine' });
  const line = linesOf((await hand.saved()).sheets.at(-1)!)[0] ?? (await hand.lines())[0];
  await hand.click(line.runs[0].nodes[1].point);
  await expect(page.locator('.hints')).toContainText('Delete');
  const notes = page.getByRole('group', { name: 'Notes', exact: true });
  await expect(notes).toBeVisible();
  await expect(page.getByRole('group', { name: 'Distance from the ink' })).toBeVisible();
});

test('Enter in the list of lines chooses, and nothing breaks', async ({ page }) => {
  const errors: string[] = [];
  page.on('pageerror', (e) => errors.push(e.message));
  await withLines(page, 'select', 'trace');
  await page.locator('.lines-list [role="tree"]').focus();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await expect(page.locator('.lines-list .ant-tree-node-selected')).toHaveCount(1);
  expect(errors).toEqual([]);
});

test('the pill about lifting lifts while it is pressed, and lays nothing beneath', async ({ page }) => {
  const hand = await BenchHand.open(page, await demoCopy(page.request, 'Pear'));
  const before = await hand.lines();
  const key = (await page.getByRole('button', { name: 'Lift the reference away' }).boundingBox())!;
  await page.mouse.move(key.x + key.width / 2, key.y + key.height / 2);
  await page.mouse.down();
  await expect(page.locator('.pill.peek')).toContainText('the reference is lifted away');
  await page.mouse.up();
  await expect(page.locator('.pill.peek')).toContainText('to lift the reference away');
  expect(await hand.lines()).toEqual(before);
});
