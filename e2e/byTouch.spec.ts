import { expect, test, type CDPSession, type Page } from '@playwright/test';
import { readFile } from 'node:fs/promises';
import type { Point } from '../src/core';
import { BenchHand, drawingWith, levelLine, makeDrawing } from './bench';

/** A tablet without a keyboard: fingers, a pen, and the hand bar. */

test.use({ viewport: { width: 1024, height: 700 }, hasTouch: true });

const view = { scale: 1, x: 20, y: 10 };

/** Fingers that are down at once: each keeps its number until it is lifted. */
class Fingers {
  private down = new Map<number, Point>();
  private constructor(private readonly cdp: CDPSession) {}

  static on = async (page: Page): Promise<Fingers> => new Fingers(await page.context().newCDPSession(page));

  private send(type: 'touchStart' | 'touchMove' | 'touchEnd'): Promise<unknown> {
    const touchPoints = [...this.down].map(([id, p]) => ({ x: p.x, y: p.y, id }));
    return this.cdp.send('Input.dispatchTouchEvent', { type, touchPoints });
  }

  async press(id: number, at: Point): Promise<void> {
    this.down.set(id, at);
    await this.send('touchStart');
  }

  async move(id: number, to: Point, steps = 5): Promise<void> {
    const from = this.down.get(id)!;
    for (let i = 1; i <= steps; i++) {
      this.down.set(id, { x: from.x + ((to.x - from.x) * i) / steps, y: from.y + ((to.y - from.y) * i) / steps });
      await this.send('touchMove');
    }
  }

  async lift(id: number): Promise<void> {
    this.down.delete(id);
    await this.send('touchEnd');
  }

  async drag(from: Point, to: Point): Promise<void> {
    await this.press(0, from);
    await this.move(0, to);
    await this.lift(0);
  }
}

const bar = (page: Page, name: string) =>
  page.getByRole('toolbar', { name: 'Hand bar' }).getByRole('button', { name, exact: true });
const middle = async (page: Page, name: string): Promise<Point> => {
  const box = (await bar(page, name).boundingBox())!;
  return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
};

test('a line is drawn, taken back, ended, chosen with others, deleted and had back by touch alone', async ({
  page,
}) => {
  const hand = await BenchHand.open(page, await makeDrawing(page.request), { view });
  const tap = async (p: Point): Promise<void> => page.touchscreen.tap(hand.at(p).x, hand.at(p).y);
  for (const p of [
    { x: 200, y: 100 },
    { x: 400, y: 120 },
    { x: 430, y: 300 },
  ])
    await tap(p);
  await bar(page, 'take back').tap();
  await bar(page, 'end').tap();
  for (const p of [
    { x: 200, y: 400 },
    { x: 400, y: 420 },
  ])
    await tap(p);
  await bar(page, 'end').tap();
  const drawn = await hand.lines();
  expect(drawn.map((l) => l.runs[0].nodes.length)).toEqual([2, 2]);
  await page.getByRole('button', { name: 'Select', exact: true }).tap();
  await tap({ x: 300, y: 110 });
  await bar(page, 'choose more').tap();
  await expect(bar(page, 'choose more')).toHaveAttribute('aria-pressed', 'true');
  await tap({ x: 300, y: 410 });
  await bar(page, 'delete').tap();
  await expect.poll(() => hand.lines()).toEqual([]);
  await bar(page, 'undo').tap();
  await expect.poll(() => hand.lines()).toEqual(drawn);
  await bar(page, 'redo').tap();
  await expect.poll(() => hand.lines()).toEqual([]);
});

test('what a finger of the other hand holds counts while it is held, and no longer', async ({ page }) => {
  const hand = await BenchHand.open(page, await makeDrawing(page.request), { view });
  const fingers = await Fingers.on(page);
  await page.touchscreen.tap(hand.at({ x: 200, y: 300 }).x, hand.at({ x: 200, y: 300 }).y);
  await fingers.press(1, await middle(page, 'constrain'));
  await expect(bar(page, 'constrain')).toHaveAttribute('aria-pressed', 'true');
  await page.waitForTimeout(400);
  await fingers.press(0, hand.at({ x: 350, y: 310 }));
  await fingers.lift(0);
  await fingers.lift(1);
  await expect(bar(page, 'constrain')).toHaveAttribute('aria-pressed', 'false');
  expect((await hand.nodes())[1].point.y).toBeCloseTo(300, 4);
  await fingers.press(0, hand.at({ x: 450, y: 310 }));
  await fingers.lift(0);
  expect(Math.round((await hand.nodes())[2].point.y)).toBe(310);
  // With “free” a handle parts from the other while the hand draws it.
  await fingers.press(0, hand.at({ x: 450, y: 420 }));
  await fingers.move(0, hand.at({ x: 500, y: 420 }));
  await fingers.press(1, await middle(page, 'free'));
  await page.waitForTimeout(400);
  await fingers.move(0, hand.at({ x: 500, y: 470 }));
  await fingers.lift(0);
  await fingers.lift(1);
  expect((await hand.nodes())[3].kind).toBe('corner');
});

test('once a pen has drawn, a finger pans, and a palm does nothing', async ({ page }) => {
  const hand = await BenchHand.open(page, await drawingWith(page.request, [levelLine('a', 500)]), { view });
  const before = await hand.saved();
  const pen = (type: string, p: Point, more: object = {}) =>
    page.getByTestId('page').evaluate(
      (el, [kind, at, extra]) =>
        el.dispatchEvent(
          new PointerEvent(kind, {
            clientX: at.x,
            clientY: at.y,
            pointerId: 7,
            pointerType: 'pen',
            button: 0,
            buttons: 1,
            bubbles: true,
            ...extra,
          }),
        ),
      [type, hand.at(p), more] as const,
    );
  await page.evaluate(() => (Element.prototype.setPointerCapture = () => undefined));
  for (const p of [
    { x: 250, y: 100 },
    { x: 400, y: 150 },
  ])
    for (const type of ['pointerdown', 'pointerup']) await pen(type, p);
  await bar(page, 'end').tap();
  expect(await hand.lines()).toHaveLength(2);
  // A palm comes with the pen, or is broad.
  await pen('pointermove', { x: 300, y: 300 }, { buttons: 0 });
  await page.touchscreen.tap(hand.at({ x: 350, y: 350 }).x, hand.at({ x: 350, y: 350 }).y);
  await page.waitForTimeout(900);
  for (const type of ['pointerdown', 'pointerup'])
    await pen(type, { x: 380, y: 380 }, { pointerType: 'touch', pointerId: 9, width: 80, height: 60 });
  expect(await hand.lines()).toHaveLength(2);
  const fingers = await Fingers.on(page);
  await fingers.drag(hand.at({ x: 350, y: 350 }), hand.at({ x: 390, y: 380 }));
  await expect.poll(() => hand.keptView()).toMatchObject({ x: view.x + 40, y: view.y + 30 });
  expect((await hand.lines())[0]).toEqual(before.sheets[0].items[0]);
  expect(await hand.lines()).toHaveLength(2);
});

test('everything that can be pressed is large enough for a finger; panels fold away, and the page keeps its place', async ({
  page,
}) => {
  const hand = await BenchHand.open(page, await drawingWith(page.request, [levelLine('a', 300)]), { view });
  const small = await page.evaluate(() =>
    [...document.querySelectorAll('.bench button, .bench [role=button]')].flatMap((b) => {
      const { width, height } = b.getBoundingClientRect();
      const isSmall = width > 0 && (height < 43 || width < 28);
      return isSmall && !b.matches('.mark *, .state, .skip-links *')
        ? [`${b.getAttribute('aria-label') ?? b.textContent}: ${width} × ${height}`]
        : [];
    }),
  );
  expect(small).toEqual([]);
  const place = await hand.colourAt({ x: 300, y: 300 });
  const at = hand.at({ x: 300, y: 300 });
  await page.getByRole('button', { name: 'Fold away sheets and references' }).tap();
  await page.getByRole('button', { name: 'Fold away figures and settings' }).tap();
  await expect(page.locator('.bench > .left')).toBeHidden();
  await hand.ready();
  const { default: sharp } = await import('sharp');
  const pixel = async () => {
    const shot = await page.screenshot({ clip: { x: Math.round(at.x), y: Math.round(at.y), width: 1, height: 1 } });
    return [...(await sharp(shot).removeAlpha().raw().toBuffer())];
  };
  await expect.poll(pixel).toEqual(place);
  // A swipe on the tab brings a panel out again.
  const tab = (await page.getByRole('button', { name: 'Show sheets and references' }).boundingBox())!;
  const fingers = await Fingers.on(page);
  await fingers.drag({ x: tab.x + 10, y: tab.y + 30 }, { x: tab.x + 90, y: tab.y + 30 });
  await expect(page.locator('.bench > .left')).toBeVisible();
  // So does one from the window's edge, wherever along it; and nothing is drawn by it.
  await page.getByRole('button', { name: 'Fold away sheets and references' }).tap();
  await expect(page.locator('.bench > .left')).toBeHidden();
  const lines = (await hand.lines()).length;
  await fingers.drag({ x: 3, y: 480 }, { x: 90, y: 470 });
  await expect(page.locator('.bench > .left')).toBeVisible();
  expect(await hand.lines()).toHaveLength(lines);
});

test('a whole trace by touch: fifteen lines, mended, swelled, saved as SVG', async ({ page }) => {
  test.setTimeout(120_000);
  const hand = await BenchHand.open(page, await makeDrawing(page.request), { view });
  const fingers = await Fingers.on(page);
  const tap = async (p: Point): Promise<void> => page.touchscreen.tap(hand.at(p).x, hand.at(p).y);
  const button = (name: string | RegExp) => page.getByRole('button', { name, exact: typeof name === 'string' });
  // Thirteen level lines, every fourth ended by a curve; then two that stop short of, and stick out beyond, the first.
  for (let k = 0; k < 13; k++) {
    const y = 90 + 31 * k;
    await tap({ x: 160, y });
    if (k % 4 === 3) await fingers.drag(hand.at({ x: 380, y }), hand.at({ x: 420, y: y + 12 }));
    else await tap({ x: 380, y });
    await bar(page, 'end').tap();
  }
  for (const [x, end] of [
    [230, 86],
    [300, 95],
  ]) {
    await tap({ x, y: 60 });
    await fingers.press(1, await middle(page, 'keep to nothing'));
    await page.waitForTimeout(400);
    await fingers.press(0, hand.at({ x, y: end }));
    await fingers.lift(0);
    await fingers.lift(1);
    await bar(page, 'end').tap();
  }
  await expect.poll(async () => (await hand.lines()).length).toBe(15);

  await page
    .getByRole('navigation', { name: 'Stages' })
    .getByRole('button', { name: /Refine/ })
    .tap();
  const endOf = async (i: number): Promise<number> => (await hand.lines())[i].runs[0].nodes.at(-1)!.point.y;
  await button('Fix all gaps').tap({ timeout: 15_000 });
  await expect.poll(() => endOf(13)).toBeCloseTo(90, 1);
  await button('Fix all overhangs').tap({ timeout: 15_000 });
  await expect.poll(() => endOf(14)).toBeCloseTo(90, 1);

  await page.getByRole('navigation', { name: 'Stages' }).getByRole('button', { name: /Ink/ }).tap();
  await button('Swell').tap();
  await tap({ x: 270, y: 121 });
  await fingers.drag(hand.at({ x: 270, y: 121 }), hand.at({ x: 271, y: 109 }));
  await expect.poll(async () => (await hand.lines())[1].marks?.length ?? 0).toBeGreaterThan(2);

  await page
    .getByRole('navigation', { name: 'Stages' })
    .getByRole('button', { name: /Deliver/ })
    .tap();
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Save SVG' }).or(button('Save SVG')).tap();
  const svg = await readFile((await (await download).path())!, 'utf8');
  expect(svg.match(/<path/g)!.length).toBeGreaterThanOrEqual(15);
});

test('the hints speak of what there is', async ({ page }) => {
  const hand = await BenchHand.open(page, await makeDrawing(page.request), { view });
  await page.touchscreen.tap(hand.at({ x: 300, y: 300 }).x, hand.at({ x: 300, y: 300 }).y);
  await expect(page.locator('.hints')).toContainText('“end”');
  await expect(page.locator('.hints')).not.toContainText('click');
  await bar(page, 'take back').tap();
});
