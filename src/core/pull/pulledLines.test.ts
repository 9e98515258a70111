import { placedReference } from '../edits/references';
import { runFromCubics } from '../drawing/fromCubics';
import { cubicsOf } from '../drawing/run';
import { firstStyle, plainPage } from '../drawing/schema';
import { fitCurve, type Cubic, type PulledRun } from '..';
import { stroke } from '../test/strokes';
import { isWithin } from '../geometry/polygon';
import { linesFromPulled } from './pulledLines';

const page = plainPage({ width: 400, height: 300, unit: 'px', dpi: 96, ground: null });
/** 800 x 600 px on 400 x 300 units: half a unit a pixel. */
const reference = placedReference(page, {
  id: 'r',
  name: 'x',
  picture: 'a'.repeat(64),
  pixelWidth: 800,
  pixelHeight: 600,
  dpi: null,
});
const size = { width: 800, height: 600 };
const ids = () => {
  let n = 0;
  return () => `l${n++}`;
};
const box = (x: number, y: number, side: number, turn: 1 | -1): Cubic[] => {
  const corners = [
    { x, y },
    { x: x + side, y },
    { x: x + side, y: y + side },
    { x, y: y + side },
  ];
  const list = turn === 1 ? corners : [...corners].reverse();
  return list.map((p, i) => {
    const q = list[(i + 1) % 4];
    return [p, p, q, q];
  });
};

test('a chain of cubics becomes a run that gives the same cubics, smooth where it is smooth', () => {
  for (const kind of ['smooth', 'corners', 'loop']) {
    const cubics = fitCurve(stroke(kind, 5).points, { tolerance: 2 });
    const run = runFromCubics(cubics, false);
    expect(run.nodes).toHaveLength(cubics.length + 1);
    cubicsOf(run).forEach((c, i) =>
      c.forEach((p, k) => expect(Math.hypot(p.x - cubics[i][k].x, p.y - cubics[i][k].y)).toBeLessThan(1e-9)),
    );
    if (kind === 'smooth') expect(run.nodes.slice(1, -1).every((n) => n.kind === 'smooth')).toBe(true);
    if (kind === 'corners') expect(run.nodes.some((n, i) => i > 0 && n.kind === 'corner')).toBe(true);
    expect([run.nodes[0].in, run.nodes.at(-1)!.out]).toEqual([null, null]);
  }
});

test('a closed chain has as many nodes as segments; straight sides have no handles', () => {
  const run = runFromCubics(box(10, 10, 50, 1), true);
  expect(run.nodes).toHaveLength(4);
  expect(run.nodes.every((n) => n.kind === 'corner' && n.in === null && n.out === null)).toBe(true);
});

test('strokes come where the picture lies, with their width in page units, however it is placed', () => {
  const run: PulledRun = {
    cubics: [
      [
        { x: 100, y: 100 },
        { x: 200, y: 100 },
        { x: 300, y: 200 },
        { x: 400, y: 200 },
      ],
    ],
    closed: false,
    width: 6,
  };
  const [line] = linesFromPulled([run], reference, size, firstStyle, ids());
  expect(line.runs[0].nodes.map((n) => n.point)).toEqual([
    { x: expect.closeTo(50), y: expect.closeTo(50) },
    { x: expect.closeTo(200), y: expect.closeTo(100) },
  ]);
  expect(line.style).toMatchObject({ width: 3, fill: null, stroke: firstStyle.stroke });
  const flipped = linesFromPulled([run], { ...reference, flipX: true }, size, firstStyle, ids())[0];
  expect(flipped.runs[0].nodes[0].point.x).toBeCloseTo(350);
  // A picture that was worked on at half its size gives the same lines.
  const half: PulledRun = {
    ...run,
    cubics: run.cubics.map((c) => c.map((p) => ({ x: p.x / 2, y: p.y / 2 })) as Cubic),
    width: 3,
  };
  const same = linesFromPulled([half], reference, { width: 400, height: 300 }, firstStyle, ids())[0];
  same.runs[0].nodes.forEach((n, i) => {
    expect(n.point.x).toBeCloseTo(line.runs[0].nodes[i].point.x);
    expect(n.point.y).toBeCloseTo(line.runs[0].nodes[i].point.y);
  });
  expect(same.style.width).toBe(3);
});

test('outlines become filled shapes, each with the holes that lie in it', () => {
  const runs: PulledRun[] = [
    { cubics: box(100, 100, 300, 1), closed: true },
    { cubics: box(150, 150, 50, -1), closed: true },
    { cubics: box(250, 250, 60, -1), closed: true },
    { cubics: box(500, 100, 100, 1), closed: true },
    // An island in a hole.
    { cubics: box(265, 265, 20, 1), closed: true },
  ];
  const lines = linesFromPulled(runs, reference, size, firstStyle, ids());
  expect(lines.map((l) => l.runs.length).sort()).toEqual([1, 1, 3]);
  expect(lines.every((l) => l.style.width === 0 && l.style.fill === firstStyle.stroke)).toBe(true);
  expect(new Set(lines.map((l) => l.id)).size).toBe(3);
});

test('within a figure, also one that folds inwards', () => {
  const figure = [
    { x: 0, y: 0 },
    { x: 10, y: 0 },
    { x: 10, y: 10 },
    { x: 5, y: 3 },
    { x: 0, y: 10 },
  ];
  expect([
    isWithin({ x: 2, y: 2 }, figure),
    isWithin({ x: 5, y: 8 }, figure),
    isWithin({ x: 11, y: 5 }, figure),
  ]).toEqual([true, false, false]);
});
