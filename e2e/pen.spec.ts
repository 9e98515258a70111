import { expect, test } from '@playwright/test';
import { BenchHand, makeDrawing, near } from './bench';

let hand: BenchHand;
test.beforeEach(async ({ page, request }) => {
  hand = await BenchHand.open(page, await makeDrawing(request));
});

const a = { x: 100, y: 100 };
const b = { x: 300, y: 120 };
const c = { x: 420, y: 320 };

test('a click lays a corner, a drag a smooth node; Enter ends and keeps', async ({ page }) => {
  await hand.click(a);
  await hand.drag(b, { x: 340, y: 160 });
  await hand.click(c);
  await page.keyboard.press('Enter');
  const [first, second, third] = await hand.nodes();
  expect([first.kind, second.kind, third.kind]).toEqual(['corner', 'smooth', 'corner']);
  expect([first.in, first.out, third.in, third.out]).toEqual([null, null, null, null]);
  near(second.out, { x: 40, y: 40 });
  near(second.in, { x: -40, y: -40 });
  // The next click begins another line.
  await hand.click({ x: 50, y: 400 });
  await hand.click({ x: 90, y: 420 });
  await page.keyboard.press('Escape');
  expect(await hand.lines()).toHaveLength(2);
});

test('Shift holds to 15°, Alt frees the way out, Space moves the node that is being placed', async ({ page }) => {
  await hand.click(a);
  await page.keyboard.down('Shift');
  await hand.click({ x: 300, y: 108 });
  await page.keyboard.up('Shift');
  await hand.move(c);
  await page.mouse.down();
  await hand.move({ x: c.x + 50, y: c.y });
  await page.keyboard.down('Space');
  await hand.move({ x: c.x + 50, y: c.y + 60 });
  await page.keyboard.up('Space');
  await page.keyboard.down('Alt');
  await hand.move({ x: c.x + 50, y: c.y + 90 });
  await page.mouse.up();
  await page.keyboard.up('Alt');
  await page.keyboard.press('Enter');
  const nodes = await hand.nodes();
  near(nodes[1].point, { x: 300, y: 100 }, 1.5);
  near(nodes[2].point, { x: c.x, y: c.y + 60 }, 1.5);
  near(nodes[2].in, { x: -50, y: 0 }, 1.5);
  near(nodes[2].out, { x: 50, y: 30 }, 1.5);
  expect(nodes[2].kind).toBe('corner');
});

test('a click on the last node drops its handle; a double-click never ends the line', async ({ page }) => {
  await hand.click(a);
  await hand.drag(b, { x: 360, y: 120 });
  await hand.click(b);
  expect((await hand.nodes())[1]).toMatchObject({ out: null, kind: 'corner' });
  const at = hand.at(c);
  await page.mouse.dblclick(at.x, at.y);
  await hand.click({ x: 200, y: 400 });
  await page.keyboard.press('Enter');
  expect(await hand.nodes()).toHaveLength(4);
});

test('Backspace and undo take back one node; a start alone leaves nothing', async ({ page }) => {
  await hand.click(a);
  await hand.click(b);
  await hand.click(c);
  await page.keyboard.press('Backspace');
  expect(await hand.nodes()).toHaveLength(2);
  await hand.click(c);
  await page.keyboard.press('Control+z');
  expect(await hand.nodes()).toHaveLength(2);
  await hand.click({ x: 200, y: 300 });
  await page.keyboard.press('Enter');
  expect(await hand.nodes()).toHaveLength(3);
  await hand.click({ x: 500, y: 400 });
  await page.keyboard.press('Enter');
  expect(await hand.lines()).toHaveLength(1);
});

test('the pointer tells of closing before the click, and the click closes', async ({ page }) => {
  await hand.click(a);
  await hand.click(b);
  await hand.move(c);
  const canvas = page.getByTestId('page');
  const cursor = (): Promise<string> =>
    canvas.evaluate((e) => new Promise((shown) => requestAnimationFrame(() => shown(e.style.cursor))));
  const adding = await cursor();
  await hand.move(a);
  expect(await cursor()).not.toBe(adding);
  await expect(page.locator('.hints')).toContainText('close the line');
  await hand.click(c);
  await hand.click(a);
  const [line] = await hand.lines();
  expect(line.runs[0]).toMatchObject({ closed: true });
  expect(line.runs[0].nodes).toHaveLength(3);
  await page.keyboard.press('Control+z');
  expect((await hand.lines())[0].runs[0].closed).toBe(false);
});

test('panning and zooming in the middle of a line do no harm', async ({ page }) => {
  await hand.click(a);
  await hand.move(b);
  await page.keyboard.down('Space');
  await page.mouse.down();
  await hand.move({ x: b.x + 50, y: b.y + 40 });
  await page.mouse.up();
  await page.keyboard.up('Space');
  hand.view = { ...hand.view, x: hand.view.x + 50 * hand.view.scale, y: hand.view.y + 40 * hand.view.scale };
  await hand.click(b);
  const at = hand.at(c);
  await page.mouse.move(at.x, at.y);
  await page.mouse.wheel(0, -100);
  await page.mouse.down();
  await page.mouse.up();
  await page.keyboard.press('Enter');
  const nodes = await hand.nodes();
  [a, b, c].forEach((p, i) => near(nodes[i].point, p, 1.5));
});

test('a locked or hidden sheet refuses the pen and offers the way out', async ({ page }) => {
  await page.getByRole('button', { name: 'Lock Sheet 1' }).click();
  await hand.click(a);
  await expect(page.getByRole('alert').filter({ hasText: 'is locked' })).toBeVisible();
  expect(await hand.lines()).toHaveLength(0);
  await page.getByRole('button', { name: 'Unlock it' }).click();
  await page.getByRole('button', { name: 'Hide Sheet 1' }).click();
  await hand.click(a);
  await page.getByRole('button', { name: 'Show it' }).click();
  await hand.click(a);
  await hand.click(b);
  expect(await hand.nodes()).toHaveLength(2);
  expect((await hand.saved()).sheets[0]).toMatchObject({ visible: true, locked: false });
});

test('choosing another tool ends the line and keeps it', async ({ page }) => {
  await hand.click(a);
  await hand.click(b);
  await page.keyboard.press('s');
  await hand.click(c);
  expect(await hand.nodes()).toHaveLength(2);
});
