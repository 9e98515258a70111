import fc from 'fast-check';
import { cubicAt } from '../index';
import { mixedRun } from '../test/drawings';
import { boxRegion, figureRegion, liesInRegion, regionHolds, touchesRegion } from './region';
import { cubicsOf } from './run';

const figure = [
  { x: 20, y: 20 },
  { x: 150, y: 30 },
  { x: 120, y: 160 },
  { x: 90, y: 60 },
  { x: 10, y: 140 },
];

test('what lies in a region and what touches it, against many samples of each line', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 400 }), fc.boolean(), fc.boolean(), (seed, closed, lasso) => {
      const run = mixedRun(seed, 3, closed);
      const region = lasso ? figureRegion(figure) : boxRegion({ minX: 5, minY: 10, maxX: 140, maxY: 150 });
      const inside = cubicsOf(run).flatMap((c) =>
        Array.from({ length: 401 }, (_, i) => regionHolds(region, cubicAt(c, i / 400))),
      );
      // A piece smaller than a hair may be missed, and a sample may miss one: no more than a few samples may differ.
      const share = inside.filter(Boolean).length / inside.length;
      if (share > 0.01) expect(touchesRegion({ runs: [run] }, region)).toBe(true);
      if (share === 0) expect(inside.some(Boolean)).toBe(false);
      if (share < 0.99) expect(liesInRegion({ runs: [run] }, region)).toBe(false);
      if (liesInRegion({ runs: [run] }, region)) expect(share).toBeGreaterThan(0.99);
      if (!touchesRegion({ runs: [run] }, region)) expect(share).toBeLessThan(0.01);
    }),
    { numRuns: 200 },
  );
});

test('a line around a region does not touch it; a line that runs through it does, with no node inside', () => {
  const straight = (a: [number, number], b: [number, number]) => ({
    runs: [
      {
        closed: false,
        nodes: [a, b].map(([x, y]) => ({ point: { x, y }, in: null, out: null, kind: 'corner' as const })),
      },
    ],
  });
  const box = boxRegion({ minX: 0, minY: 0, maxX: 10, maxY: 10 });
  expect(touchesRegion(straight([-50, 5], [50, 6]), box)).toBe(true);
  expect(liesInRegion(straight([-50, 5], [50, 6]), box)).toBe(false);
  expect(touchesRegion(straight([-50, 12], [50, 12]), box)).toBe(false);
  // Into the notch of the figure: within its box, outside of it.
  expect(touchesRegion(straight([85, 100], [88, 140]), figureRegion(figure))).toBe(false);
  expect(liesInRegion(straight([100, 50], [120, 100]), figureRegion(figure))).toBe(true);
});
