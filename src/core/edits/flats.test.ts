import {
  applyChange,
  emptyDrawing,
  firstStyle,
  inverseOf,
  plainPage,
  type Drawing,
  type Flat,
  type Group,
  type Line,
  type Point,
} from '..';
import { changeOf } from '../change/changeOf';
import { drawingOnGrid } from '../change/onGrid';
import { flatsIn, linesOf } from '../drawing/items';
import { runFromCubics } from '../drawing/fromCubics';
import { cubicsOf } from '../drawing/run';
import { cubicArea } from '../geometry/cubic';
import { seeded } from '../seeded';
import { circle, closed, open } from '../test/arrangements';
import type { CubicRun } from '../geometry/along';
import type { Edit } from '../change/edit';
import { pour } from '../test/pour';
import { flatAt, flatsIntoLines, paintFlats, removeFlats } from './flats';
import { withFollowing } from './following';
import { removeLines } from './lines';
import { moveNodes } from './nodes';
import { setSheet } from './sheets';
import { add } from '../geometry/point';

const p = (x: number, y: number): Point => ({ x, y });
let ids = 0;
const freshId = (): string => `f${++ids}`;
const line = (id: string, { cubics, closed: shut }: CubicRun): Line => ({
  id,
  runs: [runFromCubics(cubics, shut)],
  style: firstStyle,
});
const drawingOf = (...runs: CubicRun[]): Drawing => {
  const page = plainPage({ width: 400, height: 300, unit: 'px', dpi: 96, ground: null });
  const d = emptyDrawing(page, { id: 's', name: 'Lines', tag: '#000000' });
  return drawingOnGrid({ ...d, sheets: [{ ...d.sheets[0], items: runs.map((r, i) => line(`l${i}`, r)) }] });
};
const poured = (d: Drawing, at: Point, fill = '#c33d2b', gap = 0): Drawing => {
  const made = pour(d, at, { fill, gap, freshId });
  if (!made) throw new Error('nothing to pour into');
  return applyChange(d, changeOf(made.edit, freshId()));
};
const after = (d: Drawing, e: Edit): Drawing => applyChange(d, changeOf(withFollowing(d, e, freshId), freshId()));
const flats = (d: Drawing): Flat[] => d.sheets.flatMap((s) => flatsIn(s.items));
const size = (f: Flat): number => Math.abs(f.runs.flatMap(cubicsOf).reduce((sum, c) => sum + cubicArea(c), 0));
const node = (l: string, k: number) => [{ line: l, run: 0, node: k }];
const frame = closed(p(20, 20), p(220, 20), p(220, 120), p(20, 120));
const wall = open(p(120, 10), p(120, 130));

test('poured into an area: a flat on a sheet of its own below the lines; poured again it is painted anew', () => {
  const d = poured(drawingOf(frame, wall), p(60, 60));
  expect(d.sheets.map((s) => s.name)).toEqual(['Flats', 'Lines']);
  expect(flats(d).map((f) => [f.fill, size(f)])).toEqual([['#c33d2b', 10_000]]);
  const both = poured(poured(d, p(180, 60), '#2b6fc3'), p(60, 60), '#ffffff');
  expect(flats(both).map((f) => f.fill)).toEqual(['#ffffff', '#2b6fc3']);
  expect(flatAt(both, p(180, 60))!.fill).toBe('#2b6fc3');
  expect(pour(d, p(300, 200), { fill: '#000000', gap: 0, freshId })).toBeNull();
});

test('a flat follows a node of its lines, in the same change, and goes back with it', () => {
  const d = poured(drawingOf(frame, wall), p(60, 60));
  const moved = after(d, moveNodes(d, node('l1', 1), p(0, 0)));
  expect(flats(moved)).toEqual(flats(d));
  const change = changeOf(withFollowing(d, moveNodes(d, node('l0', 0), p(-10, -10)), freshId), 'c');
  const wider = applyChange(d, change);
  expect(size(flats(wider)[0])).toBeGreaterThan(10_900);
  expect(flats(wider)[0].open).toBeUndefined();
  expect(JSON.stringify(applyChange(wider, inverseOf(change, 'u', 'Undo')))).toBe(JSON.stringify(d));
});

test('lines that are moved as one take their flat with them, however far', () => {
  const d = poured(drawingOf(frame), p(60, 60));
  const all = [0, 1, 2, 3].flatMap((k) => node('l0', k));
  const moved = after(d, moveNodes(d, all, p(150, 140)));
  expect(size(flats(moved)[0])).toBeCloseTo(20_000, 3);
  expect(flatAt(moved, p(200, 200))).not.toBeNull();
});

test('an area that opens leaves its flat as it was, marked; shut again it is the flat of it', () => {
  const sides = [open(p(20, 20), p(220, 20), p(220, 120)), open(p(220, 120), p(20, 120), p(20, 20))];
  const d = poured(drawingOf(...sides), p(60, 60));
  const opened = after(d, moveNodes(d, node('l1', 2), p(-4, 30)));
  expect(flats(opened)).toMatchObject([{ open: true, runs: flats(d)[0].runs }]);
  const shut = after(opened, moveNodes(opened, node('l1', 2), p(4, -30)));
  expect(flats(shut)).toEqual(flats(d));
  // Within the gap it stays shut.
  const wide = poured(drawingOf(...sides), p(60, 60), '#c33d2b', 8);
  expect(flats(after(wide, moveNodes(wide, node('l1', 2), p(0, 6))))[0].open).toBeUndefined();
});

test('divided, both parts keep the colour; joined, the larger one stays', () => {
  const d = poured(drawingOf(frame, open(p(80, 150), p(80, 200))), p(60, 60));
  const divided = after(d, moveNodes(d, [...node('l1', 0), ...node('l1', 1)], p(0, 0)));
  expect(flats(divided)).toHaveLength(1);
  const parted = after(d, moveNodes(d, node('l1', 0), p(0, -140)));
  expect(
    flats(parted)
      .map((f) => Math.round(size(f) / 100))
      .sort(),
  ).toEqual([140, 60].map(Math.round).sort());
  expect(new Set(flats(parted).map((f) => f.fill)).size).toBe(1);
  const two = poured(
    poured(drawingOf(frame, open(p(80, 10), p(80, 200))), p(50, 60), '#111111'),
    p(180, 60),
    '#eeeeee',
  );
  const joined = after(two, removeLines(two, ['l1']));
  expect(flats(joined).map((f) => [f.fill, Math.round(size(f))])).toEqual([['#eeeeee', 20_000]]);
});

test('a hole in a flat is a hole; a line drawn within divides off its own part', () => {
  const d = poured(drawingOf(frame, circle(70, 70, 20)), p(180, 60));
  const [flat] = flats(d);
  expect(flat.runs).toHaveLength(2);
  expect(flatAt(d, p(70, 70))).toBeNull();
  const moved = after(
    d,
    moveNodes(
      d,
      [0, 1, 2, 3].flatMap((k) => node('l1', k)),
      p(80, 0),
    ),
  );
  expect(flatAt(moved, p(70, 70))).not.toBeNull();
  expect(flatAt(moved, p(150, 70))).toBeNull();
});

test('a flat that lies in a group with its lines goes along with it once', () => {
  const d = poured(drawingOf(frame), p(60, 60));
  const [flat] = flats(d);
  const group: Group = { kind: 'group', id: 'g', name: '', items: [flat, ...linesOf(d.sheets[1])] };
  const grouped = { ...d, sheets: d.sheets.map((s, i) => ({ ...s, items: i === 0 ? [] : [group] })) };
  const moved = after(grouped, { label: 'Move', steps: [{ step: 'translate', ids: ['g'], by: p(100, 40) }] });
  expect(flats(moved).map((f) => f.runs[0].nodes[0].point)).toEqual([add(flat.runs[0].nodes[0].point, p(100, 40))]);
  expect(flats(moved)[0].open).toBeUndefined();
});

test('sheets that are hidden change nothing; those that were when it was poured do not bound it later either', () => {
  const lines = drawingOf(frame, wall);
  const [frames, walls] = linesOf(lines.sheets[0]);
  const apart = {
    ...lines,
    sheets: [0, 1].map((k) => ({ ...lines.sheets[0], id: `s${k}`, items: [[frames], [walls]][k] })),
  };
  const both = poured(poured(apart, p(60, 60), '#111111'), p(180, 60), '#eeeeee');
  const hidden = after(both, setSheet(both, 's1', { visible: false }, 'Hide'));
  expect(flats(hidden)).toEqual(flats(both));
  const nudged = after(hidden, moveNodes(hidden, node('l0', 0), p(-10, 0)));
  expect(flats(nudged).map((f) => [f.fill, f.open])).toEqual([
    ['#111111', undefined],
    ['#eeeeee', undefined],
  ]);
  const alone = { ...apart, sheets: apart.sheets.map((s, k) => ({ ...s, visible: k === 0 })) };
  const whole = poured(alone, p(60, 60));
  expect(flats(whole).map(size)).toEqual([20_000]);
  const seen = after(whole, setSheet(whole, 's1', { visible: true }, 'Show'));
  const later = after(seen, moveNodes(seen, node('l1', 0), p(4, 0)));
  expect(flats(later).map(size)).toEqual([20_000]);
});

test('painted, taken away, made a line', () => {
  const d = poured(poured(drawingOf(frame, wall), p(60, 60)), p(180, 60));
  const [a, b] = flats(d).map((f) => f.id);
  expect(flats(after(d, paintFlats(d, [a, b], '#abcdef'))).map((f) => f.fill)).toEqual(['#abcdef', '#abcdef']);
  expect(flats(after(d, removeFlats(d, [a, b])))).toEqual([]);
  const made = after(d, flatsIntoLines(d, [a], () => 'new').edit);
  expect(flats(made).map((f) => f.id)).toEqual([b]);
  expect(linesOf(made.sheets[0])).toMatchObject([{ id: 'new', style: { fill: '#c33d2b' } }]);
});

test('through many edits and back: to the byte, and no flat lost', () => {
  const random = seeded(12);
  let d = drawingOf(frame, wall, open(p(10, 60), p(230, 70)), circle(170, 50, 20), open(p(60, 10), p(70, 130)));
  for (const at of [p(40, 40), p(90, 40), p(40, 100), p(90, 100), p(170, 50), p(200, 100)]) d = poured(d, at);
  const start = JSON.stringify(d);
  const count = flats(d).length;
  const done = [];
  for (let i = 0; i < 120; i++) {
    const lines = linesOf(d.sheets[1]);
    const l = lines[Math.floor(random() * lines.length)];
    const k = Math.floor(random() * l.runs[0].nodes.length);
    const by = p(Math.round(40 * (random() - 0.5)), Math.round(40 * (random() - 0.5)));
    const change = changeOf(withFollowing(d, moveNodes(d, node(l.id, k), by), freshId), `c${i}`);
    d = applyChange(d, change);
    done.push(change);
    expect(flats(d).length).toBeGreaterThan(0);
    for (const f of flats(d)) expect(size(f)).toBeGreaterThan(0);
  }
  expect(count).toBe(6);
  for (const change of done.reverse()) d = applyChange(d, inverseOf(change, `u${change.id}`, 'Undo'));
  expect(JSON.stringify(d)).toBe(start);
}, 60_000);
