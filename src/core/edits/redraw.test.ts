import fc from 'fast-check';
import type { Point, Run } from '../index';
import { ellipse } from '../drawing/shapes';
import { cornerAt, cubicsOf, nearestOnLine, segmentCount } from '../drawing/run';
import type { RunPlace } from '../drawing/walk';
import { mixedRun } from '../test/drawings';
import { evaluate } from '../geometry/cubic';
import { distance } from '../geometry/point';
import { redrawnRun } from './redraw';

const at = (run: Run, p: RunPlace): Point => evaluate(cubicsOf(run)[p.segment], p.t);
const stroke = (a: Point, b: Point, by = 30): Run => ({
  closed: false,
  nodes: [cornerAt(a), cornerAt({ x: (a.x + b.x) / 2 + by, y: (a.y + b.y) / 2 + by }), cornerAt(b)],
});
const shares = Array.from({ length: 21 }, (_, i) => i / 20);
const samples = (run: Run): Point[] => cubicsOf(run).flatMap((c) => shares.map((t) => evaluate(c, t)));

describe('redrawing a part of a line', () => {
  it('keeps an open line outside the part, ends and all, whichever way the stroke runs', () => {
    const place = fc.record({ segment: fc.integer({ min: 0, max: 3 }), t: fc.constantFrom(0, 0.13, 0.5, 0.82, 1) });
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 200 }), place, place, (seed, p, q) => {
        const run = mixedRun(seed, 5, false);
        const order = (x: RunPlace): number => x.segment + x.t;
        fc.pre(Math.abs(order(p) - order(q)) > 0.05);
        fc.pre(Math.min(order(p), order(q)) > 0.01 || Math.max(order(p), order(q)) < 3.99);
        const way = stroke(at(run, p), at(run, q), 20);
        const next = redrawnRun(run, p, q, way);
        expect(next.closed).toBe(false);
        const [low, high] = [Math.min(order(p), order(q)), Math.max(order(p), order(q))];
        // What lies before and after is drawn as it was; the stroke's own middle is on the line.
        cubicsOf(run).forEach((c, i) =>
          shares.forEach((t) => {
            if (i + t > low + 1e-9 && i + t < high - 1e-9) return;
            expect(nearestOnLine({ id: 'x', style: {} as never, runs: [next] }, evaluate(c, t))!.distance).toBeLessThan(
              1e-6,
            );
          }),
        );
        expect(next.nodes.some((n) => distance(n.point, way.nodes[1].point) < 1e-9)).toBe(true);
        const [first, last] = [next.nodes[0], next.nodes.at(-1)!];
        expect([first.in, last.out]).toEqual([low > 0 ? run.nodes[0].in : null, high < 4 ? run.nodes[4].out : null]);
      }),
      { numRuns: 300 },
    );
  });

  it('from end to end replaces the whole line where it runs along it, and closes it where it leads on around', () => {
    const run: Run = { closed: false, nodes: [cornerAt({ x: 0, y: 0 }), cornerAt({ x: 100, y: 0 })] };
    const [first, last] = [
      { segment: 0, t: 0 },
      { segment: 0, t: 1 },
    ];
    const way = (...places: [number, number][]): Run => ({
      closed: false,
      nodes: places.map(([x, y]) => cornerAt({ x, y })),
    });
    const along = way([0, 0], [50, 30], [100, 0]);
    expect(redrawnRun(run, first, last, along)).toEqual(along);
    const back = redrawnRun(run, last, first, way([100, 0], [50, 30], [0, 0]));
    expect([back.closed, back.nodes.map((n) => n.point.x)]).toEqual([false, [0, 50, 100]]);
    const around = redrawnRun(run, last, first, way([100, 0], [140, 60], [-40, 60], [0, 0]));
    expect([around.closed, around.nodes.length]).toEqual([true, 4]);
  });

  it('of a closed line, it is the part that the stroke is nearer to', () => {
    const run = ellipse({ minX: 0, minY: 0, maxX: 200, maxY: 200 });
    // From the right to the bottom, well outside: the lower right quarter gives way. Both ways round.
    const [right, bottom] = [
      { segment: 1, t: 0 },
      { segment: 2, t: 0 },
    ];
    for (const [p, q] of [
      [right, bottom],
      [bottom, right],
    ]) {
      const next = redrawnRun(run, p, q, stroke(at(run, p), at(run, q), 80));
      expect(next.closed).toBe(true);
      expect(segmentCount(next)).toBe(5);
      const far = Math.max(...samples(next).map((s) => s.x + s.y));
      expect(far).toBeGreaterThan(440 - 100);
      for (const s of samples(run).filter((s) => s.x < 99 || s.y < 99))
        expect(nearestOnLine({ id: 'x', style: {} as never, runs: [next] }, s)!.distance).toBeLessThan(1e-6);
    }
  });

  it('runs on smoothly where the stroke does, along what was there', () => {
    const run = ellipse({ minX: 0, minY: 0, maxX: 200, maxY: 200 });
    const way: Run = {
      closed: false,
      nodes: [
        { point: { x: 200, y: 100 }, in: null, out: { x: 5, y: 40 }, kind: 'corner' },
        { point: { x: 100, y: 200 }, in: { x: 40, y: 5 }, out: null, kind: 'corner' },
      ],
    };
    const next = redrawnRun(run, { segment: 1, t: 0 }, { segment: 2, t: 0 }, way);
    const joints = next.nodes.filter((n) =>
      [way.nodes[0], way.nodes[1]].some((w) => distance(w.point, n.point) < 1e-9),
    );
    expect(joints.map((n) => n.kind)).toEqual(['smooth', 'smooth']);
    expect(joints[0].out!.x * joints[0].in!.y - joints[0].out!.y * joints[0].in!.x).toBeCloseTo(0, 6);
  });

  it('from one end of an open line to the other, it closes it', () => {
    const run: Run = { closed: false, nodes: [0, 50, 100].map((x) => cornerAt({ x, y: 0 })) };
    for (const [p, q] of [
      [
        { segment: 1, t: 1 },
        { segment: 0, t: 0 },
      ],
      [
        { segment: 0, t: 0 },
        { segment: 1, t: 1 },
      ],
    ]) {
      const next = redrawnRun(run, p, q, stroke(at(run, p), at(run, q), 40));
      expect(next).toMatchObject({ closed: true, nodes: { length: 4 } });
    }
  });
});
