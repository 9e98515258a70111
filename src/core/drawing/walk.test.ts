import { distance } from '../geometry/point';
import { mixedRun } from '../test/drawings';
import { cubicsOf, nearestOnLine } from './run';
import { ellipse } from './shapes';
import { walkAlong } from './walk';

const circle = ellipse({ minX: -100, minY: -100, maxX: 100, maxY: 100 });
const length = (points: { x: number; y: number }[]): number =>
  points.slice(1).reduce((sum, p, i) => sum + distance(p, points[i]), 0);

test('a walk goes as far as asked, either way, over nodes and the seam', () => {
  for (const sign of [1, -1] as const) {
    const start = { segment: 3, t: 0.9 };
    const { points, place } = walkAlong(circle, start, sign, 200);
    expect(length(points)).toBeGreaterThan(190);
    expect(length(points)).toBeLessThan(206);
    const end = cubicsOf(circle)[place.segment];
    expect(Math.min(distance(points.at(-1)!, end[0]), distance(points.at(-1)!, end[3]))).toBeLessThan(160);
    for (const p of points) expect(Math.hypot(p.x, p.y)).toBeCloseTo(100, 0);
  }
});

test('it stops at the end of an open run', () => {
  const run = mixedRun(3, 4, false);
  const { points, place } = walkAlong(run, { segment: 1, t: 0.5 }, 1, 1e6);
  expect(place).toEqual({ segment: 2, t: 1 });
  expect(distance(points.at(-1)!, run.nodes[3].point)).toBeLessThan(1e-9);
  for (const p of points)
    expect(nearestOnLine({ id: 'x', style: {} as never, runs: [run] }, p)!.distance).toBeLessThan(1e-6);
  expect(walkAlong(run, { segment: 0, t: 0 }, -1, 50)).toEqual({ points: [], place: { segment: 0, t: 0 } });
});
