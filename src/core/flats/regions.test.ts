import fc from 'fast-check';
import { evaluate, reversed, splitCubic, straightCubic, type Cubic } from '../geometry/cubic';
import type { CubicRun } from '../geometry/along';
import { distance, mix, type Point } from '../geometry/point';
import { isWithin } from '../geometry/polygon';
import { seeded } from '../seeded';
import { circle, closed, madeUpArrangement, open } from '../test/arrangements';
import { measureAreas } from '../test/measureAreas';
import { arrangementOf, type Area } from './arrangement';
import { boxOfOutline, NearAreas, regionAt, regions } from './regions';

const p = (x: number, y: number): Point => ({ x, y });
const square = (x: number, y: number, side: number): CubicRun =>
  closed(p(x, y), p(x + side, y), p(x + side, y + side), p(x, y + side));
const sizes = (runs: CubicRun[], gap = 0): number[] =>
  arrangementOf(runs, { gap })
    .areas()
    .map((a) => Math.round(a.size * 100) / 100)
    .sort((a, b) => a - b);
const polygon = (outline: readonly Cubic[]): Point[] =>
  outline.flatMap((c) => Array.from({ length: 24 }, (_, i) => evaluate(c, i / 24)));
const holds = ([outer, ...holes]: readonly (readonly Cubic[])[], at: Point): boolean =>
  isWithin(at, polygon(outer)) && holes.every((h) => !isWithin(at, polygon(h)));

test('closed lines bound; what lies within another is a hole of it and an area of its own; the outside is none', () => {
  expect(sizes([square(0, 0, 100)])).toEqual([10_000]);
  expect(sizes([square(0, 0, 100), square(20, 20, 20), square(25, 25, 5), square(60, 60, 10)])).toEqual([
    25, 100, 375, 9500,
  ]);
  expect(regions([open(p(0, 0), p(50, 0)), open(p(60, 0), p(60, 40))], { gap: 0 })).toEqual([]);
  expect(regionAt([square(0, 0, 100)], p(120, 50), { gap: 0 })).toBeNull();
  expect(regions([], { gap: 0 })).toEqual([]);
});

test('outlines are the parts of the curves themselves, few as they can be', () => {
  const [a, b] = [circle(50, 50, 40), circle(90, 50, 40)];
  const lens = regionAt([a, b], p(70, 50), { gap: 0 })!;
  // Two quarters of each circle are cut where they cross.
  expect(lens).toHaveLength(1);
  expect(lens[0]).toHaveLength(4);
  for (const c of lens[0])
    for (let t = 0; t <= 1; t += 0.1) {
      const q = evaluate(c, t);
      const off = [p(50, 50), p(90, 50)].map((m) => Math.abs(Math.hypot(q.x - m.x, q.y - m.y) - 40));
      expect(Math.min(...off)).toBeLessThan(0.02);
    }
  const exact = 2 * 1600 * Math.acos(0.5) - 20 * Math.sqrt(6400 - 1600);
  // The circles themselves are up to 0.03 % too large.
  expect(Math.abs(arrangementOf([a, b], { gap: 0 }).areaAt(p(70, 50))!.size - exact)).toBeLessThan(1.2);
});

test('a line that crosses itself, a cusp, a point, a line there and back, a run that is not shut', () => {
  const loop: CubicRun = { closed: false, cubics: [[p(0, 0), p(150, 100), p(-50, 100), p(100, 0)]] };
  expect(sizes([loop])).toHaveLength(1);
  expect(sizes([{ closed: false, cubics: [[p(0, 0), p(100, 100), p(0, 100), p(100, 0)]] }])).toEqual([]);
  expect(sizes([{ closed: true, cubics: [[p(5, 5), p(5, 5), p(5, 5), p(5, 5)]] }])).toEqual([]);
  const there = straightCubic(p(0, 0), p(80, 30));
  expect(sizes([{ closed: true, cubics: [there, reversed(there)] }])).toEqual([]);
  const unshut: CubicRun = { closed: true, cubics: square(0, 0, 10).cubics.slice(0, 3) };
  expect(sizes([unshut])).toEqual([100]);
});

test('spokes that stop short of hub and rim, side by side and crosswise, are led to these and not to one another', () => {
  for (let seed = 1; seed <= 12; seed++) {
    const random = seeded(seed);
    const [hub, rim] = [16, 134 + 8 * random()];
    const count = 16 + Math.floor(8 * random());
    const on = (angle: number, r: number): Point => p(200 + r * Math.cos(angle), 200 + r * Math.sin(angle));
    const spokes = Array.from({ length: count }, (_, i): [Point, Point] => {
      const a = (2 * Math.PI * i) / count + 0.04 * random();
      return [on(a + (i % 2 === 0 ? 0.5 : -0.5), hub), on(a, rim)];
    });
    const rings = [circle(200, 200, hub), circle(200, 200, rim)];
    const whole = arrangementOf([...rings, ...spokes.map(([a, b]) => open(a, b))], { gap: 0.5 });
    const cut = spokes.map(([a, b]) => {
      const share = 3 / distance(a, b);
      return open(mix(a, b, share), mix(b, a, share));
    });
    const led = arrangementOf([...rings, ...cut], { gap: 8 });
    // As many of some width, and each as large, but for what spokes are led askew by.
    const wide = (areas: readonly Area[]): number[] => areas.map((a) => a.size).filter((size) => size > 60);
    const [of, found] = [wide(whole.areas()), wide(led.areas())];
    expect(found).toHaveLength(of.length);
    of.sort((a, b) => a - b);
    found.sort((a, b) => a - b).forEach((size, i) => expect(Math.abs(size - of[i])).toBeLessThan(12 + 0.02 * of[i]));
  }
});

test('lines drawn twice, the other way or in parts, bound as one', () => {
  const ring = circle(50, 50, 40);
  const back: CubicRun = { closed: true, cubics: [...ring.cubics].reverse().map(reversed) };
  const parts = ring.cubics.map((c): CubicRun => ({ closed: false, cubics: [splitCubic(c, 0.4)[0]] }));
  const [alone] = sizes([ring]);
  for (const more of [[ring], [back], [ring, back], parts]) {
    const found = sizes([ring, ...more]);
    expect(found).toHaveLength(1);
    expect(found[0]).toBeCloseTo(alone, 0);
  }
});

test('lines that touch in passing part what lies beside them', () => {
  const lines = [10, 90].map((y) => open(p(0, y), p(100, y)));
  const posts = [0, 100].map((x) => open(p(x, 0), p(x, 100)));
  expect(sizes([...lines, ...posts, circle(50, 50, 40)])).toHaveLength(3);
  expect(sizes([...lines, ...posts, circle(50, 50, 39.5)])).toHaveLength(2);
});

test('ends are led over a gap to the nearest line or end, and no further; an end that sticks out meets already', () => {
  const sides = [
    open(p(0, 0), p(100, 0)),
    open(p(100, 5), p(100, 100)),
    open(p(97, 100), p(4, 98)),
    open(p(0, 95), p(0, 4)),
  ];
  expect(regions(sides, { gap: 4.9 })).toEqual([]);
  const { closings } = arrangementOf(sides, { gap: 8 });
  expect(regions(sides, { gap: 8 })).toHaveLength(1);
  expect(closings.every((c) => Math.hypot(c.to.x - c.from.x, c.to.y - c.from.y) <= 5.1)).toBe(true);
  // An open ring shuts itself; a hook does not shut on its own way.
  const ring = { ...circle(50, 50, 30), closed: false };
  ring.cubics = [...ring.cubics.slice(0, 3), splitCubic(ring.cubics[3], 0.9)[0]];
  expect(regions([ring], { gap: 2 })).toEqual([]);
  expect(regions([ring], { gap: 6 })).toHaveLength(1);
  const over = [open(p(0, 0), p(100, 0)), open(p(50, -4), p(50, 60)), open(p(20, -4), p(20, 60))];
  expect(arrangementOf(over, { gap: 8 }).closings).toEqual([]);
});

test('a line ends on another where the grid of the page rounds it', () => {
  for (const off of [0, 1e-9, 1e-4, 0.01, -0.01]) {
    const ends = [40 + off, 0.25 * 40];
    expect(sizes([square(0, 0, 40), open(p(ends[0], ends[1]), p(0 - off, 30))])).toHaveLength(2);
  }
});

test('against flooding: the same areas, as large, on made-up arrangements of every kind', () => {
  const all = { flooded: 0, narrow: 0, otherSize: 0, unknown: 0 };
  for (let seed = 1; seed <= 9; seed++) {
    const figures = measureAreas(madeUpArrangement(seed), seed % 3 === 0 ? 0 : 3);
    for (const key of Object.keys(all) as (keyof typeof all)[]) all[key] += figures[key];
  }
  expect(all.flooded).toBeGreaterThan(140);
  expect(all.narrow / all.flooded).toBeLessThan(0.02);
  expect([all.otherSize, all.unknown]).toEqual([0, 0]);
}, 120_000);

test('any lines: outlines are finite and shut, and the area at a place is one of all, or none', () => {
  const coordinate = fc.oneof(fc.integer({ min: 0, max: 8 }), fc.double({ min: 0, max: 8, noNaN: true }));
  const place = fc.record({ x: coordinate, y: coordinate });
  const run = fc
    .record({ points: fc.array(place, { minLength: 4, maxLength: 13 }), closed: fc.boolean() })
    .map(({ points, closed: shut }): CubicRun => {
      const cubics: Cubic[] = [];
      for (let i = 0; i + 3 < points.length; i += 3) cubics.push(points.slice(i, i + 4) as Cubic);
      return { cubics, closed: shut };
    });
  fc.assert(
    fc.property(fc.array(run, { maxLength: 6 }), fc.double({ min: 0, max: 1, noNaN: true }), place, (runs, gap, at) => {
      const all = regions(runs, { gap });
      for (const outline of all.flat())
        outline.forEach((c, i) => {
          expect(c.every((q) => Number.isFinite(q.x) && Number.isFinite(q.y))).toBe(true);
          expect(outline[(i + 1) % outline.length][0]).toEqual(c[3]);
        });
      const here = regionAt(runs, at, { gap });
      if (here) expect(all.some((loops) => holds(loops, at)) || isOnLine(here, at)).toBe(true);
    }),
    { numRuns: 80 },
  );
});

const isOnLine = (loops: Cubic[][], at: Point): boolean =>
  loops.some((l) => polygon(l).some((q) => Math.hypot(q.x - at.x, q.y - at.y) < 0.5));

test('only what lies about a place is looked at, and it is the same as of all', () => {
  const runs = [0, 1, 2, 3, 4, 5, 6, 7].flatMap((k) => [
    open(p(0, 100 * k + 3), p(800, 100 * k)),
    open(p(100 * k, 0), p(100 * k + 9, 800)),
  ]);
  const all = arrangementOf(runs, { gap: 2 });
  const bounds = runs.map((run) => ({ run, box: boxOfOutline(run.cubics) }));
  const near = new NearAreas(bounds, 2);
  for (const at of [p(50, 60), p(52, 61), p(640, 640), p(650, 650), p(-50, 20), p(50, 60)])
    expect(near.at(at).area?.loops[0].length).toBe(all.areaAt(at)?.loops[0].length);
  // Where more would have to be looked at than is asked for, nothing is said.
  expect(new NearAreas(bounds, 2).at(p(50, 60), 1).area).toBeNull();
  for (const at of [p(50, 60), p(333, 222), p(650, 650)])
    expect(regionAt(runs, at, { gap: 2 })![0].length).toBe(all.areaAt(at)!.loops[0].length);
});

test('bad input is refused', () => {
  expect(() => regions([{ cubics: [], closed: true }], { gap: 0 })).toThrow(RangeError);
  expect(() => regions([open(p(0, NaN), p(1, 1))], { gap: 0 })).toThrow(RangeError);
  expect(() => regions([], { gap: -1 })).toThrow(RangeError);
  expect(() => regions([], { gap: NaN })).toThrow(RangeError);
  expect(() => regionAt([], p(NaN, 0), { gap: 0 })).toThrow(RangeError);
});
