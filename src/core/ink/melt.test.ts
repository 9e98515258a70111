import { cubicAt, straightCubic, type Cubic } from '../geometry/cubic';
import { nearestOnCubic } from '../geometry/nearest';
import { scale, type Point } from '../geometry/point';
import { areaBetween, bodyOfOutlines } from '../test/bodyOracle';
import { randomCubics } from '../test/randomCubics';
import { melted, shapeAt, shapesOf } from './melt';
import { strokeOutline } from './strokeOutline';

const P = (x: number, y: number): Point => ({ x, y });
const ring = (...points: Point[]): Cubic[] => points.map((p, i) => straightCubic(p, points[(i + 1) % points.length]));
const square = (x: number, y: number, side: number): Cubic[] =>
  ring(P(x, y), P(x + side, y), P(x + side, y + side), P(x, y + side));
const turned = (o: Cubic[]): Cubic[] => o.map(([a, b, c, d]): Cubic => [d, c, b, a]).reverse();

test('bodies that overlap become what they cover, to a ten-thousandth', () => {
  randomCubics(19, 30).forEach(({ cubic }, i) => {
    const run = { cubics: [cubic.map((p) => scale(p, 0.2)) as Cubic], closed: i % 3 === 0 };
    const body = strokeOutline(
      run,
      [
        { at: 0, left: 4, right: 4 },
        { at: 1, left: 1, right: 1 },
      ],
      {
        cap: 'round',
        join: 'round',
        tolerance: 0.02,
      },
    );
    const { difference, area } = areaBetween(bodyOfOutlines(body), bodyOfOutlines(melted(body)));
    expect(difference).toBeLessThan(2e-4 * area);
  });
});

test('what touches is one shape, what does not is another; holes stay with theirs', () => {
  const both = melted([
    square(0, 0, 10),
    square(6, 6, 10),
    square(40, 0, 10),
    square(60, 0, 30),
    turned(square(70, 10, 10)),
  ]);
  const shapes = shapesOf(both);
  expect(shapes.map((s) => s.length).sort()).toEqual([1, 1, 2]);
  expect(shapes.find((s) => s[0].length === 8)).toBeDefined();
  const area = areaBetween(bodyOfOutlines(both), new Map()).area;
  expect(area).toBeCloseTo(100 + 100 - 16 + 100 + 900 - 100, 0);
});

test('a stroke that runs back on itself, edge on edge, is melted whole', () => {
  for (const { family, cubic } of randomCubics(21, 160)) {
    if (family !== 'straight, doubling back') continue;
    const run = { cubics: [cubic.map((p) => scale(p, 0.2)) as Cubic], closed: false };
    const body = strokeOutline(run, [{ at: 0, left: 3, right: 3 }], { cap: 'round', join: 'round', tolerance: 0.05 });
    const one = melted(body);
    const { difference, area } = areaBetween(bodyOfOutlines(body), bodyOfOutlines(one));
    expect(difference).toBeLessThan(1e-3 * area);
    // No edge is left within: all of them are half a width from the line.
    for (const c of one.flat()) {
      const off = nearestOnCubic(run.cubics[0], cubicAt(c, 0.5)).distance - 3;
      expect(Math.abs(off)).toBeLessThan(0.06);
    }
  }
});

test('the shape that a place lies in is found: not in its holes, but on its rim', () => {
  const shapes = shapesOf(melted([square(0, 0, 10), square(60, 0, 30), turned(square(70, 10, 10))]));
  const [small, framed] = [shapes.findIndex((s) => s.length === 1), shapes.findIndex((s) => s.length === 2)];
  expect(shapeAt(shapes, P(5, 5))).toBe(small);
  expect(shapeAt(shapes, P(65, 5))).toBe(framed);
  expect(shapeAt(shapes, P(70, 12))).toBe(framed);
});

test('straight sides have no handles; nothing gives nothing', () => {
  expect(
    melted([square(0, 0, 5)])[0].every(([a, b, c, d]) => a.x === b.x && a.y === b.y && c.x === d.x && c.y === d.y),
  ).toBe(true);
  expect(melted([])).toEqual([]);
  expect(shapesOf([])).toEqual([]);
});
