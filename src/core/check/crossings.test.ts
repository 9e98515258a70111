import fc from 'fast-check';
import { runFromCubics } from '../drawing/fromCubics';
import { cubicsOf } from '../drawing/run';
import type { Cubic } from '../geometry/cubic';
import { intersectCubics } from '../geometry/intersection';
import { add, distance, scale, subtract, type Point } from '../geometry/point';
import { seeded } from '../seeded';
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

test('a segment that meets the one it joins is found wherever it does, sharp corners and loops among them', () => {
  const random = seeded(77);
  const place = (): Point => ({ x: random() * 100, y: random() * 100 });
  let met = 0;
  for (let i = 0; i < 400; i++) {
    const joint = place();
    const a: Cubic = [place(), place(), place(), joint];
    // Every third goes on smoothly, every fifth comes back the way it came.
    const on = i % 3 === 0 ? add(joint, scale(subtract(joint, a[2]), 0.5 + random())) : i % 5 === 0 ? a[2] : place();
    const b: Cubic = [joint, on, place(), place()];
    const there = intersectCubics(a, b).filter((m) => distance(m.point, joint) > 1e-4);
    // A place where one crosses itself as well is told of once.
    const all = crossingsOf(runFromCubics([a, b], false));
    const found = all.filter((c) => c.first === 0 && c.second === 1);
    for (const { point } of there) expect(all.some((c) => distance(c.point, point) < 1e-3)).toBe(true);
    for (const { point } of found.filter((c) => distance(c.point, joint) > 1e-3))
      expect(there.some((m) => distance(m.point, point) < 1e-3)).toBe(true);
    met += there.length;
  }
  expect(met).toBeGreaterThan(100);
});
