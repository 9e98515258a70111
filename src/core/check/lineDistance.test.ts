import { emptyDrawing, firstStyle, plainPage, type Drawing, type Line, type Node, type Point } from '@/core';
import { settledRuns } from '../change/settleEdits';
import { placedReference } from '../change/referenceEdits';
import { inkPicture } from '../test/inkPicture';
import { measureLine, referenceBeneath, together } from './lineDistance';

const p = (x: number, y: number): Point => ({ x, y });
const corner = (at: Point, into: Point | null, out: Point | null): Node => ({
  point: at,
  in: into,
  out,
  kind: 'corner',
});
// A picture of 400 x 300 px on a page of 800 x 600: two page units a px. Its stroke is level, at 120 px.
const image = inkPicture(400, 300, [{ cubics: [[p(40, 120), p(140, 120), p(260, 120), p(360, 120)]], width: 6 }]);
const page = plainPage({ width: 800, height: 600, unit: 'px', dpi: 96, ground: null });
const reference = placedReference(page, {
  id: 'r',
  name: 'scan',
  picture: 'a'.repeat(64),
  pixelWidth: 400,
  pixelHeight: 300,
  dpi: null,
});
const level = (y: number): Line => ({
  id: `y${y}`,
  style: firstStyle,
  runs: [{ closed: false, nodes: [corner(p(120, y), null, p(200, 0)), corner(p(680, y), p(-200, 0), null)] }],
});

test('figures are px of the reference, places page units, wherever the picture lies', () => {
  const d = measureLine(level(246), reference, image, 12);
  expect(d.mean).toBeCloseTo(3, 1);
  expect(d.max).toBeLessThan(3.2);
  expect(d.inked).toBe(1);
  expect(d.worst!.y).toBeCloseTo(246, 3);
  expect(d.places[d.places.length - 2]).toBeCloseTo(560, 0);
  const flipped = { ...reference, flipY: true, turn: 180, flipX: true };
  expect(measureLine(level(246), flipped, image, 12).mean).toBeCloseTo(3, 1);
  const turned = { ...reference, turn: 180 };
  expect(measureLine(level(354), turned, image, 12).mean).toBeCloseTo(3, 1);
  expect(measureLine(level(500), reference, image, 12)).toMatchObject({ inked: 0, mean: 0, worst: null });
});

test('several lines together: each place counts alike; what has no ink is left out', () => {
  const list = [level(240), level(246), level(500)].map((l) => measureLine(l, reference, image, 12));
  const all = together(list);
  expect(all.mean).toBeCloseTo(1.5, 1);
  expect(all.max).toBeCloseTo(3, 0);
  expect(all.inked).toBeCloseTo(2 / 3, 1);
  expect(together([])).toEqual({ mean: 0, p95: 0, max: 0, inked: 0 });
});

test('a line is measured against the uppermost picture beneath it that lies under the work', () => {
  const empty = emptyDrawing(page, { id: 's', name: 'S', tag: '#000000' });
  const small = { ...reference, id: 'small', at: p(0, 0), width: 80, height: 60 };
  const d: Drawing = { ...empty, references: [reference, small, { ...reference, id: 'b', beside: true }] };
  expect(referenceBeneath(d, level(240))?.id).toBe('r');
  expect(referenceBeneath({ ...d, references: [{ ...reference, visible: false }] }, level(240))).toBeNull();
});

test('settled by half a line goes half the way; only chosen nodes move; kinds stay', () => {
  const all = settledRuns(level(248), reference, image, { reach: 12, strength: 1 });
  expect(all[0].nodes.every((n) => Math.abs(n.point.y - 240) < 0.5 && n.kind === 'corner')).toBe(true);
  const half = settledRuns(level(248), reference, image, { reach: 12, strength: 0.5 });
  expect(half[0].nodes.every((n) => Math.abs(n.point.y - 244) < 0.4)).toBe(true);
  const one = settledRuns(level(248), reference, image, { reach: 12, strength: 1 }, new Set(['0:1']));
  expect(one[0].nodes[0]).toEqual(level(248).runs[0].nodes[0]);
  expect(one[0].nodes[1].point.y).toBeCloseTo(240, 0);
  const away = level(500);
  expect(settledRuns(away, reference, image, { reach: 12, strength: 1 })).toBe(away.runs);
});
