import { linesOf } from '../src/core/drawing/items';
import { expect, test } from '@playwright/test';
import type { Line, Point } from '../src/core';
import { BenchHand, makeDrawing } from './bench';

/** Two hundred presses on three sheets that lie over each other: a fan of rays, hatching, a mesh. */

type Drawn = readonly [Point, Point];
const p = (x: number, y: number): Point => ({ x: Math.round(x), y: Math.round(y) });

const fan = Array.from({ length: 30 }, (_, k): Drawn => {
  const angle = (2 * Math.PI * k) / 30;
  return [p(400, 300), p(400 + 200 * Math.cos(angle), 300 + 200 * Math.sin(angle))];
});
// Straight through the middle of the fan, 6 px apart, each begun where the hand has just been.
const hatch = Array.from({ length: 36 }, (_, k): Drawn => {
  const [top, bottom] = [p(297 + 6 * k, 180), p(297 + 6 * k, 420)];
  return k % 2 === 0 ? [top, bottom] : [bottom, top];
});
// From the tips of rays and of each other, over everything else.
const mesh = Array.from({ length: 34 }, (_, k): Drawn => {
  const at = (i: number): Point => {
    const angle = (2 * Math.PI * i) / 34;
    return p(400 + 200 * Math.cos(angle), 300 + 200 * Math.sin(angle));
  };
  return [at(k), at(k + 13)];
});

const places = (l: Line): Point[] => l.runs.flatMap((r) => r.nodes.map((n) => n.point));

/** What was drawn is what the recording means: as many lines, each from place to place; `stray` px where lines draw it. */
function expectAsMeant(drawn: readonly Line[], meant: readonly Drawn[], stray: number): void {
  expect(drawn).toHaveLength(meant.length);
  const wrong = drawn.filter((l, i) => {
    const at = places(l);
    return at.length !== 2 || at.some((q, k) => Math.hypot(q.x - meant[i][k].x, q.y - meant[i][k].y) > stray);
  });
  expect(wrong.map(places)).toEqual([]);
  // No line lies upon another.
  const ends = drawn.map((l) =>
    places(l)
      .map(({ x, y }) => `${x.toFixed(2)},${y.toFixed(2)}`)
      .sort()
      .join(' '),
  );
  expect(new Set(ends).size).toBe(meant.length);
}

test('every line is as the recording means it, on the sheet in hand, and no other', async ({ page }) => {
  test.setTimeout(180_000);
  const hand = await BenchHand.open(page, await makeDrawing(page.request), { view: { scale: 1, x: 20, y: 10 } });
  for (const _ of [2, 3]) await page.getByRole('button', { name: 'Add a sheet' }).click();
  let presses = 0;
  for (const [sheet, lines] of [
    ['Sheet 1', fan],
    ['Sheet 2', hatch],
    ['Sheet 3', mesh],
  ] as const) {
    await page.locator(`[data-sheet="${sheet}"] .name`).click();
    for (const line of lines) {
      for (const at of line) {
        const { x, y } = hand.at(at);
        await page.mouse.click(x, y);
        presses++;
      }
      await page.keyboard.press('Enter');
    }
  }
  expect(presses).toBe(200);
  const { sheets } = await hand.saved();
  const on = (title: string): readonly Line[] => linesOf(sheets.find((s) => s.name === title)!);
  expectAsMeant(on('Sheet 1'), fan, 0.01);
  // Over the rays a place is drawn to them, from near by only.
  expectAsMeant(on('Sheet 2'), hatch, 5);
  expectAsMeant(on('Sheet 3'), mesh, 5);
});
