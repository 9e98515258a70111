import {
  emptyDrawing,
  firstStyle,
  plainPage,
  type Cubic,
  type Drawing,
  type Line,
  type Node,
  type Point,
} from '@/core';
import { runFromCubics } from '../drawing/fromCubics';
import { settledRuns } from '../edits/settle';
import { inkPicture } from '../test/inkPicture';
import { laidReference } from '../test/laidReference';
import { measureLine, together } from './lineDistance';
import { referenceBeneath } from '../drawing/beneath';
import { measureMoved } from './lineMoved';

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
const reference = laidReference(page, 400, 300);
const measure = (line: Line, r = reference) => measureLine(line, r, image, 12).distance;
/** A circle of eight arcs. */
const ring = (c: Point, r: number): Cubic[] =>
  Array.from({ length: 8 }, (_, i): Cubic => {
    const on = (a: number): Point => p(c.x + r * Math.cos(a), c.y + r * Math.sin(a));
    const [a, b] = [(i * Math.PI) / 4, ((i + 1) * Math.PI) / 4];
    const h = (4 / 3) * Math.tan(Math.PI / 16) * r;
    const [s, e] = [on(a), on(b)];
    return [s, p(s.x - h * Math.sin(a), s.y + h * Math.cos(a)), p(e.x + h * Math.sin(b), e.y - h * Math.cos(b)), e];
  });
const level = (y: number): Line => ({
  id: `y${y}`,
  style: firstStyle,
  runs: [{ closed: false, nodes: [corner(p(120, y), null, p(200, 0)), corner(p(680, y), p(-200, 0), null)] }],
});

test('figures are px of the reference, places page units, wherever the picture lies', () => {
  const d = measure(level(246));
  expect(d.mean).toBeCloseTo(3, 1);
  expect(d.max).toBeLessThan(3.2);
  expect(d.inked).toBe(1);
  expect(d.worst!.y).toBeCloseTo(246, 3);
  expect(d.places[d.places.length - 2]).toBeCloseTo(560, 0);
  const flipped = { ...reference, flipY: true, turn: 180, flipX: true };
  expect(measure(level(246), flipped).mean).toBeCloseTo(3, 1);
  const turned = { ...reference, turn: 180 };
  expect(measure(level(354), turned).mean).toBeCloseTo(3, 1);
  expect(measure(level(500))).toMatchObject({ inked: 0, mean: 0, worst: null });
});

test('several lines together: each place counts alike; what has no ink is left out', () => {
  const list = [level(240), level(246), level(500)].map((l) => measure(l));
  const all = together(list);
  expect(all.mean).toBeCloseTo(1.5, 1);
  expect(all.max).toBeCloseTo(3, 0);
  expect(all.inked).toBeCloseTo(2 / 3, 1);
  expect(together([])).toEqual({ mean: 0, p95: 0, max: 0, inked: 0 });
});

test('a part that moves is measured anew, and the line then has the figures that it has as a whole', () => {
  // A closed line, whose ink is a ring; its nodes are moved one after another, over the seam too.
  const round = ring(p(200, 150), 90);
  const drawn = inkPicture(400, 300, [{ cubics: round, width: 6 }]);
  const onPage = round.map((c) => c.map((q) => p(2 * q.x, 2 * q.y)) as Cubic);
  const line: Line = { id: 'ring', style: firstStyle, runs: [runFromCubics(onPage, true)] };
  const before = measureLine(line, reference, drawn, 12);
  for (let node = 0; node < line.runs[0].nodes.length; node++) {
    const nodes = line.runs[0].nodes.map((n, i) => (i === node ? { ...n, point: p(n.point.x + 9, n.point.y - 5) } : n));
    const moved: Line = { ...line, runs: [{ closed: true, nodes }] };
    const part = measureMoved(moved, before, reference, drawn, 12)!;
    const whole = measureLine(moved, reference, drawn, 12);
    expect(Math.abs(part.distance.mean - whole.distance.mean)).toBeLessThan(0.05);
    expect(Math.abs(part.distance.max - whole.distance.max)).toBeLessThan(0.15);
    expect(part.distance.inked).toBeCloseTo(whole.distance.inked, 1);
    expect(Math.abs(part.distance.places.length - whole.distance.places.length)).toBeLessThanOrEqual(16);
    const along = (m: typeof part): number => m.distance.places[m.distance.places.length - 2];
    expect(Math.abs(along(part) - along(whole))).toBeLessThan(6);
    // What did not move keeps its very figures.
    const kept = new Set(before.distance.places);
    expect(part.distance.places.filter((v, i) => i % 4 !== 2 && kept.has(v)).length).toBeGreaterThan(300);
    // Back in its place, it is as it was.
    expect(measureMoved(line, part, reference, drawn, 12)!.distance.mean).toBeCloseTo(before.distance.mean, 1);
  }
  const more = { ...line, runs: [{ closed: true, nodes: line.runs[0].nodes.slice(1) }] };
  expect(measureMoved(more, before, reference, drawn, 12)).toBeNull();
  const away = line.runs[0].nodes.map((n) => ({ ...n, point: p(n.point.x + 3, n.point.y) }));
  expect(measureMoved({ ...line, runs: [{ closed: true, nodes: away }] }, before, reference, drawn, 12)).toBeNull();
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

test('a part that strays beyond the reach from its ink is told as far off, not as invented', () => {
  // The second half leaves the ink, which runs level, by up to 60 page units: 30 px, twice and a half the reach.
  const leaving: Line = {
    id: 'leaving',
    style: firstStyle,
    runs: [
      {
        closed: false,
        nodes: [
          corner(p(120, 240), null, p(90, 0)),
          corner(p(400, 240), p(-90, 0), p(90, 0)),
          corner(p(680, 300), p(-90, -10), null),
        ],
      },
    ],
  };
  const d = measure(leaving);
  expect(d.inked).toBeGreaterThan(0.9);
  expect(d.max).toBeGreaterThan(20);
  expect(d.worst!.x).toBeGreaterThan(600);
  // What has no ink about it at all still is invented.
  expect(measure(level(500)).inked).toBe(0);
});
