import { gradientAcross } from '../src/core/test/gradientAcross';
import { expect, test } from '@playwright/test';
import { firstStyle, type Drawing, type Flat, type Item, type Line } from '../src/core';
import { ellipse } from '../src/core/drawing/shapes';
import { cornerAt } from '../src/core/drawing/run';
import { BenchHand, drawingOf } from './bench';
import { besideFile } from './besideFile';

const ring = (x: number, y: number, rx: number, ry = rx) =>
  ellipse({ minX: x - rx, minY: y - ry, maxX: x + rx, maxY: y + ry });
const flat = (id: string, part: Omit<Partial<Flat>, 'runs'> & Pick<Flat, 'runs' | 'fill'>): Flat => ({
  kind: 'flat',
  id,
  at: { x: 0, y: 0 },
  gap: 0,
  ...part,
});
const filled = (id: string, runs: Line['runs'], fill: Line['style']['fill'], part: Partial<Line> = {}): Line => ({
  id,
  runs,
  style: { ...firstStyle, width: 0, fill },
  ...part,
});

/** Flats with swatches and gradients, shades that are clipped, see-through and blended, runs in turns, lines over all. */
const items: Item[] = [
  flat('a', { runs: [ring(60, 50, 48, 40)], fill: { swatch: 'leaf' } }),
  {
    kind: 'group',
    id: 'in-a',
    name: 'Inside',
    clip: filled('clip-a', [ring(60, 50, 48, 40)], null),
    inside: 'a',
    items: [
      filled('shade', [ring(90, 80, 50)], { of: { swatch: 'leaf' }, by: 0.35, else: '#000000' }, { opacity: 0.7 }),
      filled('light', [ring(30, 20, 30)], '#c8d8ff', { blend: 'screen', opacity: 0.6 }),
      {
        id: 'hatch',
        runs: [{ closed: false, nodes: [cornerAt({ x: 0, y: 90 }), cornerAt({ x: 130, y: 10 })] }],
        style: { ...firstStyle, width: 5 },
      },
    ],
  },
  flat('b', { runs: [ring(160, 50, 44)], fill: { gradient: 'rings' } }),
  filled('turns', [ring(160, 50, 36), ring(160, 50, 24), ring(160, 50, 12)], '#20304f', {
    blend: 'multiply',
    style: { ...firstStyle, width: 0, fill: '#a0c0ff', fillRule: 'evenodd' },
  }),
  flat('c', { runs: [ring(60, 140, 52, 40)], fill: { gradient: 'way' }, opacity: 0.8 }),
  flat('d', { runs: [ring(110, 130, 50, 34)], fill: '#d06a3a', blend: 'multiply' }),
  {
    id: 'over',
    runs: [ring(150, 140, 40, 26)],
    style: { ...firstStyle, width: 4, stroke: { of: 'beside', by: 0.5, else: '#101010' } },
  },
];
const drawing = (d: Drawing): Drawing => ({
  ...d,
  palette: [{ id: 'leaf', name: 'Leaf', colour: '#6f9a4c' }],
  gradients: [
    gradientAcross('rings', ['#fff2c0', { swatch: 'leaf' }, '#20304f'], {
      kind: 'radial',
      from: { x: 0.4, y: 0.4 },
      to: { x: 1, y: 0.4 },
    }),
    gradientAcross('way', ['#aa3311', '#f4c20d'], { from: { x: 0.1, y: 0.2 }, to: { x: 0.9, y: 0.8 } }),
  ],
  sheets: [{ ...d.sheets[0], items }],
});

test('the file in colour looks as on the page, to another renderer: under one pixel in a hundred differs at 300 dpi', async ({
  page,
}) => {
  const id = await drawingOf(page.request, drawing);
  const scale = 300 / 96;
  const hand = await BenchHand.open(page, id, { stage: 'deliver', tool: 'select', view: { scale, x: 20, y: 20 } });
  await page.mouse.move(3, 3);
  await hand.ready();
  const { page: a, file: b } = await besideFile(page, hand, { width: 216, height: 190 });
  let [other, coloured] = [0, 0];
  for (let i = 0; i < a.length; i += 3) {
    if (Math.max(...[0, 1, 2].map((k) => Math.abs(a[i + k] - b[i + k]))) > 32) other++;
    if (Math.max(b[i], b[i + 1], b[i + 2]) - Math.min(b[i], b[i + 1], b[i + 2]) > 30) coloured++;
  }
  expect(coloured).toBeGreaterThan(0.3 * (a.length / 3));
  expect(other / (a.length / 3)).toBeLessThan(0.01);
});
