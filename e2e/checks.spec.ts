import { linesOf } from '../src/core/drawing/items';
import { expect, test, type Page } from '@playwright/test';
import { firstStyle, type Drawing, type Line, type Node, type Point } from '../src/core';
import { BenchHand, drawingWith, measuredPear } from './bench';

const corner = (x: number, y: number): Node => ({ point: { x, y }, in: null, out: null, kind: 'corner' });
const lineOf = (id: string, nodes: Node[], closed = false): Line => ({
  id,
  style: { ...firstStyle, width: 1 },
  runs: [{ closed, nodes }],
});
const handled = (x: number, y: number, into: Point | null, out: Point | null): Node => ({
  point: { x, y },
  in: into,
  out,
  kind: 'corner',
});

/** Of each kind of note one, far from each other. */
const wrong: Line[] = [
  lineOf('gap1', [corner(60, 60), corner(160, 60)]),
  lineOf('gap2', [corner(163, 62), corner(220, 120)]),
  lineOf('over1', [corner(300, 40), corner(300, 140)]),
  lineOf('over2', [corner(304, 90), corner(240, 90)]),
  lineOf('kink', [
    handled(400, 100, null, { x: 20, y: -20 }),
    handled(460, 100, { x: -20, y: -5 }, { x: 20, y: 9 }),
    handled(520, 100, { x: -20, y: 20 }, null),
  ]),
  lineOf('crumb', [corner(600, 60), corner(601, 61)]),
  lineOf('long', [corner(60, 200), corner(220, 240)]),
  lineOf('twin', [corner(60.3, 200.3), corner(218, 239.6)]),
  lineOf('stray', [corner(300, 220)]),
  lineOf('needless', [corner(400, 220), corner(460, 220), corner(540, 220)]),
  lineOf('wild', [handled(600, 220, null, { x: 140, y: 3 }), handled(640, 222, { x: -8, y: 0 }, null)]),
  lineOf('loop', [
    corner(60, 320),
    corner(240, 320),
    corner(240, 340),
    corner(230, 340),
    corner(230, 310),
    corner(330, 400),
  ]),
  lineOf('off', [corner(700, 400), corner(860, 400)]),
];

const kinds = [
  'gap',
  'overhang',
  'kink',
  'crumb',
  'doubled line',
  'stray node',
  'needless node',
  'wild handle',
  'self-crossing',
  'line off the page',
];

const notes = (page: Page) => page.getByRole('group', { name: 'Notes', exact: true });
const visited = (page: Page) => page.getByRole('group', { name: 'The note visited' });

test('each kind of note is found, visited and put right; all is undone to the start and redone to the end', async ({
  page,
}) => {
  const hand = await BenchHand.open(page, await drawingWith(page.request, wrong), { stage: 'refine', tool: 'nodes' });
  const start = await hand.saved();
  for (const kind of kinds)
    await expect(notes(page).getByRole('button', { name: new RegExp(`^1 ${kind}$`) })).toBeVisible();
  for (const kind of kinds) {
    await notes(page)
      .getByRole('button', { name: new RegExp(`^1 ${kind}$`) })
      .click();
    await expect(visited(page)).toContainText(kind);
    await visited(page).getByTitle('Put it right').click();
    await expect(notes(page).getByRole('button', { name: new RegExp(`^1 ${kind}$`) })).toHaveCount(0);
  }
  await expect(notes(page)).toContainText('No notes');
  const end = await hand.saved();
  const byId = new Map(linesOf(end.sheets[0]).map((l) => [l.id, l]));
  expect(['crumb', 'twin', 'stray'].some((id) => byId.has(id))).toBe(false);
  expect(byId.get('gap1')!.runs[0].nodes[1].point).toEqual(byId.get('gap2')!.runs[0].nodes[0].point);
  expect(byId.get('needless')!.runs[0].nodes).toHaveLength(2);
  expect(byId.get('off')!.runs[0].nodes[1].point.x).toBeCloseTo(800, 6);
  for (const _ of kinds) await page.keyboard.press('Control+z');
  expect(JSON.stringify(await hand.saved())).toBe(JSON.stringify(start));
  for (const _ of kinds) await page.keyboard.press('Control+Shift+z');
  expect(JSON.stringify(await hand.saved())).toBe(JSON.stringify(end));
});

test('a fix is shown before it is made; a note is waved through and shown again; all of a kind at once', async ({
  page,
}) => {
  const gaps = [0, 1, 2].flatMap((i) => [
    lineOf(`a${i}`, [corner(60, 60 + 100 * i), corner(160, 60 + 100 * i)]),
    lineOf(`b${i}`, [corner(163, 62 + 100 * i), corner(220, 120 + 100 * i)]),
  ]);
  const hand = await BenchHand.open(page, await drawingWith(page.request, gaps), { stage: 'refine', tool: 'nodes' });
  const start = await hand.saved();
  await page.getByRole('button', { name: 'The next note' }).click();
  await visited(page).getByTitle('Put it right').hover();
  expect(await hand.saved()).toEqual(start);
  await visited(page).getByRole('button', { name: 'it is meant so' }).click();
  await expect(notes(page)).toContainText('2 gaps');
  expect((await hand.saved()).waved).toHaveLength(1);
  await page.reload();
  await hand.ready();
  await expect(notes(page)).toContainText('1 waved through');
  await notes(page).getByRole('button', { name: 'show again' }).click();
  await expect(notes(page)).toContainText('3 gaps');
  await notes(page).getByRole('button', { name: 'Fix all gaps' }).click();
  await expect(notes(page)).toContainText('No notes');
  await expect(page.locator('.message')).toContainText('3 gaps put right.');
  const lines = new Map((await hand.lines()).map((l) => [l.id, l.runs[0].nodes]));
  for (const i of [0, 1, 2]) {
    // Both are carried on to where their ways cross, and bend nowhere.
    const [a, b] = [lines.get(`a${i}`)!, lines.get(`b${i}`)!];
    expect(a[1].point).toEqual(b[0].point);
    expect(a[1].point.y).toBeCloseTo(60 + 100 * i, 6);
    expect((b[0].point.y - b[1].point.y) / (b[0].point.x - b[1].point.x)).toBeCloseTo(58 / 57, 6);
  }
});

test('settle: distances are told, lines are tried on the ink, made so, and taken back in one step', async ({
  page,
}) => {
  const { hand, card } = await measuredPear(page);
  const mean = async (row: string): Promise<number> =>
    Number(
      await card
        .getByRole('row', { name: new RegExp(`^${row}`) })
        .getByRole('cell')
        .nth(0)
        .textContent(),
    );
  const start = await hand.saved();
  const outline = linesOf(start.sheets.find((s) => s.name === 'Pear outline')!)[0];
  const at = outline.runs[0].nodes[4].point;
  await page.keyboard.press('g');
  await hand.click(at);
  await expect(page.locator('.trial')).toHaveText(/^one line moves, \d+ nodes as before$/, { timeout: 20_000 });
  expect(await hand.saved()).toEqual(start);
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('distance-plot')).toBeVisible();
  const settled = linesOf((await hand.saved()).sheets.find((s) => s.name === 'Pear outline')!)[0];
  expect(settled.runs[0].nodes).toHaveLength(outline.runs[0].nodes.length);
  expect(settled.runs[0].nodes.map((n) => n.kind)).toEqual(outline.runs[0].nodes.map((n) => n.kind));
  await expect.poll(() => mean('This line')).toBeLessThan(0.4);
  // Under the hand the figures follow before anything is saved.
  await page.waitForTimeout(300);
  const node = settled.runs[0].nodes[4].point;
  await hand.click(node);
  await hand.move(node);
  await page.mouse.down();
  const [x, length] = [page.getByLabel('x of the node'), page.locator('.row', { hasText: 'Length' })];
  const [stillX, stillLength] = [await x.inputValue(), await length.textContent()];
  await hand.move({ x: node.x + 12, y: node.y + 5 }, 4);
  await expect.poll(() => mean('This line')).toBeGreaterThan(0.5);
  await expect(x).not.toHaveValue(stillX);
  await expect(length).not.toHaveText(stillLength!);
  // Where it leaves all ink it is invented, and that is said for all to see.
  await hand.move({ x: node.x + 60, y: node.y + 60 }, 4);
  await expect(page.getByText('% of it is invented')).toHaveCSS('opacity', '1');
  await page.keyboard.press('Escape');
  await page.mouse.up();
  await expect.poll(() => mean('This line')).toBeLessThan(0.4);
  await expect(x).toHaveValue(stillX);
  await expect(length).toHaveText(stillLength!);
  await page.keyboard.press('Control+z');
  expect(await hand.saved()).toEqual(start);
});

test('ink without a line: its share, its patches, and less of it once a line is laid', async ({ page }) => {
  const { hand } = await measuredPear(page);
  await page.keyboard.press('Shift+2');
  const covered = page.getByTestId('covered');
  await expect(covered).toHaveText(/^[1-9]\d\.\d %$/, { timeout: 20_000 });
  const share = parseFloat((await covered.textContent())!);
  const scale = (): Promise<string | null> => page.getByTestId('scale').textContent();
  const before = await scale();
  await page.getByRole('button', { name: 'The next patch' }).click();
  expect(await scale()).not.toBe(before);
  await expect(page.getByText(/^patch 1 of \d+$/)).toBeVisible();
  // The outline goes: its ink has no line then.
  const { sheets } = await hand.saved();
  const outline = linesOf(sheets.find((s) => s.name === 'Pear outline')!)[0].runs[0].nodes[4].point;
  await page.keyboard.press('s');
  await page.keyboard.press('0');
  await hand.followView();
  await hand.click(outline);
  await page.keyboard.press('Delete');
  await page.keyboard.press('d');
  await expect
    .poll(async () => parseFloat((await covered.textContent()) ?? '100'), { timeout: 15_000 })
    .toBeLessThan(share - 20);
  await page.keyboard.press('Shift+2');
});

test('compare: lines lifted, wiped with a handle, side by side, and as they were before', async ({ page }) => {
  const line = lineOf('l', [corner(100, 300), corner(700, 300)]);
  const thick: Line = { ...line, style: { ...firstStyle, width: 20 } };
  const hand = await BenchHand.open(page, await drawingWith(page.request, [thick]), {
    stage: 'refine',
    tool: 'select',
    view: { scale: 0.8, x: 60, y: 20 },
  });
  const isDark = async (p: Point): Promise<boolean> => (await hand.colourAt(p))[0] < 120;
  expect(await isDark({ x: 200, y: 300 })).toBe(true);
  await page.keyboard.down('c');
  await expect.poll(() => isDark({ x: 200, y: 300 })).toBe(false);
  await page.keyboard.up('c');
  await expect.poll(() => isDark({ x: 200, y: 300 })).toBe(true);
  const choose = async (way: string): Promise<void> => {
    await page.getByRole('button', { name: 'Compare' }).click();
    await page.getByRole('menuitem', { name: way }).click();
  };
  await choose('wipe: the reference on the left');
  await expect.poll(() => isDark({ x: 200, y: 300 })).toBe(false);
  expect(await isDark({ x: 650, y: 300 })).toBe(true);
  const handle = page.getByRole('slider', { name: 'Between the reference and the lines' });
  const box = (await handle.boundingBox())!;
  await page.mouse.move(box.x + 6, box.y + 100);
  await page.mouse.down();
  await page.mouse.move(hand.at({ x: 120, y: 0 }).x, box.y + 100, { steps: 4 });
  await page.mouse.up();
  await expect.poll(() => isDark({ x: 200, y: 300 })).toBe(true);
  await choose('each in its place');
  await expect(handle).toHaveCount(0);
  // Held, X shows the drawing as it was opened.
  await hand.click({ x: 300, y: 300 });
  await page.keyboard.press('Delete');
  await expect.poll(() => isDark({ x: 200, y: 300 })).toBe(false);
  await page.keyboard.down('x');
  await expect.poll(() => isDark({ x: 200, y: 300 })).toBe(true);
  await page.keyboard.up('x');
  await expect.poll(() => isDark({ x: 200, y: 300 })).toBe(false);
  const saved: Drawing = await hand.saved();
  expect(linesOf(saved.sheets[0])).toHaveLength(0);
});
