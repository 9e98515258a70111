import { linesOf } from '../../drawing/items';
import fc from 'fast-check';
import { findNotes } from '../../check/findNotes';
import { fixAll } from './fixNote';
import { cornerAt, cubicsOf, nearestOnLine } from '../../drawing/run';
import { firstStyle } from '../../drawing/schema';
import type { Drawing, Line, Node, Run } from '../../drawing/schema';
import { evaluate } from '../../geometry/cubic';
import { distance, type Point } from '../../geometry/point';
import { emptyDrawing, plainPage } from '../../drawing/schema';
import { applyChange } from '../../change/apply';
import { waysToClose } from './gaps';
import { addLine } from '../lines';

const REACH = 6;
const p = (x: number, y: number): Point => ({ x, y });
const straight = (...places: Point[]): Run => ({ closed: false, nodes: places.map(cornerAt) });
const curve = (a: Point, out: Point, into: Point, b: Point): Run => ({
  closed: false,
  nodes: [
    { point: a, in: null, out, kind: 'corner' },
    { point: b, in: into, out: null, kind: 'corner' },
  ],
});

function drawing(runs: readonly Run[]): Drawing {
  const page = plainPage({ width: 600, height: 400, unit: 'px', dpi: 96, ground: null });
  return runs.reduce(
    (d, run, i) => applyChange(d, { id: `c${i}`, ...addLine(d, 's', { id: `l${i}`, style: firstStyle, runs: [run] }) }),
    emptyDrawing(page, { id: 's', name: 'S', tag: '#446688' }),
  );
}
const lines = (d: Drawing): readonly Line[] => linesOf(d.sheets[0]);
const along = (l: Line): Point[] =>
  l.runs.flatMap(cubicsOf).flatMap((c) => Array.from({ length: 21 }, (_, i) => evaluate(c, i / 20)));
const gaps = (d: Drawing) => findNotes(d).filter((n) => n.kind === 'gap');
const fixed = (d: Drawing): Drawing => applyChange(d, { id: 'fix', ...fixAll(d, gaps(d), 'Fix').edit });
const ends = (l: Line): Point[] => [l.runs[0].nodes[0].point, l.runs[0].nodes.at(-1)!.point];

/** How far what was drawn lies from what is there now. */
const moved = (before: Drawing, after: Drawing): number =>
  Math.max(
    ...lines(before).flatMap((l) => {
      const now = lines(after).find((x) => x.id === l.id)!;
      return along(l).map((q) => nearestOnLine(now, q)!.distance);
    }),
  );

test('an end is carried straight on to the line it misses, and its segment is not bent', () => {
  const d = drawing([curve(p(100, 100), p(60, -60), p(-40, 30), p(296, 200)), straight(p(300, 120), p(300, 280))]);
  const after = fixed(d);
  const end = lines(after)[0].runs[0].nodes.at(-1)!.point;
  expect(end.x).toBeCloseTo(300, 6);
  expect(end.y).toBeLessThan(200);
  expect(moved(d, after)).toBeLessThan(0.1);
  expect(lines(after)[1]).toBe(lines(d)[1]);
});

test('a straight end stays one straight segment', () => {
  const after = fixed(drawing([straight(p(100, 100), p(296, 100)), straight(p(300, 50), p(300, 150))]));
  expect(lines(after)[0].runs[0].nodes.map((n) => [n.point, n.in, n.out])).toEqual([
    [p(100, 100), null, null],
    [p(300, 100), null, null],
  ]);
});

test('two ends whose ways cross meet in the corner; two in one direction are led over smoothly', () => {
  const corner = fixed(drawing([straight(p(100, 100), p(197, 100)), straight(p(200, 200), p(200, 104))]));
  expect(lines(corner).map((l) => ends(l)[1])).toEqual([p(200, 100), p(200, 100)]);
  const shifted = drawing([straight(p(100, 100), p(200, 100)), straight(p(205, 101), p(300, 101))]);
  const after = fixed(shifted);
  expect(ends(lines(after)[0])[1]).toEqual(p(205, 101));
  expect(moved(shifted, after)).toBeLessThan(0.1);
  expect(lines(after)[1]).toBe(lines(shifted)[1]);
});

test('a line that nearly closes is closed, its start where it was or in the corner', () => {
  const ring = drawing([straight(p(100, 100), p(200, 100), p(200, 200), p(100, 200), p(100, 104))]);
  const [run] = lines(fixed(ring))[0].runs;
  expect([run.closed, run.nodes.map((n) => n.point)]).toEqual([
    true,
    [p(100, 100), p(200, 100), p(200, 200), p(100, 200)],
  ]);
});

test('what lies aside of the way is left alone, and said to be', () => {
  const d = drawing([straight(p(100, 100), p(200, 100)), straight(p(150, 104), p(300, 104))]);
  const { edit, left } = fixAll(d, gaps(d), 'Fix');
  expect(gaps(d).length).toBeGreaterThan(0);
  expect([edit.steps, left.length]).toEqual([[], gaps(d).length]);
});

test('an end that has moved since, an unknown line and a closed run bring no step', () => {
  const d = drawing([straight(p(100, 100), p(296, 100)), straight(p(300, 50), p(300, 150))]);
  const end = { line: 'l0', run: 0, atStart: false };
  expect([...waysToClose(d, end, 'gone', REACH)]).toEqual([]);
  expect([...waysToClose(d, { ...end, run: 4 }, 'l1', REACH)]).toEqual([]);
  expect([...waysToClose(d, end, 'l1', 2)]).toEqual([]);
  const notes = gaps(d);
  // What is closed already is not left.
  expect(fixAll(fixed(d), notes, 'Fix').left).toEqual([]);
});

test('whatever the lines, nothing drawn moves by more than a tenth, and what is put right is right', () => {
  const around = (middle: number, by: number) =>
    fc.integer({ min: -1000, max: 1000 }).map((n) => middle + (by * n) / 1000);
  const place = (x: number, y: number, by: number) => fc.record({ x: around(x, by), y: around(y, by) });
  const offset = place(0, 0, 60);
  const kind = fc.constantFrom<Node['kind']>('corner', 'smooth', 'flowing');
  let right = 0;
  fc.assert(
    fc.property(
      offset,
      offset,
      offset,
      offset,
      place(0, 0, 5),
      around(Math.PI, Math.PI),
      kind,
      (a, b, c, e, gap, turn, last) => {
        const joint = p(300 + gap.x, 200 + gap.y);
        const far = p(300 + 150 * Math.cos(turn), 200 + 150 * Math.sin(turn));
        const first = curve(p(100, 150), a, b, p(300, 200));
        const nodes = first.nodes.map((n, i) => (i === 1 ? { ...n, kind: last } : n));
        const d = drawing([{ ...first, nodes }, curve(joint, c, e, far)]);
        const notes = gaps(d);
        const { edit, left } = fixAll(d, notes, 'Fix');
        const after = applyChange(d, { id: 'fix', ...edit });
        expect(moved(d, after)).toBeLessThanOrEqual(0.101);
        if (notes.length > left.length) {
          right++;
          const [one, two] = lines(after);
          const apart = Math.min(
            ...ends(one).map((q) => nearestOnLine(two, q)!.distance),
            ...ends(two).map((q) => nearestOnLine(one, q)!.distance),
          );
          expect(apart).toBeLessThan(0.01);
          expect(distance(ends(one)[0], p(100, 150))).toBeLessThan(1e-9);
        }
      },
    ),
    { numRuns: 300, seed: 5 },
  );
  expect(right).toBeGreaterThan(100);
});
