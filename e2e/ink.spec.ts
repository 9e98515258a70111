import { expect, test, type Page } from '@playwright/test';
import { firstStyle, type Line } from '../src/core';
import { cornerNode as corner, BenchHand, demoCopy, drawingWith, levelLine as level } from './bench';

const open = async (page: Page, lines: Line[], tool = 'swell'): Promise<BenchHand> =>
  BenchHand.open(page, await drawingWith(page.request, lines), { stage: 'ink', tool });
const line = async (hand: BenchHand, id: string): Promise<Line> => (await hand.lines()).find((l) => l.id === id)!;
const isInk = (colour: number[]): boolean => colour.every((c) => c < 90);

test('the width of thirty lines at once: typed, from the slips, by plus and minus, scrubbed; one press takes each back', async ({
  page,
}) => {
  const lines = Array.from({ length: 30 }, (_, i) => level(`l${i}`, 20 + i * 18));
  const hand = await open(page, lines, 'select');
  await page.keyboard.press('Control+a');
  const field = page.getByLabel('Stroke width');
  await field.fill('2 mm');
  await field.press('Enter');
  const widths = async (): Promise<number[]> => [...new Set((await hand.lines()).map((l) => l.style.width))];
  expect(await widths()).toEqual([expect.closeTo((2 * 96) / 25.4, 3)]);
  await page.getByRole('button', { name: '3', exact: true }).click();
  expect(await widths()).toEqual([4]);
  await page.keyboard.press('+');
  expect(await widths()).toEqual([expect.closeTo(4.4, 6)]);
  await page.keyboard.press('-');
  expect(await widths()).toEqual([expect.closeTo(4, 6)]);
  const label = (await page.locator('.scrub', { hasText: 'Width' }).boundingBox())!;
  await page.mouse.move(label.x + 5, label.y + 5);
  await page.mouse.down();
  await page.mouse.move(label.x + 85, label.y + 5, { steps: 4 });
  await page.mouse.move(label.x + 165, label.y + 5, { steps: 4 });
  await page.mouse.up();
  expect(await widths()).toEqual([expect.closeTo(8, 1)]);
  // The next line on the sheet is as wide.
  expect((await hand.saved()).sheets[0].style.width).toBeGreaterThan(3.9);
  for (let i = 0; i < 5; i++) await page.keyboard.press('Control+z');
  expect(await widths()).toEqual([4]);
  await expect(page.getByRole('button', { name: 'Undo' })).toHaveAttribute('title', /Draw|Nothing|Undo/);
  await page.keyboard.press('Escape');
  await hand.click({ x: 300, y: 20 });
  await field.fill('9pt');
  await field.press('Enter');
  await page.keyboard.press('Control+a');
  await expect(field).toHaveAttribute('placeholder', 'mixed');
});

test('a line is swelled by a pull, on both sides and on one; its marks move along, are copied, sharpened, taken away', async ({
  page,
}) => {
  const hand = await open(page, [level('a', 200)]);
  await hand.drag({ x: 350, y: 200 }, { x: 352, y: 186 });
  const marks = async () => (await line(hand, 'a')).marks ?? [];
  const [first, pulled, last] = await marks();
  let middle = pulled;
  expect([first.at, last.at]).toEqual([0, 1]);
  expect([first.left, last.right]).toEqual([2, 2]);
  expect(middle.at).toBeCloseTo(0.5, 2);
  expect(middle.left).toBeCloseTo(16, 0);
  expect(middle.right).toBeCloseTo(16, 0);
  await page.mouse.move(10, 300);
  await page.keyboard.press('Escape');
  expect(isInk(await hand.colourAt({ x: 350, y: 188 }))).toBe(true);
  expect(isInk(await hand.colourAt({ x: 120, y: 188 }))).toBe(false);
  // One side alone: taken at the rung's lower head.
  await hand.click({ x: 350, y: 200 });
  await page.keyboard.down('Alt');
  await hand.drag({ x: 350, y: 219 }, { x: 350, y: 209 });
  await page.keyboard.up('Alt');
  [, middle] = await marks();
  expect(middle.left).toBeCloseTo(16, 0);
  expect(middle.right).toBeCloseTo(6, 0);
  // Along the line, with Shift.
  await hand.move({ x: 350, y: 200 });
  await page.mouse.down();
  await page.keyboard.down('Shift');
  await hand.move({ x: 250, y: 200 }, 6);
  await page.mouse.up();
  await page.keyboard.up('Shift');
  [, middle] = await marks();
  expect(middle.at).toBeCloseTo(0.3, 1);
  expect(middle.left).toBeCloseTo(16, 0);
  // A copy of the one in hand, with Ctrl.
  await page.keyboard.down('Control');
  await hand.click({ x: 450, y: 200 });
  await page.keyboard.up('Control');
  expect((await marks()).map((m) => Math.round(m.left))).toEqual([2, 16, 16, 2]);
  // Sharp by a second press.
  const at = hand.at({ x: 450, y: 200 });
  await page.mouse.dblclick(at.x, at.y);
  expect((await marks())[2].sharp).toBe(true);
  await page.keyboard.press('ArrowUp');
  expect((await marks())[2].left).toBeCloseTo(16.25, 1);
  await page.keyboard.press('Delete');
  expect(await marks()).toHaveLength(3);
  // By figures.
  await hand.click({ x: (await marks())[1].at * 500 + 100, y: 200 });
  await page.getByLabel('Width to the left').fill('3 px');
  await page.getByLabel('Width to the left').press('Enter');
  expect((await marks())[1].left).toBeCloseTo(3, 3);
  await page.getByRole('button', { name: 'even out' }).click();
  expect((await line(hand, 'a')).marks).toBeUndefined();
  const undo = page.getByRole('button', { name: 'Undo' });
  // Back to what the line was when it was opened; laying it can be undone as well.
  const save = page.locator('.save');
  await hand.saved();
  for (let n = Number(/\d+/.exec((await save.textContent())!)![0]); ; n++) {
    if ((await undo.getAttribute('title')) === 'Undo: Draw line') break;
    await page.keyboard.press('Control+z');
    await expect(save).toHaveText(`saved, change ${n + 1}`);
  }
  expect(await line(hand, 'a')).toEqual(level('a', 200));
});

test('the stroke unrolled: a mark is set and pulled there; its profile is kept by name, applied to others, turned, found after a reload', async ({
  page,
}) => {
  const hand = await open(page, [level('a', 150), level('b', 300), level('c', 450)]);
  await hand.click({ x: 300, y: 150 });
  const shape = page.getByRole('group', { name: 'The stroke, unrolled' });
  const box = (await shape.boundingBox())!;
  await page.mouse.move(box.x + box.width * 0.25, box.y + box.height * 0.3);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width * 0.25, box.y + 2, { steps: 5 });
  await page.mouse.up();
  const own = (await line(hand, 'a')).marks!;
  expect(own).toHaveLength(3);
  expect(own[1].at).toBeCloseTo(0.25, 1);
  expect(own[1].left).toBeGreaterThan(2.3);
  await page.getByRole('button', { name: 'keep as…' }).click();
  await page.getByLabel('Name of the profile').fill('heron');
  await page.getByLabel('Name of the profile').press('Enter');
  expect((await hand.saved()).profiles?.map((p) => p.name)).toEqual(['heron']);
  await hand.page.getByRole('button', { name: 'Select', exact: false }).first().click();
  await hand.drag({ x: 80, y: 280 }, { x: 640, y: 480 });
  await page.getByRole('button', { name: 'heron', exact: true }).click();
  for (const id of ['b', 'c']) {
    const marks = (await line(hand, id)).marks!;
    expect(marks.map((m) => m.left)).toEqual(own.map((m) => expect.closeTo(m.left, 4)));
  }
  await page.getByRole('button', { name: 'turn round' }).click();
  expect((await line(hand, 'b')).marks![1].at).toBeCloseTo(1 - own[1].at, 4);
  await page.reload();
  await hand.ready();
  await page.keyboard.press('Control+a');
  await expect(page.getByRole('button', { name: 'heron', exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'belly', exact: true }).click();
  expect((await line(hand, 'a')).marks![1].left).toBeCloseTo(2.8, 4);
});

test('nibs are swapped without losing marks; ends, corners, dashes and the order of stroke and fill are set and undone', async ({
  page,
}) => {
  const marked: Line = { ...level('a', 200), marks: [{ at: 0.5, left: 9, right: 9 }] };
  const filled: Line = { ...level('b', 350), style: { ...firstStyle, width: 6, fill: '#c2d8a0' } };
  const hand = await open(page, [marked, filled]);
  await page.keyboard.press('Control+a');
  const before = await hand.lines();
  const nib = page.getByRole('group', { name: 'Kind of nib' });
  for (const name of ['brush', 'broad', 'dry', 'tapered']) {
    await nib.getByRole('button', { name }).click();
    const lines = await hand.lines();
    expect(lines.map((l) => l.style.nib?.kind)).toEqual([name, name]);
    expect(lines[0].marks).toEqual(marked.marks);
  }
  // A tapered end is a point.
  await page.keyboard.press('Escape');
  await page.mouse.move(20, 500);
  expect(isInk(await hand.colourAt({ x: 350, y: 207 }))).toBe(true);
  expect(isInk(await hand.colourAt({ x: 108, y: 206 }))).toBe(false);
  await page.keyboard.press('Control+a');
  await nib.getByRole('button', { name: 'round' }).click();
  expect((await hand.lines()).map((l) => l.style.nib)).toEqual([undefined, undefined]);
  const stroke = page.getByRole('group', { name: 'Stroke', exact: true });
  await stroke.getByRole('group', { name: 'Ends' }).getByRole('button', { name: 'butt' }).click();
  await stroke.getByRole('group', { name: 'Corners' }).getByRole('button', { name: 'miter' }).click();
  await stroke.getByLabel('Miter limit').fill('8');
  await stroke.getByLabel('Miter limit').press('Enter');
  await stroke.getByLabel('Dashes').fill('30 px 15px');
  await stroke.getByLabel('Dashes').press('Enter');
  await stroke.getByRole('button', { name: 'under it' }).click();
  const style = (await line(hand, 'b')).style;
  expect(style).toMatchObject({ cap: 'butt', join: 'miter', miterLimit: 8, strokeBelow: true });
  expect(style.dash).toEqual({ lengths: [expect.closeTo(30, 6), expect.closeTo(15, 6)], offset: 0 });
  await stroke.getByLabel('Dashes').fill('nonsense');
  await stroke.getByLabel('Dashes').press('Enter');
  await expect(stroke.getByLabel('Dashes')).toHaveAttribute('aria-invalid', 'true');
  await stroke.getByLabel('Dashes').press('Escape');
  expect((await line(hand, 'b')).style).toEqual(style);
  const undo = page.getByRole('button', { name: 'Undo' });
  // Four nibs and none, ends, corners, limit, dashes, order.
  for (let i = 0; i < 10; i++) {
    await expect(undo, `change ${i}`).toBeEnabled();
    await page.keyboard.press('Control+z');
  }
  expect(await hand.lines()).toEqual(before);
});

test('widths are read from the sketch’s ink, shown first, made so by Enter', async ({ page }) => {
  const hand = await BenchHand.open(page, await demoCopy(page.request, 'Pear'), {
    stage: 'ink',
    tool: 'swell',
    view: { scale: 0.7, x: 190, y: 10 },
  });
  await page.keyboard.press('Control+a');
  await page.getByRole('button', { name: 'Read widths' }).first().click();
  await expect(page.getByRole('status').filter({ hasText: 'with the ink’s width' })).toBeVisible({ timeout: 40_000 });
  expect((await hand.lines()).every((l) => !l.marks)).toBe(true);
  await page.keyboard.press('Enter');
  const read = (await hand.lines()).filter((l) => l.marks);
  expect(read.length).toBeGreaterThanOrEqual(4);
  // The scan's pencil is 2 to 8 px wide at 300 to the inch, on a page of 96.
  for (const l of read) {
    const widths = l.marks!.map((m) => m.left + m.right);
    expect(Math.max(...widths)).toBeLessThan(6);
    expect(Math.max(...widths)).toBeGreaterThan(0.5);
  }
  await page.keyboard.press('Control+z');
  expect((await hand.lines()).every((l) => !l.marks)).toBe(true);
});

test('strokes become shapes, melted where they touch, and are strokes again after undo', async ({ page }) => {
  const across: Line = {
    ...level('c', 0),
    runs: [{ closed: false, nodes: [corner(300, 100), corner(300, 260)] }],
  };
  const hand = await open(page, [level('a', 200), across, level('d', 420)]);
  await page.keyboard.press('Control+a');
  const before = await hand.lines();
  await page.getByRole('button', { name: 'melt together' }).click();
  await expect.poll(async () => (await hand.lines()).length, { timeout: 20_000 }).toBe(2);
  const shapes = await hand.lines();
  expect(shapes.every((l) => l.style.width === 0 && l.style.fill === firstStyle.stroke)).toBe(true);
  expect(shapes.every((l) => l.runs.every((r) => r.closed))).toBe(true);
  await page.keyboard.press('Escape');
  await page.mouse.move(20, 500);
  expect(isInk(await hand.colourAt({ x: 300, y: 150 }))).toBe(true);
  await page.keyboard.press('Control+z');
  expect(await hand.lines()).toEqual(before);
  await page.keyboard.press('Control+a');
  await page.getByRole('button', { name: 'to shapes' }).click();
  await expect.poll(async () => (await hand.lines()).every((l) => l.style.width === 0), { timeout: 20_000 }).toBe(true);
  expect(await hand.lines()).toHaveLength(3);
  await page.keyboard.press('Control+z');
  expect(await hand.lines()).toEqual(before);
});
