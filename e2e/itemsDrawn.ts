import { expect, type Page } from '@playwright/test';
import sharp from 'sharp';
import { firstStyle, type Drawing, type Line } from '../src/core';
import { changeOf } from '../src/core/change/changeOf';
import type { Group, Item } from '../src/core/drawing/item';
import type { Paint } from '../src/core/drawing/paint';
import { ellipse } from '../src/core/drawing/shapes';
import { BenchHand, cornerNode, makeDrawing } from './bench';

const ring = (id: string, x: number, y: number, r: number, fill: Paint | null, more: Partial<Line> = {}): Line => ({
  id,
  runs: [ellipse({ minX: x - r, minY: y - r, maxX: x + r, maxY: y + r })],
  style: { ...firstStyle, width: 0, fill },
  ...more,
});
export const bar = (id: string, from: [number, number], to: [number, number], stroke: Paint, width = 20): Line => ({
  id,
  style: { ...firstStyle, stroke, width, cap: 'butt' },
  runs: [{ closed: false, nodes: [cornerNode(...from), cornerNode(...to)] }],
});
const group = (id: string, items: Item[], more: Partial<Group> = {}): Group => ({
  kind: 'group',
  id,
  name: '',
  items,
  ...more,
});

export const itemsDrawn: Item[] = [
  ring('leaf', 200, 200, 120, { swatch: 'leaf' }, { style: { ...firstStyle, width: 2, fill: { swatch: 'leaf' } } }),
  ring('sun', 560, 180, 90, { gradient: 'sun' }),
  bar('vein', [120, 200], [280, 200], { of: 'beside', by: 0.5, else: '#000000' }),
  group('half', [ring('red', 160, 430, 60, '#c03030'), ring('blue', 220, 430, 60, '#3048c0')], {
    opacity: 0.5,
    name: 'Half seen',
  }),
  group('outer', [
    group('cut', [bar('across', [400, 440], [700, 440], '#27241d')], { clip: ring('window', 550, 440, 60, null) }),
  ]),
  ring('shade', 290, 260, 60, '#e8a0c0', { blend: 'multiply' }),
  bar('glass', [480, 180], [640, 180], '#3048c080'),
];

export async function drawnItems(page: Page): Promise<BenchHand> {
  const id = await makeDrawing(page.request, 'Items');
  const { drawing } = (await (await page.request.get(`/api/drawings/${id}`)).json()) as { drawing: Drawing };
  const stops = [
    { at: 0, colour: '#ffe9a8' },
    { at: 1, colour: '#c8860a' },
  ];
  const [from, to] = [
    { x: 0.5, y: 0.5 },
    { x: 1, y: 0.5 },
  ];
  const change = {
    id: 'lay',
    label: 'Lay',
    steps: [
      {
        step: 'setDrawing' as const,
        before: { palette: [], gradients: [] },
        after: {
          palette: [{ id: 'leaf', name: 'Leaf', colour: '#5b8c4a' }],
          gradients: [{ id: 'sun', name: '', kind: 'radial' as const, space: 'item' as const, from, to, stops }],
        },
      },
      ...itemsDrawn.map((item, index) => ({
        step: 'insertItem' as const,
        at: { sheet: drawing.sheets[0].id, index },
        item,
      })),
    ],
  };
  const sent = await page.request.post(`/api/drawings/${id}/changes`, {
    data: { base: 0, changes: [changeOf(change, 'lay')] },
  });
  expect(sent.status()).toBe(200);
  return BenchHand.open(page, id, { tool: 'select', view: { scale: 1, x: 20, y: 10 } });
}

/** What the page shows at some places, and what the file has there. */
export async function compare(hand: BenchHand, places: [number, number][]): Promise<number> {
  const answer = await hand.page.request.get(
    `/api/drawings/${hand.id}/export?format=png&scope=page&dpi=96&ground=page`,
  );
  const { data, info } = await sharp(await answer.body())
    .removeAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  let worst = 0;
  for (const [x, y] of places) {
    const seen = await hand.colourAt({ x, y });
    const kept = [0, 1, 2].map((k) => data[(y * info.width + x) * 3 + k]);
    worst = Math.max(worst, ...seen.map((v, k) => Math.abs(v - kept[k])));
  }
  return worst;
}
