import { allLines, linesOf } from '../drawing/items';
import { applyChange, type Drawing } from '../index';
import { rectangle, star } from '../drawing/shapes';
import { firstStyle } from '../drawing/schema';
import { distance } from '../geometry/point';
import { wanderingDrawing } from '../test/drawings';
import { arcMiddle, radiusAt, roundable, roundCorners } from './round';

const box = { minX: 0, minY: 0, maxX: 100, maxY: 60 };
const base = wanderingDrawing(0, 1, 1);
const line = { id: 'a', style: firstStyle, runs: [rectangle(box)] };
const d: Drawing = { ...base, sheets: base.sheets.map((s, i) => (i === 0 ? { ...s, items: [line] } : s)) };
const radii = (of: Drawing) => linesOf(of.sheets[0])[0].runs[0].nodes.map((n) => n.radius ?? 0);

test('corners are rounded one by one or all, stay editable, and become sharp again without a trace', () => {
  const all = applyChange(d, { id: 'c', ...roundCorners(d, roundable([line]), 12) });
  expect(radii(all)).toEqual([12, 12, 12, 12]);
  const one = applyChange(all, { id: 'c', ...roundCorners(all, [{ line: 'a', run: 0, node: 2 }], 5) });
  expect(radii(one)).toEqual([12, 12, 5, 12]);
  const sharp = applyChange(one, { id: 'c', ...roundCorners(one, roundable([line]), 0) });
  expect(linesOf(sharp.sheets[0])[0].runs).toEqual(line.runs);
});

test('curved nodes, ends and lines that are gone are left alone', () => {
  const curved = wanderingDrawing(4, 3, 2);
  expect(roundable(allLines(curved))).toEqual([]);
  expect(roundCorners(d, [{ line: 'gone', run: 0, node: 0 }], 5).steps).toEqual([]);
  expect(roundable([{ ...line, runs: [{ ...line.runs[0], closed: false }] }])).toHaveLength(2);
});

test('the middle of an arc and the radius for a place are each other’s inverse', () => {
  for (const run of [rectangle(box), star({ x: 50, y: 50 }, 40, 5, 0.5)]) {
    run.nodes.forEach((n, i) => {
      const middle = arcMiddle(run, i, 6)!;
      expect(radiusAt(run, i, middle)).toBeCloseTo(6, 6);
      // An arc about it touches both sides.
      const [a, b] = [run.nodes[(i + run.nodes.length - 1) % run.nodes.length].point, n.point];
      const along = ((middle.x - b.x) * (a.x - b.x) + (middle.y - b.y) * (a.y - b.y)) / distance(a, b);
      expect(Math.sqrt(distance(middle, b) ** 2 - along ** 2)).toBeCloseTo(6, 6);
    });
  }
  expect(radiusAt(rectangle(box), 0, { x: -50, y: -50 })).toBe(0);
  expect(radiusAt(rectangle(box), 0, { x: 900, y: 900 })).toBeCloseTo(60, 6);
});
