import { linesOf } from '../src/core/drawing/items';
import { expect, test } from '@playwright/test';
import { readFile } from 'node:fs/promises';
import { pearLines, pearPage } from '../src/server/simulated/curves/pear';
import { cubicsFrom } from '../src/server/simulated/curves/path';
import { nearestOnCubic, type Cubic, type Line, type Point } from '../src/core';
import { BenchHand, demoDrawing, near } from './bench';
import { pressurePen } from './pressurePen';

const k = 559.3701 / pearPage.width;
const scaled = (p: Point): Point => ({ x: p.x * k, y: p.y * k });
const leaf = pearLines.filter((l) => l.part === 'Leaf, left').slice(0, 2);
const outline = pearLines.find((l) => l.part === 'Pear outline')!;

/** Where a hand goes that traces known curves: each node, and how far its handle is drawn. */
const plan = (cubics: Cubic[]) =>
  cubics.map((c, i) => ({ node: scaled(c[0]), out: scaled({ x: c[1].x - c[0].x, y: c[1].y - c[0].y }), i }));

test('the pear is traced over its scan, mended, taken back, found again after a reload, and saved as SVG', async ({
  page,
  request,
}) => {
  const id = await demoDrawing(request, 'Pear');
  const hand = await BenchHand.open(page, id, { view: { scale: 1.1, x: 60, y: -280 } });
  await expect(page.locator('[data-reference] .row')).toContainText('40 %');
  await page.getByRole('button', { name: /^Speckles/ }).click();
  // Alone, so that nothing is drawn to the lines that are there already.
  await page.keyboard.press('Shift+s');
  const before = await hand.lines();

  // Eight nodes and the closing one, each drawn from the node along its true handle.
  for (const { node, out } of plan(outline.cubics)) {
    await hand.move(node);
    await page.mouse.down();
    await hand.move({ x: node.x + out.x, y: node.y + out.y }, 5);
    await page.mouse.up();
  }
  expect(outline.cubics.length).toBeGreaterThanOrEqual(8);
  await hand.click(scaled(outline.cubics[0][0]));
  let drawn = (await hand.lines()).filter((l) => !before.some((b) => b.id === l.id));
  expect(drawn).toHaveLength(1);
  const [line] = drawn;
  expect(line.runs[0].closed).toBe(true);
  expect(line.runs[0].nodes).toHaveLength(outline.cubics.length);
  expect(line.style.fill).toBeNull();
  line.runs[0].nodes.forEach((n, i) => {
    near(n.point, scaled(outline.cubics[i][0]));
    near(n.out, plan(outline.cubics)[i].out, 1.5);
  });

  // Move one node, and take it back.
  await page.keyboard.press('d');
  const third = line.runs[0].nodes[3].point;
  await hand.drag(third, { x: third.x + 40, y: third.y - 25 });
  const moved = (await hand.lines()).find((l) => l.id === line.id)!;
  near(moved.runs[0].nodes[3].point, { x: third.x + 40, y: third.y - 25 });
  await page.keyboard.press('Control+z');
  expect((await hand.lines()).find((l) => l.id === line.id)).toEqual(line);

  const url = page.url();
  await page.waitForTimeout(300);
  await page.reload();
  expect(page.url()).toBe(url);
  await hand.ready();
  await expect(page.getByTestId('scale')).toHaveText('110 %');
  drawn = (await hand.lines()).filter((l) => !before.some((b) => b.id === l.id));
  expect(drawn).toEqual([line]);

  await page.keyboard.press('6');
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page
      .getByRole('button', { name: 'Save SVG' })
      .or(page.getByRole('link', { name: 'Save SVG' }))
      .click(),
  ]);
  expect(download.suggestedFilename()).toBe('Pear branch, packet front.svg');
  const svg = await readFile(await download.path(), 'utf8');
  expect(svg).not.toContain('<image');
  expect(svg.match(/<path /g)).toHaveLength(before.length + 1);
  expect(svg).toContain('width="148mm" height="210mm"');
  const group = svg.slice(
    svg.indexOf('<title>Speckles</title>'),
    svg.indexOf('</g>', svg.indexOf('<title>Speckles</title>')),
  );
  const saved = cubicsFrom(
    / d="([^"]+)"/
      .exec(group)![1]
      .replace('Z', '')
      .replace(/([MCL])/g, ' $1'),
  );
  expect(saved).toHaveLength(outline.cubics.length);
  const nodes = line.runs[0].nodes;
  saved.forEach((c, i) => {
    const next = nodes[(i + 1) % nodes.length];
    near(c[0], nodes[i].point, 0.002);
    near(c[1], { x: nodes[i].point.x + nodes[i].out!.x, y: nodes[i].point.y + nodes[i].out!.y }, 0.002);
    near(c[3], next.point, 0.002);
  });
  // What was drawn runs along the true outline.
  const truth = outline.cubics.map((c) => c.map(scaled) as Cubic);
  for (const c of saved) {
    for (const p of [c[0], c[3]])
      expect(Math.min(...truth.map((t) => nearestOnCubic(t, p).distance))).toBeLessThan(1.5);
  }
});

test('a leaf is traced with a pressure pen', async ({ page, request }) => {
  const id = await demoDrawing(request, 'Pear');
  const hand = await BenchHand.open(page, id, { view: { scale: 1.6, x: 60, y: 0 } });
  await page.getByRole('button', { name: /^Leaf, left/ }).click();
  const pen = await pressurePen(hand);
  const kinds = await page.evaluateHandle(() => {
    const seen: { type: string; pressure: number }[] = [];
    document
      .querySelector('[data-testid=page]')!
      .addEventListener(
        'pointerdown',
        (e) => seen.push({ type: (e as PointerEvent).pointerType, pressure: (e as PointerEvent).pressure }),
        true,
      );
    return seen;
  });
  for (const l of leaf.slice(0, 1)) {
    const cubic = l.cubics[0].map(scaled);
    for (const [at, to] of [
      [cubic[0], cubic[1]],
      [cubic[3], cubic[3]],
    ]) {
      await pen.hover(at);
      await pen.press(at, 0.4);
      for (const t of [0.3, 0.7, 1]) await pen.move({ x: at.x + (to.x - at.x) * t, y: at.y + (to.y - at.y) * t }, 0.6);
      await pen.release(to);
    }
    await page.keyboard.press('Enter');
  }
  expect((await kinds.jsonValue()).map((s) => s.type)).toEqual(['pen', 'pen']);
  expect((await kinds.jsonValue())[0].pressure).toBeCloseTo(0.4, 1);
  const sheet = (await hand.saved()).sheets.find((s) => s.name === 'Leaf, left')!;
  const line = linesOf(sheet).at(-1) as Line;
  expect(line.runs[0].nodes).toHaveLength(2);
  near(line.runs[0].nodes[0].point, scaled(leaf[0].cubics[0][0]));
  near(line.runs[0].nodes[1].point, scaled(leaf[0].cubics[0][3]));
});
