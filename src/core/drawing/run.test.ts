import { linesOf } from './items';
import fc from 'fast-check';
import { refitAsOne } from '../geometry/refit';
import { applyChange } from '../change/apply';
import { moveNodes, removeNodes } from '../edits/nodes';
import { cubicAt, splitCubic, type Cubic } from '../geometry/cubic';
import { nearestOnCubic } from '../geometry/nearest';
import { add, cross, distance, dot, lengthOf, point, scale, subtract } from '../geometry/point';
import { mixedRun, wanderingDrawing } from '../test/drawings';
import { randomCubics } from '../test/randomCubics';
import { samples } from '../test/bruteForce';
import { withHandle, withKind } from './node';
import { cornerAt, cubicsOf, lineBox, lineLength, nearestOnLine, segmentCount, skeletonBox, withNodeAt } from './run';
import { firstStyle, type Drawing, type Line, type Node, type Run } from './schema';

const lineOf = (...runs: Run[]): Line => ({ id: 'l', style: firstStyle, runs });
const asFresh = (run: Run): Run => structuredClone(run);
const runCases = fc.record({
  seed: fc.nat(1000),
  count: fc.integer({ min: 2, max: 7 }),
  closed: fc.boolean(),
  t: fc.double({ min: 0.02, max: 0.98, noNaN: true }),
});

test('a node put on a segment leaves the curve as it was', () => {
  fc.assert(
    fc.property(runCases, ({ seed, count, closed, t }) => {
      const run = mixedRun(seed, count, closed);
      const segment = seed % segmentCount(run);
      const after = withNodeAt(run, segment, t);
      expect(after.nodes).toHaveLength(count + 1);
      const whole = cubicsOf(run)[segment];
      const [left, right] = [cubicsOf(after)[segment], cubicsOf(after)[segment + 1]];
      for (const s of [0.3, 1]) {
        expect(nearestOnCubic(whole, cubicAt(left, s)).distance).toBeLessThan(1e-6);
        expect(nearestOnCubic(whole, cubicAt(right, s)).distance).toBeLessThan(1e-6);
      }
      expect(lineLength(lineOf(after))).toBeCloseTo(lineLength(lineOf(run)), 4);
    }),
  );
});

test('the box of a line holds all of its body and no more than its width beyond', () => {
  fc.assert(
    fc.property(runCases, ({ seed, count, closed }) => {
      const line = lineOf(mixedRun(seed, count, closed));
      const box = skeletonBox(line);
      const all = line.runs.flatMap((r) => cubicsOf(r).flatMap((c) => samples(c, 0, 1, 60)));
      for (const p of all) {
        expect(
          p.x >= box.minX - 1e-9 && p.x <= box.maxX + 1e-9 && p.y >= box.minY - 1e-9 && p.y <= box.maxY + 1e-9,
        ).toBe(true);
      }
      expect(lineBox(line).minX).toBeLessThanOrEqual(Math.min(...all.map((p) => p.x)) - firstStyle.width / 2);
    }),
  );
});

test('the nearest place on a line is on the segment that is nearest', () => {
  const run: Run = {
    closed: false,
    nodes: [cornerAt(point(0, 0)), cornerAt(point(100, 0)), cornerAt(point(100, 100))],
  };
  expect(nearestOnLine(lineOf(run), point(93, 60))).toMatchObject({
    run: 0,
    segment: 1,
    distance: expect.closeTo(7, 9),
  });
  expect(nearestOnLine(lineOf({ closed: false, nodes: run.nodes.slice(0, 1) }), point(1, 1))).toBeNull();
});

describe('kinds of node', () => {
  const node = (kind: Node['kind']): Node => ({ point: point(0, 0), in: point(-10, 0), out: point(20, 0), kind });
  test('smooth keeps the other handle in line and its length', () => {
    const after = withHandle(node('smooth'), 'out', point(0, 30));
    expect(after.in!.x).toBeCloseTo(0, 9);
    expect(after.in!.y).toBeCloseTo(-10, 9);
  });
  test('even makes the other as long', () => {
    expect(withHandle(node('even'), 'in', point(0, -8))).toMatchObject({
      out: { x: expect.closeTo(0, 9), y: expect.closeTo(8, 9) },
    });
  });
  test('a corner, and any node with Alt, leaves the other alone', () => {
    expect(withHandle(node('corner'), 'out', point(1, 2)).in).toEqual(point(-10, 0));
    expect(withHandle(node('smooth'), 'out', point(1, 2), true)).toMatchObject({ in: point(-10, 0), kind: 'corner' });
  });
  test.each(['smooth', 'even'] as const)('a corner made %s gets handles in one line', (kind) => {
    fc.assert(
      fc.property(runCases, ({ seed, count, closed }) => {
        const run = mixedRun(seed, Math.max(3, count), closed);
        const after = withKind(run, 1, kind).nodes[1];
        expect(after.kind).toBe(kind);
        if (!after.in || !after.out || lengthOf(after.in) < 1e-6 || lengthOf(after.out) < 1e-6) return;
        expect(Math.abs(cross(after.in, after.out)) / (lengthOf(after.in) * lengthOf(after.out))).toBeLessThan(1e-6);
        expect(dot(after.in, after.out)).toBeLessThan(0);
        if (kind === 'even') expect(lengthOf(after.in)).toBeCloseTo(lengthOf(after.out), 6);
      }),
    );
  });
  test('a flowing node lies along its neighbours and follows when they move', () => {
    const run: Run = { closed: false, nodes: [cornerAt(point(0, 0)), cornerAt(point(60, 0)), cornerAt(point(120, 0))] };
    const flowing = withKind(run, 1, 'flowing');
    expect([flowing.nodes[1].in!.x, flowing.nodes[1].out!.x, flowing.nodes[1].out!.y]).toEqual([-20, 20, 0]);
    const d: Drawing = {
      ...wanderingDrawing(0, 1, 1),
      sheets: [{ ...wanderingDrawing(0, 1, 1).sheets[0], items: [{ id: 'l', style: firstStyle, runs: [flowing] }] }],
    };
    const [moved] = linesOf(
      applyChange(d, { id: 'c', ...moveNodes(d, [{ line: 'l', run: 0, node: 2 }], point(-60, 60)) }).sheets[0],
    );
    const { in: into, out } = moved.runs[0].nodes[1];
    expect(cross(into!, out!)).toBeCloseTo(0, 9);
    expect(out!.x).toBeCloseTo(out!.y, 9);
  });
});

describe('removing a node keeps the shape', () => {
  const deviation = (from: Cubic[], to: Cubic) =>
    Math.max(...from.flatMap((c) => samples(c, 0, 1, 40)).map((p) => nearestOnCubic(to, p).distance));

  test('a node that was only put in goes without a trace', () => {
    for (const { cubic } of randomCubics(9, 120).filter((c) => c.family === 'ordinary' || c.family === 'gentle')) {
      const [a, b] = splitCubic(cubic, 0.37);
      const size = distance(cubic[0], cubic[3]) + 1;
      expect(deviation([a, b], refitAsOne(a, b))).toBeLessThan(1e-3 * size);
    }
  });

  test('no pair of handle lengths on a grid does better by a tenth, in the mean square', () => {
    const rms = (from: Cubic[], to: Cubic) =>
      Math.sqrt(
        from.flatMap((c) => samples(c, 0, 1, 12)).reduce((sum, p) => sum + nearestOnCubic(to, p).distance ** 2, 0),
      );
    for (const { cubic } of randomCubics(21, 200)
      .filter((c) => c.family === 'gentle')
      .slice(0, 6)) {
      const [a, b] = splitCubic(cubic, 0.5);
      const bent: Cubic = [b[0], b[1], point(b[2].x + 20, b[2].y - 15), b[3]];
      const fitted = rms([a, bent], refitAsOne(a, bent));
      const [u, v] = [subtract(a[1], a[0]), subtract(bent[2], bent[3])];
      let best = Infinity;
      for (let i = 1; i <= 14; i++) {
        for (let j = 1; j <= 14; j++) {
          best = Math.min(
            best,
            rms([a, bent], [a[0], add(a[0], scale(u, i * 0.28)), add(bent[3], scale(v, j * 0.28)), bent[3]]),
          );
        }
      }
      expect(fitted).toBeLessThanOrEqual(best * 1.1 + 0.05);
    }
  });

  test('an end that goes shortens the line; a run left with one node goes', () => {
    const d = wanderingDrawing(2, 3, 4);
    const [line] = linesOf(d.sheets[0]);
    const open = { ...line, runs: [{ ...line.runs[0], closed: false }] };
    const drawing = { ...d, sheets: [{ ...d.sheets[0], items: [open] }] };
    const shorter = applyChange(drawing, { id: 'c', ...removeNodes(drawing, [{ line: line.id, run: 0, node: 0 }]) });
    expect(linesOf(shorter.sheets[0])[0].runs[0].nodes).toHaveLength(3);
    expect(linesOf(shorter.sheets[0])[0].runs[0].nodes[0].in).toBeNull();
    const none = applyChange(drawing, {
      id: 'c',
      ...removeNodes(
        drawing,
        [0, 1, 2].map((node) => ({ line: line.id, run: 0, node })),
      ),
    });
    expect(linesOf(none.sheets[0])).toHaveLength(0);
  });
});

test('the length of a line whose nodes move one by one is that of its segments as they are', () => {
  fc.assert(
    fc.property(runCases, ({ seed, count, closed }) => {
      let run = mixedRun(seed, count, closed);
      for (let i = 0; i < count; i++) {
        const nodes = run.nodes.map((n, k) => (k === i ? { ...n, point: add(n.point, point(seed % 7, 3)) } : n));
        run = { ...run, nodes };
        expect(lineLength(lineOf(run))).toBe(lineLength(lineOf(asFresh(run))));
      }
      // A segment between the same nodes, walked from the other, is another one.
      const [turned, open] = [
        { ...run, nodes: [...run.nodes].reverse() },
        { ...run, closed: false },
      ];
      for (const r of [turned, open]) expect(lineLength(lineOf(r))).toBe(lineLength(lineOf(asFresh(r))));
    }),
  );
});
