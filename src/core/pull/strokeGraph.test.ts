import type { Point } from '../geometry/point';
import { strokeGraph, polylineLength } from './strokeGraph';
import { untangled } from './untangle';
import { bendBetween, bridge, clearEnd, leadTo } from './branchEnds';

/** A skeleton as drawn in signs: # where it is. */
function skeleton(rows: string[]): { mask: Uint8Array; width: number; height: number } {
  const width = Math.max(...rows.map((r) => r.length));
  const mask = new Uint8Array(width * rows.length);
  rows.forEach((row, y) => [...row].forEach((c, x) => (mask[y * width + x] = c === '#' ? 1 : 0)));
  return { mask, width, height: rows.length };
}

const read = (rows: string[], radius = 1) => {
  const { mask, width, height } = skeleton(rows);
  return strokeGraph(mask, new Float32Array(mask.length).fill(radius), width, height);
};

test('a plain stroke is one branch with two free ends', () => {
  const { branches, rings } = read(['#........', '.##......', '...####..', '.......##']);
  expect([branches.length, rings.length]).toEqual([1, 0]);
  expect([branches[0].a, branches[0].b]).toEqual([null, null]);
  expect(branches[0].points).toHaveLength(9);
  expect(Math.abs(polylineLength(branches[0].points) - (6 + 2 * Math.SQRT2))).toBeLessThan(0.9);
});

test('a ring comes back to its start', () => {
  const { branches, rings } = read(['..###..', '.#...#.', '.#...#.', '..###..']);
  expect([branches.length, rings.length]).toEqual([0, 1]);
  expect(rings[0]).toHaveLength(10);
});

test('where three branches meet there is one junction, and each branch has a free end beside it', () => {
  const { branches } = read(['#.....#', '.#...#.', '..#.#..', '...#...', '...#...', '...#...', '...#...']);
  expect(branches).toHaveLength(3);
  const junctions = new Set(branches.flatMap((w) => [w.a, w.b]).filter((j) => j !== null));
  expect(junctions.size).toBe(1);
  expect(branches.every((w) => (w.a === null) !== (w.b === null))).toBe(true);
});

test('a loop from a junction back to it is a branch from it to itself', () => {
  const { branches } = read(['.###.', '#...#', '#...#', '.###.', '..#..', '..#..', '..#..']);
  const loops = branches.filter((w) => w.a !== null && w.a === w.b);
  expect(loops).toHaveLength(1);
  expect(loops[0].points.length).toBeGreaterThan(6);
});

/** Rows of signs with straight lines drawn into them. */
function canvas(width: number, height: number, lines: [number, number, number, number][]): string[] {
  const rows = Array.from({ length: height }, () => new Array<string>(width).fill('.'));
  for (const [x0, y0, x1, y1] of lines) {
    const n = Math.max(Math.abs(x1 - x0), Math.abs(y1 - y0));
    for (let i = 0; i <= n; i++) rows[Math.round(y0 + ((y1 - y0) * i) / n)][Math.round(x0 + ((x1 - x0) * i) / n)] = '#';
  }
  return rows.map((r) => r.join(''));
}

test('strokes that cross are untangled: each goes straight on', () => {
  const graph = read(
    canvas(80, 60, [
      [5, 30, 74, 30],
      [40, 4, 40, 55],
    ]),
  );
  const strokes = untangled(graph, () => 1);
  expect(strokes).toHaveLength(2);
  const spans = strokes.map(({ points }) => {
    const [p, q] = [points[0], points.at(-1)!];
    return [Math.abs(p.x - q.x), Math.abs(p.y - q.y)];
  });
  expect(spans.some(([dx, dy]) => dx > 60 && dy < 2)).toBe(true);
  expect(spans.some(([dx, dy]) => dy > 45 && dx < 2)).toBe(true);
});

test('a burr beside a stroke goes, a real branch stays and ends on the stroke', () => {
  const withBurr = untangled(
    read(
      canvas(80, 40, [
        [5, 20, 74, 20],
        [40, 20, 40, 17],
      ]),
      3,
    ),
    () => 3,
  );
  expect(withBurr).toHaveLength(1);
  const branch = untangled(
    read(
      canvas(80, 40, [
        [5, 30, 74, 30],
        [40, 30, 40, 4],
      ]),
      2,
    ),
    () => 2,
  );
  expect(branch).toHaveLength(2);
  const stem = branch.find(({ points }) => Math.abs(points[0].y - points.at(-1)!.y) > 15)!;
  const ends = [stem.points[0], stem.points.at(-1)!];
  expect(Math.min(...ends.map((p) => Math.abs(p.y - 30.5)))).toBeLessThan(1);
});

describe('where branches come clear of a junction', () => {
  const straight = (from: Point, to: Point, n = 40): Point[] =>
    Array.from({ length: n + 1 }, (_, i) => ({
      x: from.x + ((to.x - from.x) * i) / n,
      y: from.y + ((to.y - from.y) * i) / n,
    }));
  const junction = { discs: [{ at: { x: 0, y: 0 }, radius: 4 }], tip: null };
  const branch = (to: Point) => ({
    branch: { points: straight({ x: 0, y: 0 }, to), radius: 4, a: junction, b: null },
    side: 'a' as const,
  });

  test('points led astray are passed over, and the direction is that of the rest', () => {
    const end = clearEnd(branch({ x: 40, y: 30 }), () => 4)!;
    expect(Math.hypot(end.at.x, end.at.y)).toBeGreaterThanOrEqual(5);
    expect([end.out.x, end.out.y]).toEqual([expect.closeTo(0.8), expect.closeTo(0.6)]);
    // Where the ink is wider than the branch's own it is mixed with another's.
    const mixed = clearEnd(branch({ x: 40, y: 0 }), (p) => (p.x < 15 ? 7 : 4))!;
    expect(mixed.at.x).toBeGreaterThanOrEqual(15);
  });

  test('straight on is no bend, a right angle is one; bridges and leads run smoothly to where they should', () => {
    const [east, west, south] = [
      { x: 40, y: 0 },
      { x: -40, y: 0 },
      { x: 0, y: 40 },
    ].map((p) => clearEnd(branch(p), () => 4)!);
    expect(bendBetween(east, west)).toBeCloseTo(0);
    expect(bendBetween(east, south)).toBeCloseTo(Math.PI / 2, 1);
    for (const p of bridge(east, west)) expect(Math.abs(p.y)).toBeLessThan(1e-9);
    const lead = leadTo(south, { x: 1, y: -3 });
    expect(lead.at(-1)).toEqual({ x: 1, y: -3 });
    lead.slice(1).forEach((p, i) => expect(Math.hypot(p.x - lead[i].x, p.y - lead[i].y)).toBeLessThan(2));
  });
});
