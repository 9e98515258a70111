import { linesOf } from '../src/core/drawing/items';
import { expect, test, type Page } from '@playwright/test';
import sharp from 'sharp';
import { firstStyle, type Line, type Node, type Point } from '../src/core';
import { BenchHand, drawingWith, measuredPear } from './bench';

const smooth = (x: number, y: number, into: Point | null, out: Point | null): Node => ({
  point: { x, y },
  in: into,
  out,
  kind: 'smooth',
});
const lineOf = (id: string, nodes: Node[], width = firstStyle.width): Line => ({
  id,
  style: { ...firstStyle, width },
  runs: [{ closed: false, nodes }],
});

/** What is seen around a place, as the pixels of a square. */
async function around(hand: BenchHand, page: Page, p: Point, side = 80): Promise<Buffer> {
  const { x, y } = hand.at(p);
  const clip = { x: Math.round(x - side / 2), y: Math.round(y - side / 2), width: side, height: side };
  return sharp(await page.screenshot({ clip }))
    .raw()
    .toBuffer();
}
const differing = (a: Buffer, b: Buffer): number => a.reduce((n, v, i) => n + (Math.abs(v - b[i]) > 24 ? 1 : 0), 0);

test('how lines bend and how they flow are shown for the chosen line, and no longer', async ({ page }) => {
  // Round at its middle node, which bends far more sharply on the one side than on the other.
  const line = lineOf('l', [
    smooth(120, 400, null, { x: 60, y: -180 }),
    smooth(380, 250, { x: -90, y: 0 }, { x: 12, y: 0 }),
    smooth(640, 400, { x: -60, y: -180 }, null),
  ]);
  const hand = await BenchHand.open(page, await drawingWith(page.request, [line]), { stage: 'refine', tool: 'nodes' });
  await hand.click({ x: 380, y: 250 });
  await hand.move({ x: 60, y: 560 });
  const peak = { x: 280, y: 230 };
  const joint = { x: 380, y: 250 };
  const [bare, bareJoint] = [await around(hand, page, peak), await around(hand, page, joint)];
  await page.keyboard.press('Shift+3');
  await expect.poll(async () => differing(bare, await around(hand, page, peak))).toBeGreaterThan(200);
  await page.keyboard.press('Shift+3');
  await expect.poll(async () => differing(bare, await around(hand, page, peak))).toBe(0);
  await page.keyboard.press('Shift+4');
  await expect.poll(async () => differing(bareJoint, await around(hand, page, joint))).toBeGreaterThan(60);
  await page.keyboard.press('Shift+4');
  await expect.poll(async () => differing(bareJoint, await around(hand, page, joint))).toBe(0);
});

test('blink shows the lines, then not, then again; side by side has them on the left alone', async ({ page }) => {
  const line = lineOf('l', [smooth(100, 300, null, null), smooth(700, 300, null, null)], 20);
  const hand = await BenchHand.open(page, await drawingWith(page.request, [line]), {
    stage: 'refine',
    tool: 'select',
    view: { scale: 0.8, x: 60, y: 20 },
  });
  const isDark = async (p: Point): Promise<boolean> => (await hand.colourAt(p))[0] < 120;
  const choose = async (way: string): Promise<void> => {
    await page.getByRole('button', { name: 'Compare' }).click();
    await page.getByRole('menuitem', { name: way }).click();
  };
  await choose('blink');
  for (const seen of [false, true, false])
    await expect.poll(() => isDark({ x: 300, y: 300 }), { intervals: [60], timeout: 6_000 }).toBe(seen);
  await choose('side by side');
  await expect.poll(() => isDark({ x: 200, y: 300 })).toBe(true);
  const box = (await page.getByTestId('page').boundingBox())!;
  const right = { x: (box.width * 0.75 - hand.view.x) / hand.view.scale, y: 300 };
  expect(await isDark(right)).toBe(false);
  await choose('each in its place');
  await expect.poll(() => isDark({ x: 200, y: 300 })).toBe(true);
});

test('thinning out puts nodes at extremes where that is wished', async ({ page }) => {
  // An arch of many nodes, none of them at its top.
  const arch = Array.from({ length: 22 }, (_, i): Node => {
    const a = Math.PI + ((i + 0.5) / 22) * Math.PI;
    const [s, c] = [-Math.sin(a) * 9.4, Math.cos(a) * 9.4];
    const out = { x: s, y: c };
    return smooth(300 + 200 * Math.cos(a), 320 + 200 * Math.sin(a), { x: -out.x, y: -out.y }, out);
  });
  const hand = await BenchHand.open(page, await drawingWith(page.request, [lineOf('arch', arch)]), {
    stage: 'refine',
    tool: 'nodes',
  });
  await page.keyboard.press('e');
  await page.getByRole('button', { name: 'nodes at extremes' }).click();
  await hand.click({ x: 300, y: 120 });
  await expect(page.locator('.trial')).toHaveText(/22 nodes → \d+$/);
  await page.keyboard.press('Enter');
  const nodes = await hand.nodes();
  expect(nodes.length).toBeLessThan(8);
  const top = nodes.reduce((a, b) => (b.point.y < a.point.y ? b : a));
  expect(Math.abs(top.point.x - 300)).toBeLessThan(3);
  expect(Math.abs(top.out!.y)).toBeLessThan(0.5);
  await page.keyboard.press('e');
  await page.getByRole('button', { name: 'nodes at extremes' }).click();
});

test('a single node settles by itself; a picture is measured by its edges instead of its ink', async ({ page }) => {
  const { hand, card } = await measuredPear(page);
  const outlineOf = async () => linesOf((await hand.saved()).sheets.find((s) => s.name === 'Pear outline')!)[0];
  const before = await outlineOf();
  const node = before.runs[0].nodes[4].point;
  // Chosen, and put well off its ink.
  await hand.click(node);
  await hand.click(node);
  await hand.drag(node, { x: node.x + 3, y: node.y + 2 });
  const off = await outlineOf();
  await page.keyboard.press('g');
  await expect(page.locator('.trial')).toHaveText(/^one line moves/, { timeout: 20_000 });
  await page.keyboard.press('Enter');
  const after = await outlineOf();
  const moved = after.runs[0].nodes.flatMap((n, i) =>
    Math.hypot(n.point.x - off.runs[0].nodes[i].point.x, n.point.y - off.runs[0].nodes[i].point.y) > 1e-6 ? [i] : [],
  );
  expect(moved).toEqual([4]);

  const drawingRow = card.getByRole('row', { name: /^Drawing/ });
  const byInk = await drawingRow.textContent();
  await card.getByText('edges', { exact: true }).click();
  await expect.poll(() => drawingRow.textContent(), { timeout: 20_000 }).not.toBe(byInk);
  expect((await hand.saved()).references[0].target).toBe('edge');
  await page.keyboard.press('Control+z');
  await expect.poll(() => drawingRow.textContent(), { timeout: 20_000 }).toBe(byInk);
});
