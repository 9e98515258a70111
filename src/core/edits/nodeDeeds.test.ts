import { linesOf } from '../drawing/items';
import fc from 'fast-check';
import {
  type Cubic,
  applyChange,
  emptyDrawing,
  firstStyle,
  inverseOf,
  plainPage,
  type Drawing,
  type Line,
  type Node,
  type Point,
  type Run,
} from '@/core';
import { runFromCubics } from '../drawing/fromCubics';
import { cornerAt, cubicsOf, lineLength } from '../drawing/run';
import { thinnedRun } from '../drawing/thin';
import { turningPoints } from '../geometry/bounds';
import { lengthOf } from '../geometry/point';
import { turningAbout } from '../geometry/matrix';
import { mixedRun } from '../test/drawings';
import { distanceToCurves, walk } from '../test/strokes';
import { cutAtNode, cutSegment } from './cut';
import type { Edit } from '../change/edit';
import { bringTogether, meetingOf, meetLine } from './ends';
import { removeNodes, swayNodes, swayShares } from './nodes';
import { alignNodes, averageNodes, reverseLines, spreadNodes, startAtNode, transformNodes } from './runs';
import { addNodes, dropHandles, giveHandles, spreadOver, straighten } from './segments';

const p = (x: number, y: number): Point => ({ x, y });
const straight = (...points: Point[]): Run => ({ closed: false, nodes: points.map(cornerAt) });
const smooth = (at: Point, direction: Point): Node => ({
  point: at,
  in: p(-direction.x, -direction.y),
  out: direction,
  kind: 'smooth',
});

function drawing(...runs: Run[]): Drawing {
  const d = emptyDrawing(plainPage({ width: 1000, height: 1000, unit: 'px', dpi: 96, ground: null }), {
    id: 's',
    name: 'Sheet',
    tag: '#3366aa',
  });
  const lines = runs.map((run, i): Line => ({ id: `l${i}`, style: firstStyle, runs: [run] }));
  return { ...d, sheets: [{ ...d.sheets[0], items: lines }] };
}

/** The drawing after an edit; what the edit did can be taken back to the letter. */
function after(d: Drawing, e: Edit): Drawing {
  const change = { id: 'c', ...e };
  const next = applyChange(d, change);
  expect(applyChange(next, inverseOf(change, 'u', 'Undo'))).toEqual(d);
  return next;
}
const runsIn = (d: Drawing): Run[] => linesOf(d.sheets[0]).flatMap((l) => l.runs);
const ref = (node: number, line = 'l0') => ({ line, run: 0, node });
const segment = (k: number, line = 'l0') => ({ line, run: 0, segment: k });
const wave: Run = {
  closed: false,
  nodes: [
    { point: p(50, 200), in: null, out: p(40, -60), kind: 'corner' },
    smooth(p(200, 200), p(50, 40)),
    smooth(p(360, 200), p(50, -40)),
    { point: p(520, 200), in: p(-40, -60), out: null, kind: 'corner' },
  ],
};
const ring: Run = { closed: true, nodes: [p(0, 0), p(100, 0), p(100, 100), p(0, 100)].map(cornerAt) };

test('nodes are added without the shape moving, spread by length or by bend', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 900 }),
      fc.integer({ min: 1, max: 6 }),
      fc.boolean(),
      (seed, count, closed) => {
        const run = mixedRun(seed, 4, closed);
        const d = drawing(run);
        const [next] = runsIn(
          after(d, addNodes(d, [segment(0), segment(2)], count, seed % 2 ? 'length' : 'curvature')),
        );
        expect(next.nodes).toHaveLength(4 + 2 * count);
        const truth = cubicsOf(run);
        for (const q of walk(cubicsOf(next), 15)) expect(distanceToCurves(truth, q)).toBeLessThan(1e-3);
      },
    ),
    { numRuns: 40 },
  );
  const arch = cubicsOf(wave)[0];
  const [half] = spreadOver(arch, 1, 'length');
  const halves = walk([arch], 0.5);
  const at = halves[Math.round(halves.length / 2)];
  const { x } = {
    x:
      arch[0].x * (1 - half) ** 3 +
      3 * arch[1].x * half * (1 - half) ** 2 +
      3 * arch[2].x * half ** 2 * (1 - half) +
      arch[3].x * half ** 3,
  };
  expect(Math.abs(x - at.x)).toBeLessThan(1);
  expect(spreadOver(arch, 3, 'curvature')).toHaveLength(3);
});

test('several neighbours removed together leave one curve as near as can be; plainly, the handles stay', () => {
  const d = drawing(wave);
  const many = after(d, addNodes(d, [segment(1)], 5, 'length'));
  const back = after(
    many,
    removeNodes(
      many,
      [2, 3, 4, 5, 6].map((i) => ref(i)),
    ),
  );
  expect(runsIn(back)[0].nodes).toHaveLength(4);
  for (const q of walk(cubicsOf(runsIn(back)[0]), 5)) expect(distanceToCurves(cubicsOf(wave), q)).toBeLessThan(0.3);
  const [plain] = runsIn(after(d, removeNodes(d, [ref(1)], true)));
  expect(plain.nodes[0]).toEqual(wave.nodes[0]);
});

test('a line is cut at a node and on a segment; a ring opens', () => {
  const d = drawing(wave);
  const cut = after(d, cutAtNode(d, ref(1), 'n'));
  expect(linesOf(cut.sheets[0]).map((l) => [l.id, l.runs[0].nodes.length])).toEqual([
    ['l0', 2],
    ['n', 3],
  ]);
  expect(linesOf(cut.sheets[0])[1].runs[0].nodes[0].in).toBeNull();
  const between = after(d, cutSegment(d, segment(1), 0.4, 'n'));
  expect(runsIn(between).map((r) => r.nodes.length)).toEqual([3, 3]);
  for (const q of walk(runsIn(between).flatMap(cubicsOf), 8))
    expect(distanceToCurves(cubicsOf(wave), q)).toBeLessThan(1e-6);
  const opened = drawing(ring);
  const [run] = runsIn(after(opened, cutAtNode(opened, ref(2), 'n')));
  expect([run.closed, run.nodes.length, run.nodes[0].point, run.nodes[4].point]).toEqual([
    false,
    5,
    p(100, 100),
    p(100, 100),
  ]);
  expect(cutAtNode(d, ref(0), 'n').steps).toHaveLength(0);
});

test('segments straighten; handles are dropped and given back', () => {
  const d = drawing(wave);
  const [run] = runsIn(after(d, straighten(d, [segment(1)])));
  expect([run.nodes[1].out, run.nodes[2].in, run.nodes[1].in]).toEqual([null, null, wave.nodes[1].in]);
  const bare = after(d, dropHandles(d, [ref(1), ref(2)]));
  expect(runsIn(bare)[0].nodes[1]).toEqual(cornerAt(p(200, 200)));
  const given = runsIn(after(bare, giveHandles(bare, [ref(1), ref(0)])))[0];
  expect(given.nodes[1].kind).toBe('smooth');
  expect(given.nodes[0].out).toEqual(p(50, 0));
});

test('an end is trimmed to a line that it crosses, or carried on to one ahead; two ends come together', () => {
  const wall = straight(p(400, 0), p(400, 900));
  const d = drawing(straight(p(100, 50), p(430, 50)), straight(p(100, 150), p(370, 150)), wall);
  const end = (line: string) => ({ line, run: 0, atStart: false });
  expect(meetingOf(d, end('l0'), 60)).toMatchObject({ how: 'trim', line: 'l2' });
  expect(runsIn(after(d, meetLine(d, end('l0'), 60)))[0].nodes[1].point.x).toBeCloseTo(400, 5);
  expect(meetingOf(d, end('l1'), 60)).toMatchObject({ how: 'extend' });
  expect(runsIn(after(d, meetLine(d, end('l1'), 60)))[1].nodes[1].point.x).toBeCloseTo(400, 6);
  expect(meetingOf(d, end('l1'), 10)).toBeNull();
  const joined = runsIn(after(d, bringTogether(d, end('l0'), end('l1'))));
  expect(joined[0].nodes[1].point).toEqual(p(400, 100));
  expect(joined[1].nodes[1].point).toEqual(p(400, 100));
});

test('a curved end that is trimmed keeps the rest of its shape', () => {
  const d = drawing(wave, straight(p(470, 0), p(470, 400)));
  const trimmedRun = runsIn(after(d, meetLine(d, { line: 'l0', run: 0, atStart: false }, 200)))[0];
  expect(trimmedRun.nodes.at(-1)!.point.x).toBeCloseTo(470, 3);
  for (const q of walk(cubicsOf(trimmedRun), 6)) expect(distanceToCurves(cubicsOf(wave), q)).toBeLessThan(1e-3);
});

test('reversed twice is as before; a ring begins where it is told; marks go round with their line', () => {
  const marked = drawing(wave);
  const line = { ...linesOf(marked.sheets[0])[0], marks: [{ at: 0.25, left: 3, right: 1 }] };
  const d = { ...marked, sheets: [{ ...marked.sheets[0], items: [line] }] };
  const once = after(d, reverseLines(d, ['l0']));
  expect(linesOf(once.sheets[0])[0].marks).toEqual([{ at: 0.75, left: 1, right: 3 }]);
  expect(linesOf(once.sheets[0])[0].runs[0].nodes[0].point).toEqual(p(520, 200));
  expect(after(once, reverseLines(once, ['l0']))).toEqual(d);
  const r = drawing(ring);
  expect(runsIn(after(r, startAtNode(r, ref(2))))[0].nodes.map((n) => n.point)).toEqual([
    p(100, 100),
    p(0, 100),
    p(0, 0),
    p(100, 0),
  ]);
  expect(startAtNode(d, ref(1)).steps).toHaveLength(0);
});

test('nodes are aligned, spread, averaged, and mapped with their handles', () => {
  const d = drawing(wave, straight(p(0, 0), p(30, 40), p(100, 90)));
  const of = (e: Edit) => runsIn(after(d, e))[1].nodes.map((n) => n.point);
  const refs = [0, 1, 2].map((i) => ref(i, 'l1'));
  expect(of(alignNodes(d, refs, 'y', 'middle')).map((q) => q.y)).toEqual([45, 45, 45]);
  expect(of(spreadNodes(d, refs, 'x')).map((q) => q.x)).toEqual([0, 50, 100]);
  expect(new Set(of(averageNodes(d, refs)).map((q) => `${q.x.toFixed(6)},${q.y.toFixed(6)}`)).size).toBe(1);
  const turned = runsIn(after(d, transformNodes(d, [ref(1)], turningAbout(p(200, 200), 90), 'Turn')))[0].nodes[1];
  expect([Math.round(turned.out!.x), Math.round(turned.out!.y)]).toEqual([-40, 50]);
  expect(lengthOf(turned.in!)).toBeCloseTo(lengthOf(wave.nodes[1].in!), 9);
});

test('sway falls off along the line, both ways and round a ring', () => {
  const row = straight(...Array.from({ length: 7 }, (_, i) => p(i * 50, 0)));
  expect(swayShares(row, [3], 100).map((s) => Math.round(s * 100))).toEqual([0, 0, 50, 100, 50, 0, 0]);
  expect(swayShares(ring, [0], 200).map((s) => Math.round(s * 100))).toEqual([100, 50, 0, 50]);
  const d = drawing(row);
  const [run] = runsIn(after(d, swayNodes(d, [ref(3)], p(0, 40), 100)));
  expect(run.nodes.map((n) => Math.round(n.point.y))).toEqual([0, 0, 20, 40, 20, 0, 0]);
});

test('thinned out a line keeps its shape, its corners and its ends', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 500 }), fc.boolean(), (seed, closed) => {
      const run = mixedRun(seed, 4, closed);
      const d = drawing(run);
      const all = Array.from({ length: cubicsOf(run).length }, (_, k) => segment(k));
      const many = after(d, addNodes(d, all, 4, 'length'));
      const thin = thinnedRun(runsIn(many)[0], { tolerance: 1, smoothing: 0, extremes: false });
      expect(thin.nodes.length).toBeLessThan(runsIn(many)[0].nodes.length);
      const [was, now] = [cubicsOf(run), cubicsOf(thin)];
      for (const q of walk(now, 8)) expect(distanceToCurves(was, q)).toBeLessThan(1.1);
      for (const q of walk(was, 8)) expect(distanceToCurves(now, q)).toBeLessThan(1.1);
      if (!closed) expect(thin.nodes.at(-1)!.point).toEqual(run.nodes.at(-1)!.point);
    }),
    { numRuns: 25 },
  );
});

test('wobbles go by smoothing; nodes come at extremes on request; bad figures are refused', () => {
  const wobbly = straight(...Array.from({ length: 121 }, (_, i) => p(i * 4, 100 + (i % 2 ? 0.8 : -0.8))));
  const calm = thinnedRun(wobbly, { tolerance: 1, smoothing: 40, extremes: false });
  expect(calm.nodes.length).toBeLessThan(5);
  expect(lineLength({ runs: [calm] })).toBeLessThan(481);
  const arch: Run = {
    closed: false,
    nodes: [
      { point: p(0, 100), in: null, out: p(0, -130), kind: 'corner' },
      { point: p(100, 100), in: p(0, -130), out: null, kind: 'corner' },
    ],
  };
  const topped = thinnedRun(arch, { tolerance: 0.5, smoothing: 0, extremes: true });
  expect(topped.nodes).toHaveLength(3);
  expect(topped.nodes[1].point.x).toBeCloseTo(50, 6);
  expect(topped.nodes[1].out!.y).toBeCloseTo(0, 6);
  // Rings of many nodes, turned a little one by one: no segment has an extreme within, also where a node was all but on it.
  for (let turn = 0; turn < 12; turn++) {
    const round = Array.from({ length: 40 }, (_, i): Cubic => {
      const at = (k: number): Point => {
        const a = (k / 40) * 2 * Math.PI + turn / 500;
        return p(200 + 150 * Math.cos(a), 200 + 110 * Math.sin(a));
      };
      const [a, b] = [at(i), at(i + 1)];
      const [da, db] = [at(i + 0.01), at(i + 0.99)];
      return [
        a,
        p(a.x + (100 / 3) * (da.x - a.x), a.y + (100 / 3) * (da.y - a.y)),
        p(b.x + (100 / 3) * (db.x - b.x), b.y + (100 / 3) * (db.y - b.y)),
        b,
      ];
    });
    const run = thinnedRun(runFromCubics(round, true), { tolerance: 0.5, smoothing: 0, extremes: true });
    expect(run.nodes.length).toBeLessThan(13);
    for (const c of cubicsOf(run))
      for (const axis of ['x', 'y'] as const)
        for (const t of turningPoints(c, axis)) expect(Math.min(t, 1 - t)).toBeLessThan(1e-3);
    for (const q of walk(cubicsOf(run), 5)) expect(distanceToCurves(round, q)).toBeLessThan(0.55);
  }
  expect(() => thinnedRun(arch, { tolerance: 0, smoothing: 0, extremes: false })).toThrow(RangeError);
  expect(() => thinnedRun(arch, { tolerance: 1, smoothing: -1, extremes: false })).toThrow(RangeError);
});
