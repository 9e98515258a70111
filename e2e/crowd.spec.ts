import { expect, test, type Page } from '@playwright/test';
import { firstStyle, writeSvg, type Line } from '../src/core';
import { allLines } from '../src/core/drawing/items';
import { movedRuns } from '../src/core/drawing/run';
import { wanderingDrawing } from '../src/core/test/drawings';
import { BenchHand, cornerNode, drawingOf, drawingWith } from './bench';

/** What a hand moves is seen in its place in the order while it is moved, however much it is. */

const bar = (id: string, from: [number, number], to: [number, number], colour: string, width = 24): Line => ({
  id,
  style: { stroke: colour, width, cap: 'butt', join: 'miter', fill: null },
  runs: [{ closed: false, nodes: [cornerNode(...from), cornerNode(...to)] }],
});
const RED = [192, 48, 48];
const BLUE = [48, 72, 192];
const isNear = (a: number[], b: number[]): boolean => a.every((v, i) => Math.abs(v - b[i]) < 24);
const becomes = (hand: BenchHand, p: { x: number; y: number }, colour: number[]) =>
  expect.poll(async () => isNear(await hand.colourAt(p), colour), { timeout: 15_000 });

const open = async (page: Page, lines: readonly Line[]): Promise<BenchHand> =>
  BenchHand.open(page, await drawingWith(page.request, lines), { tool: 'select', view: { scale: 1, x: 20, y: 10 } });

test('a line that is dragged goes under what lies over it, and over what lies under it', async ({ page }) => {
  const hand = await open(page, [
    bar('under', [100, 300], [400, 300], '#30a050'),
    bar('dragged', [100, 100], [400, 100], '#c03030'),
    bar('over', [250, 80], [250, 500], '#3048c0'),
  ]);
  await hand.move({ x: 150, y: 100 });
  await page.mouse.down();
  await hand.move({ x: 150, y: 200 }, 4);
  // Beside the line's own mark along its middle.
  await becomes(hand, { x: 180, y: 207 }, RED).toBe(true);
  await becomes(hand, { x: 245, y: 207 }, BLUE).toBe(true);
  await hand.move({ x: 150, y: 302 }, 4);
  await becomes(hand, { x: 180, y: 308 }, RED).toBe(true);
  await becomes(hand, { x: 245, y: 308 }, BLUE).toBe(true);
  await page.keyboard.press('Escape');
  await page.mouse.up();
  await becomes(hand, { x: 245, y: 207 }, BLUE).toBe(true);
  await becomes(hand, { x: 180, y: 207 }, [255, 254, 251]).toBe(true);
});

test('500 lines are chosen, dragged, seen on the way in their order, let go of, and taken back in one step', async ({
  page,
}) => {
  const many = Array.from({ length: 500 }, (_, i) =>
    bar(`m${i}`, [60, 60 + i * 0.2], [200, 60 + i * 0.2], '#c03030', 12),
  );
  const hand = await open(page, [...many, bar('over', [260, 40], [260, 400], '#3048c0')]);
  await page.keyboard.press('Control+a');
  // All but the one that stays.
  await page.keyboard.down('Shift');
  await hand.click({ x: 260, y: 300 });
  await page.keyboard.up('Shift');
  await expect(page.getByText('Lines', { exact: true }).first()).toBeVisible();
  const sent: number[] = [];
  page.on('request', (r) => r.url().endsWith('/changes') && sent.push(r.postDataBuffer()!.length));
  const before = await hand.lines();
  await hand.move({ x: 100, y: 100 });
  await page.mouse.down();
  await hand.move({ x: 250, y: 260 }, 6);
  // Below the last of them, beside the marks along their middles.
  const isRed = async (x: number, y: number): Promise<boolean> => {
    const [r, g, b] = await hand.colourAt({ x, y });
    return r > 100 && g < 130 && r > b;
  };
  await expect.poll(() => isRed(300, 323), { timeout: 15_000 }).toBe(true);
  await becomes(hand, { x: 256, y: 323 }, BLUE).toBe(true);
  // Where they were there is nothing any more.
  await becomes(hand, { x: 130, y: 80 }, [255, 254, 251]).toBe(true);
  expect(await hand.saved()).toMatchObject({ sheets: [{ items: { length: 501 } }] });
  await page.mouse.up();
  await expect.poll(() => isRed(300, 323), { timeout: 15_000 }).toBe(true);
  const after = await hand.lines();
  expect(after[7].runs[0].nodes[0].point.x - before[7].runs[0].nodes[0].point.x).toBeCloseTo(150, 0);
  expect(after.at(-1)).toEqual(before.at(-1));
  expect(sent).toHaveLength(1);
  expect(sent[0]).toBeLessThan(10_000);
  await page.keyboard.press('Control+z');
  expect(await hand.lines()).toEqual(before);
});

/** A digest of what lies on the lower canvas: ground and painted lines, without marks. */
const paintedHash = (page: Page): Promise<string> =>
  page.evaluate(async () => {
    const canvas = document.querySelector<HTMLCanvasElement>('[data-testid=page] canvas')!;
    const { data } = canvas.getContext('2d')!.getImageData(0, 0, canvas.width, canvas.height);
    return [...new Uint8Array(await crypto.subtle.digest('SHA-256', data))].join();
  });

for (const sheet of ['upper', 'lower'])
  test(`what is pasted into the ${sheet} of two sheets is painted as if all had been painted with it`, async ({
    page,
  }) => {
    const scattered = wanderingDrawing(60, 5, 3);
    const lines = allLines(scattered);
    const half = { ...firstStyle, width: 9, stroke: '#b0306080' };
    const id = await drawingOf(page.request, (d) => ({
      ...d,
      sheets: ['lower', 'upper'].map((name, i) => ({
        ...d.sheets[0],
        id: name,
        name,
        items: lines.slice(30 * i, 30 * i + 30).map((l) => ({ ...l, style: half })),
      })),
    }));
    const hand = await BenchHand.open(page, id, { tool: 'select', view: { scale: 0.9, x: 20, y: 10 } });
    const svg = writeSvg({
      ...scattered,
      sheets: [
        {
          ...scattered.sheets[0],
          items: Array.from({ length: 450 }, (_, i) => ({
            id: `p${i}`,
            style: half,
            runs: movedRuns(lines[i % 60].runs, { x: (i * 7) % 90, y: (i * 11) % 80 }),
          })),
        },
      ],
    });
    await page.locator(`[data-sheet="${sheet}"] .name`).click();
    const before = await paintedHash(page);
    await hand.paste(svg);
    await expect.poll(async () => (await hand.lines()).length).toBe(510);
    await page.keyboard.press('Escape');
    await expect.poll(() => paintedHash(page)).not.toBe(before);
    await hand.ready();
    let painted = '';
    await expect
      .poll(async () => {
        const was = painted;
        painted = await paintedHash(page);
        return painted === was;
      })
      .toBe(true);
    await page.reload();
    await hand.ready();
    await expect.poll(() => paintedHash(page)).toBe(painted);
  });

test('very many that are pasted are seen before any tile shows them', async ({ page }) => {
  const hand = await open(page, [bar('first', [60, 20], [200, 20], '#30a050', 6)]);
  const many = Array.from({ length: 600 }, (_, i) =>
    bar(`m${i}`, [60, 60 + i * 0.5], [500, 60 + i * 0.5], '#c03030', 4),
  );
  const drawing = await hand.saved();
  const svg = writeSvg({ ...drawing, sheets: [{ ...drawing.sheets[0], items: many }] });
  // The painters hear of nothing from now on.
  await page.evaluate(() => {
    const tell = Worker.prototype.postMessage;
    Worker.prototype.postMessage = function (this: Worker, message: { kind?: string }, ...more: never[]) {
      if (!('kind' in message)) tell.call(this, message, ...more);
    } as typeof tell;
  });
  await hand.paste(svg);
  await expect.poll(async () => (await hand.lines()).length).toBe(601);
  const { x, y } = (await hand.lines())[1].runs[0].nodes[0].point;
  for (const [dx, colour] of [
    [220, RED],
    [-20, [255, 254, 251]],
  ] as const)
    await becomes(hand, { x: x + dx, y: y + 200 }, [...colour]).toBe(true);
});
