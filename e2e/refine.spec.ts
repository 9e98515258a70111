import { expect, test } from '@playwright/test';
import { firstStyle, type Line } from '../src/core';
import { BenchHand, drawingWith, near } from './bench';

const corner = (x: number, y: number) => ({ point: { x, y }, in: null, out: null, kind: 'corner' as const });
const zigzag = (id: string, y: number): Line => ({
  id,
  style: firstStyle,
  runs: [{ closed: false, nodes: [corner(100, y), corner(200, y + 60), corner(300, y), corner(400, y + 60)] }],
});

let hand: BenchHand;
test.beforeEach(async ({ page, request }) => {
  const id = await drawingWith(
    request,
    ['a', 'b', 'c'].map((name, i) => zigzag(name, 60 + i * 150)),
  );
  hand = await BenchHand.open(page, id, { stage: 'refine', tool: 'nodes' });
});

const line = async (id: string): Promise<Line> => (await hand.lines()).find((l) => l.id === id)!;

test('nodes: chosen by click, Shift and box; moved together; nudged', async ({ page }) => {
  await hand.click({ x: 150, y: 90 });
  await hand.drag({ x: 200, y: 120 }, { x: 230, y: 150 });
  near((await line('a')).runs[0].nodes[1].point, { x: 230, y: 150 });
  await page.keyboard.down('Shift');
  await hand.click({ x: 300, y: 60 });
  await page.keyboard.up('Shift');
  await hand.drag({ x: 300, y: 60 }, { x: 300, y: 50 });
  const { nodes } = (await line('a')).runs[0];
  near(nodes[1].point, { x: 230, y: 140 });
  near(nodes[2].point, { x: 300, y: 50 });
  await hand.drag({ x: 90, y: 40 }, { x: 320, y: 150 });
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Shift+ArrowDown');
  const after = (await line('a')).runs[0].nodes;
  near(after[0].point, { x: 101, y: 70 }, 0.01);
  near(after[2].point, { x: nodes[2].point.x + 1, y: nodes[2].point.y + 10 }, 0.01);
  expect(after[3]).toEqual(nodes[3]);
});

test('kinds, beads and Alt; removing keeps the line whole; undo and redo go all the way', async ({ page }) => {
  const before = await line('a');
  await hand.click({ x: 150, y: 90 });
  await hand.click({ x: 200, y: 120 });
  await page.getByRole('button', { name: 'smooth' }).click();
  const smooth = (await line('a')).runs[0].nodes[1];
  expect(smooth.kind).toBe('smooth');
  const bead = { x: smooth.point.x + smooth.out!.x, y: smooth.point.y + smooth.out!.y };
  await hand.drag(bead, { x: bead.x, y: bead.y + 40 });
  const turned = (await line('a')).runs[0].nodes[1];
  near(turned.out, { x: smooth.out!.x, y: smooth.out!.y + 40 });
  expect(turned.in!.x * turned.out!.y - turned.in!.y * turned.out!.x).toBeCloseTo(0, 4);
  await page.keyboard.down('Alt');
  await hand.drag({ x: bead.x, y: bead.y + 40 }, { x: bead.x + 20, y: bead.y - 30 });
  await page.keyboard.up('Alt');
  const freed = (await line('a')).runs[0].nodes[1];
  expect([freed.kind, freed.in]).toEqual(['corner', turned.in]);
  await page.keyboard.press('Delete');
  expect((await line('a')).runs[0].nodes).toHaveLength(3);
  for (let i = 0; i < 4; i++) await page.keyboard.press('Control+z');
  expect(await line('a')).toEqual(before);
  for (let i = 0; i < 4; i++) await page.keyboard.press('Control+Shift+z');
  expect((await line('a')).runs[0].nodes).toHaveLength(3);
});

test('a drag that is called off with Escape leaves no trace, not even an undo step', async ({ page }) => {
  const before = await hand.saved();
  await hand.click({ x: 150, y: 90 });
  await hand.move({ x: 200, y: 120 });
  await page.mouse.down();
  await hand.move({ x: 260, y: 190 });
  await page.keyboard.press('Escape');
  await page.mouse.up();
  expect(await hand.saved()).toEqual(before);
  // The last that can be undone is from before the drawing was opened.
  await expect(page.getByRole('button', { name: 'Undo' })).toHaveAttribute('title', 'Undo: Draw line');
});

test('N adds a node where the pointer is', async ({ page }) => {
  await hand.move({ x: 250, y: 91 });
  await page.keyboard.press('n');
  const { nodes } = (await line('a')).runs[0];
  expect(nodes).toHaveLength(5);
  near(nodes[2].point, { x: 250, y: 90 }, 1.5);
});

test('select: many lines by a box, moved, styled at once, deleted, and all of it taken back', async ({ page }) => {
  const before = await hand.saved();
  await page.keyboard.press('s');
  await hand.drag({ x: 60, y: 40 }, { x: 150, y: 290 });
  await hand.drag({ x: 250, y: 90 }, { x: 270, y: 110 });
  expect((await hand.lines()).map((l) => Math.round(l.runs[0].nodes[0].point.x))).toEqual([120, 120, 100]);
  const width = page.getByRole('textbox', { name: 'Stroke width' });
  await width.fill('1mm + 3pt');
  await width.press('Enter');
  const widths = (await hand.lines()).map((l) => l.style.width);
  expect(widths[0]).toBeCloseTo(96 / 25.4 + 4, 3);
  expect([widths[1] === widths[0], widths[2]]).toEqual([true, firstStyle.width]);
  await width.blur();
  await hand.click({ x: 20, y: 500 });
  await hand.click({ x: 350, y: 390 });
  await page.keyboard.press('Delete');
  expect((await hand.lines()).map((l) => l.id)).toEqual(['a', 'b']);
  for (let i = 0; i < 3; i++) await page.keyboard.press('Control+z');
  expect(await hand.saved()).toEqual(before);
});

test('a width that makes no sense is refused where it was typed', async ({ page }) => {
  await page.keyboard.press('s');
  await hand.click({ x: 250, y: 90 });
  const width = page.getByRole('textbox', { name: 'Stroke width' });
  await width.fill('two fingers');
  await width.press('Enter');
  await expect(width).toHaveAttribute('aria-invalid', 'true');
  await width.press('Escape');
  await expect(width).toHaveValue('2');
  await expect(width).toHaveAttribute('aria-invalid', 'false');
  await width.fill('9');
  await width.press('Escape');
  await expect(width).toHaveValue('2');
  // The last that can be undone is from before the drawing was opened.
  await expect(page.getByRole('button', { name: 'Undo' })).toHaveAttribute('title', 'Undo: Draw line');
});
