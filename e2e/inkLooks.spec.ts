import { followsFill } from '../src/core/drawing/paint';
import { expect, test, type Page } from '@playwright/test';
import { firstStyle, type Line } from '../src/core';
import { cornerNode as corner, BenchHand, drawingWith, makeDrawing, levelLine as level } from './bench';
import { besideFile } from './besideFile';
import { pressurePen } from './pressurePen';

const open = async (page: Page, lines: Line[], tool = 'swell'): Promise<BenchHand> =>
  BenchHand.open(page, await drawingWith(page.request, lines), { stage: 'ink', tool });

test('weights are proposed from how lines lie, changed, given in one press; a tint follows its fill; ends that meet taper', async ({
  page,
}) => {
  const runOf = (...at: [number, number][]) => ({ closed: false, nodes: at.map(([x, y]) => corner(x, y)) });
  const frame: Line = {
    ...level('frame', 0),
    style: { ...firstStyle, width: 4, fill: '#9ac46a' },
    runs: [{ ...runOf([100, 80], [600, 80], [600, 480], [100, 480]), closed: true }],
  };
  const bar: Line = { ...level('bar', 0), runs: [runOf([101, 280], [599, 280])] };
  const dot: Line = { ...level('dot', 0), runs: [runOf([300, 200], [325, 205])] };
  const hand = await open(page, [frame, bar, dot], 'select');
  await page.keyboard.press('Control+a');
  await page.getByRole('button', { name: 'propose weights' }).click();
  const weight = page.getByLabel('Weight of the outer contour');
  await weight.fill('6 px');
  await weight.press('Enter');
  await page.getByRole('button', { name: 'apply', exact: true }).click();
  const widths = async (): Promise<number[]> => (await hand.lines()).map((l) => l.style.width);
  expect(await widths()).toEqual([expect.closeTo(6, 6), expect.closeTo(4, 6), expect.closeTo(2.2, 6)]);
  await page.getByRole('button', { name: 'tint lines' }).click();
  const tinted = await hand.lines();
  expect(tinted.every((l) => l.style.stroke !== firstStyle.stroke)).toBe(true);
  expect(tinted.every((l) => followsFill(l.style.stroke))).toBe(true);
  await page.getByRole('button', { name: 'taper', exact: true }).click();
  const [, tapered] = await hand.lines();
  const [first, last] = [tapered.marks![0], tapered.marks!.at(-1)!];
  expect([first.left, last.left].every((w) => w < 0.5)).toBe(true);
  expect((await hand.lines()).map((l) => l.marks !== undefined)).toEqual([false, true, false]);
  for (let i = 0; i < 3; i++) await page.keyboard.press('Control+z');
  expect(await hand.lines()).toEqual([frame, bar, dot]);
});

test('living strokes in the SVG look as on the page, to another renderer: under one pixel in a hundred differs at 300 dpi', async ({
  page,
}) => {
  const kinds = ['round', 'tapered', 'brush', 'broad', 'dry'] as const;
  const plain = {
    tapered: { start: 0.3, end: 0.2 },
    brush: { belly: 0.3, tail: 0.5 },
    broad: { angle: -40, flatness: 0.25 },
    dry: { dryness: 0.6 },
    round: {},
  };
  const node = (x: number, y: number, dx: number, dy: number) => ({
    point: { x, y },
    in: { x: -dx, y: -dy },
    out: { x: dx, y: dy },
    kind: 'smooth' as const,
  });
  const lines = kinds.map((kind, i): Line => ({
    id: kind,
    style: {
      ...firstStyle,
      width: 6,
      seed: i,
      wobble: i === 1 ? 1 : undefined,
      nib: { kind, ...plain[kind] } as Line['style']['nib'],
    },
    runs: [
      {
        closed: false,
        nodes: [node(12, 20 + i * 26, 20, -24), node(80, 24 + i * 26, 24, 20), node(160, 16 + i * 26, 14, -12)],
      },
    ],
    marks: [
      { at: 0, left: 1, right: 2 },
      { at: 0.45, left: 6, right: 4 },
      { at: 1, left: 1.5, right: 1 },
    ],
  }));
  const clean = JSON.parse(JSON.stringify(lines)) as Line[];
  const id = await drawingWith(page.request, clean);
  const scale = 300 / 96;
  const hand = await BenchHand.open(page, id, { stage: 'ink', tool: 'swell', view: { scale, x: 40, y: 60 } });
  await page.mouse.move(3, 3);
  await hand.ready();
  const { page: a, file: b } = await besideFile(page, hand, { width: 176, height: 150 });
  let [other, ink] = [0, 0];
  for (let i = 0; i < a.length; i += 3) {
    if (Math.abs(a[i] - b[i]) > 64) other++;
    if (b[i] < 128) ink++;
  }
  expect(ink).toBeGreaterThan((0.05 * a.length) / 3);
  expect(other / (a.length / 3)).toBeLessThan(0.01);
});

test('how widths answer to a pen’s pressure is a curve that is drawn; the stroke just drawn answers to it anew', async ({
  page,
}) => {
  const hand = await BenchHand.open(page, await makeDrawing(page.request), { tool: 'pencil' });
  const pen = await pressurePen(hand);
  const at = (t: number) => ({ x: 100 + 500 * t, y: 300 });
  await pen.hover(at(0));
  await pen.press(at(0), 0.1);
  for (let i = 1; i <= 40; i++) await pen.move(at(i / 40), 0.1 + (0.9 * i) / 40);
  await pen.release(at(1));
  const widest = async (): Promise<number> => {
    const [line] = await hand.lines();
    return Math.max(...line.marks!.map((m) => m.left + m.right)) / line.style.width;
  };
  await expect.poll(async () => (await hand.lines()).length).toBe(1);
  expect(await widest()).toBeCloseTo(1.5, 1);
  const [drawn] = await hand.lines();
  await page.getByRole('button', { name: 'evenly…' }).click();
  const plot = page.getByRole('group', { name: 'Width by pressure' });
  // It comes to rest first.
  await plot.hover();
  const box = (await plot.boundingBox())!;
  // The point at full pressure is pulled down to half the width.
  await page.mouse.move(box.x + box.width - 1, box.y + box.height / 4);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width - 1, box.y + box.height * 0.75, { steps: 5 });
  await page.mouse.up();
  expect(await widest()).toBeCloseTo(0.5, 1);
  await expect(page.getByRole('button', { name: 'as drawn…' })).toBeVisible();
  await plot.getByRole('slider', { name: 'Point 2' }).press('Shift+ArrowUp');
  expect(await widest()).toBeCloseTo(0.58, 1);
  await page.getByRole('button', { name: 'firm', exact: true }).click();
  expect(await widest()).toBeCloseTo(1.3, 1);
  await page.keyboard.press('Escape');
  for (let i = 0; i < 3; i++) await page.keyboard.press('Control+z');
  expect(await hand.lines()).toEqual([drawn]);
  // Width marks that were changed by hand are the hand’s.
  await page.keyboard.press('w');
  await hand.drag({ x: 350, y: 300 }, { x: 350, y: 290 });
  const [swelled] = await hand.lines();
  expect(swelled.marks).not.toEqual(drawn.marks);
  await page.keyboard.press('q');
  await page.getByRole('button', { name: 'firm…' }).click();
  await page.getByRole('button', { name: 'late', exact: true }).click();
  expect(await hand.lines()).toEqual([swelled]);
});
