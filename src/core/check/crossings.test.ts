import fc from 'fast-check';
import { cubicsOf } from '../drawing/run';
import { intersectCubics } from '../geometry/intersection';
import { distance } from '../geometry/point';
import { mixedRun } from '../test/drawings';
import { crossingsOf } from './crossings';

const runs = fc.record({ seed: fc.nat(5000), count: fc.integer({ min: 3, max: 9 }), closed: fc.boolean() });

test('segments that follow each other are told to cross where they do, however they bend', () => {
  let crossed = 0;
  fc.assert(
    fc.property(runs, ({ seed, count, closed }) => {
      const run = mixedRun(seed, count, closed);
      const list = cubicsOf(run);
      const found = crossingsOf(run);
      list.slice(1).forEach((next, i) => {
        for (const { ta, tb, point } of intersectCubics(list[i], next)) {
          if (ta > 1 - 1e-3 && tb < 1e-3) continue;
          crossed++;
          expect(found.some((f) => distance(f.point, point) < 1e-2)).toBe(true);
        }
      });
    }),
    { numRuns: 300 },
  );
  expect(crossed).toBeGreaterThan(20);
});

test('a run that winds forward crosses nothing', () => {
  const nodes = Array.from({ length: 12 }, (_, i) => ({
    point: { x: 40 * i, y: i % 2 ? 60 : -60 },
    in: { x: -15, y: 10 },
    out: { x: 15, y: -10 },
    kind: 'corner' as const,
  }));
  expect(crossingsOf({ closed: false, nodes })).toEqual([]);
  // Bent back over its beginning, it crosses that.
  const back = [...nodes, { ...nodes[0], point: { x: 20, y: -200 } }, { ...nodes[0], point: { x: 20, y: 200 } }];
  expect(crossingsOf({ closed: false, nodes: back }).length).toBeGreaterThan(0);
});
