import fc from 'fast-check';
import { cubicBounds } from '../geometry/bounds';
import { straightCubic, type Cubic } from '../geometry/cubic';
import { distance, scale, type Point } from '../geometry/point';
import { areaBetween, bodyBySweep, bodyOfOutlines } from '../test/bodyOracle';
import { randomCubics } from '../test/randomCubics';
import { outlinesOf, strokeOutline, walkedOutline, type StrokeOptions } from './strokeOutline';
import { widthProfile } from './widths';

const P = (x: number, y: number): Point => ({ x, y });
const even = (w: number) => [{ at: 0, left: w, right: w }];
const round: StrokeOptions = { cap: 'round', join: 'round', tolerance: 0.004 };
const polyline = (...points: Point[]): Cubic[] => points.slice(1).map((p, i) => straightCubic(points[i], p));
const areaOf = (outlines: Cubic[][]): number => areaBetween(bodyOfOutlines(outlines), new Map()).area;
const joined = (outlines: Cubic[][]): boolean =>
  outlines.every((o) => o.every((c, i) => distance(c[3], o[(i + 1) % o.length][0]) < 1e-6));

const profiles = [
  (w: number) => even(w),
  (w: number) => [
    { at: 0, left: w, right: w },
    { at: 1, left: w / 3, right: w / 3 },
  ],
  (w: number) => [
    { at: 0, left: w / 2, right: w / 2 },
    { at: 0.4, left: w, right: w },
    { at: 1, left: w / 4, right: w / 4 },
  ],
];

describe('strokeOutline', () => {
  test('is the sweep of discs and quads on seeded runs, cusps and hairpins among them', () => {
    const over: string[] = [];
    randomCubics(77, 30).forEach(({ family, cubic }, i) => {
      const c = cubic.map((p) => scale(p, 0.15)) as Cubic;
      const w = [1.5, 3, 7][i % 3];
      const run = { cubics: i % 4 === 3 ? [c, straightCubic(c[3], P(20, 90))] : [c], closed: false };
      const marks = profiles[i % 3 === 2 ? 0 : i % profiles.length](w);
      const outlines = strokeOutline(run, marks, round);
      expect(joined(outlines)).toBe(true);
      const { difference, area } = areaBetween(bodyBySweep(run, marks, 'round', 600), bodyOfOutlines(outlines));
      if (!(difference < 0.001 * area)) over.push(`${i} ${family}: ${difference / area}`);
    });
    expect(over).toEqual([]);
  });

  test('the quick outline for painting covers the same', () => {
    // But for strokes wider than they are long.
    const long = randomCubics(5, 40).filter((r) => r.family !== 'tiny');
    for (const [i, { cubic }] of long.entries()) {
      const run = { cubics: [cubic.map((p) => scale(p, 0.2)) as Cubic], closed: i % 2 === 1 };
      const marks = profiles[i % 3](4);
      const quick = outlinesOf(run, widthProfile(marks, run.closed), round, walkedOutline);
      const { difference, area } = areaBetween(bodyOfOutlines(strokeOutline(run, marks, round)), bodyOfOutlines(quick));
      expect(difference).toBeLessThan(0.003 * area + 0.02);
    }
  });

  test.each([
    ['butt', 20 * 100],
    ['square', 20 * 120],
    ['round', 20 * 100 + Math.PI * 100],
  ] as const)('a straight stroke with %s caps', (cap, area) => {
    const outlines = strokeOutline({ cubics: polyline(P(10, 10), P(110, 10)), closed: false }, even(10), {
      ...round,
      cap,
    });
    expect(outlines).toHaveLength(1);
    expect(areaOf(outlines)).toBeCloseTo(area, 0);
  });

  test.each([
    ['miter', 4, 10 * 10],
    ['miter', 1.2, 50],
    ['bevel', 4, 50],
    ['round', 4, (Math.PI * 100) / 4],
  ] as const)('a right corner with a %s join (limit %d)', (join, miterLimit, wedge) => {
    const run = { cubics: polyline(P(20, 20), P(120, 20), P(120, 120)), closed: false };
    const outlines = strokeOutline(run, even(10), { cap: 'butt', join, miterLimit, tolerance: 0.01 });
    // Two arms of 20 px, which overlap in a quarter of the square of the corner, and what the join adds outside.
    expect(areaOf(outlines)).toBeCloseTo(2 * 100 * 20 - 100 + wedge, 0);
  });

  test('the inside of a corner goes over from edge to edge where they cross', () => {
    const run = { cubics: polyline(P(20, 20), P(120, 20), P(120, 120)), closed: false };
    const [outline] = strokeOutline(run, even(10), { cap: 'butt', join: 'miter', tolerance: 0.01 });
    expect(outline).toHaveLength(6);
    expect(outline.some((c) => distance(c[3], P(110, 30)) < 1e-6)).toBe(true);
  });

  test('a closed run has two outlines; one that is narrower than its stroke leaves no hole', () => {
    const square = polyline(P(0, 0), P(60, 0), P(60, 60), P(0, 60), P(0, 0));
    const ring = strokeOutline({ cubics: square, closed: true }, even(5), { ...round, join: 'miter' });
    expect(ring).toHaveLength(2);
    expect(areaOf(ring)).toBeCloseTo(70 * 70 - 50 * 50, -0.5);
    const full = strokeOutline({ cubics: square, closed: true }, even(35), { ...round, join: 'miter' });
    expect(areaOf(full)).toBeCloseTo(130 * 130, 0);
  });

  test('each side has its own width, the left one first', () => {
    const run = { cubics: polyline(P(0, 0), P(100, 0)), closed: false };
    const [outline] = strokeOutline(run, [{ at: 0, left: 2, right: 7 }], { ...round, cap: 'butt' });
    const ys = outline.flat().map((p) => p.y);
    expect([Math.min(...ys), Math.max(...ys)]).toEqual([-2, 7]);
  });

  test('a run without length is a dot, a square, or nothing', () => {
    const run = { cubics: [[P(5, 5), P(5, 5), P(5, 5), P(5, 5)] as Cubic], closed: false };
    const area = (cap: StrokeOptions['cap']): number => areaOf(strokeOutline(run, even(4), { ...round, cap }));
    expect(area('round')).toBeCloseTo(Math.PI * 16, 1);
    expect(area('square')).toBeCloseTo(64, 6);
    expect(strokeOutline(run, even(4), { ...round, cap: 'butt' })).toEqual([]);
  });

  test('a width that changes faster than the line runs is the largest disc and what looks out of it', () => {
    const run = { cubics: polyline(P(50, 50), P(53, 50.5)), closed: false };
    const marks = profiles[2](8);
    const { difference, area } = areaBetween(
      bodyBySweep(run, marks, 'round', 300),
      bodyOfOutlines(strokeOutline(run, marks, round)),
    );
    expect(difference).toBeLessThan(0.002 * area);
  });

  test('a sharp mark keeps its point', () => {
    const run = { cubics: polyline(P(0, 0), P(100, 0)), closed: false };
    const marks = (sharp: boolean) => [
      { at: 0, left: 1, right: 1 },
      { at: 0.5, left: 9, right: 9, sharp },
      { at: 1, left: 1, right: 1 },
    ];
    const halfway = (sharp: boolean): number => widthProfile(marks(sharp)).at(0.25).left;
    expect(halfway(true)).toBeCloseTo(5, 9);
    expect(areaOf(strokeOutline(run, marks(true), { ...round, cap: 'butt' }))).toBeCloseTo(1000, -1.3);
  });

  test('is never NaN and stays within the stroke’s reach, whatever the run', () => {
    const near = fc.double({ min: -40, max: 40, noNaN: true });
    const place = fc.record({ x: near, y: near });
    // Coincident handles and points come up often in hand-drawn lines.
    const cubic = fc
      .tuple(place, place, place, place, fc.integer({ min: 0, max: 5 }))
      .map(([a, b, c, d, k]): Cubic =>
        k === 0 ? [a, a, c, d] : k === 1 ? [a, b, d, d] : k === 2 ? [a, b, b, a] : [a, b, c, d],
      );
    const width = fc.double({ min: 0, max: 20, noNaN: true });
    fc.assert(
      fc.property(
        fc.array(cubic, { minLength: 1, maxLength: 3 }),
        fc.boolean(),
        fc.tuple(width, width, width, width),
        fc.constantFrom('butt', 'round', 'square'),
        fc.constantFrom('miter', 'round', 'bevel'),
        (loose, closed, [a, b, c, d], cap, join) => {
          const cubics = loose.map((q, i): Cubic => (i === 0 ? q : [loose[i - 1][3], q[1], q[2], q[3]]));
          const marks = [
            { at: 0, left: a, right: b },
            { at: 1, left: c, right: d },
          ];
          const outlines = strokeOutline({ cubics, closed }, marks, { cap, join, tolerance: 0.05 });
          const all = outlines.flat();
          expect(all.flat().every((p) => Number.isFinite(p.x) && Number.isFinite(p.y))).toBe(true);
          expect(joined(outlines)).toBe(true);
          const far = 4 * Math.max(a, b, c, d) * 1.5 + 1;
          const reach = cubics.map(cubicBounds);
          const [minX, maxX] = [Math.min(...reach.map((r) => r.minX)), Math.max(...reach.map((r) => r.maxX))];
          for (const p of all.map((q) => q[3])) {
            expect(p.x).toBeGreaterThan(minX - far);
            expect(p.x).toBeLessThan(maxX + far);
          }
        },
      ),
      { numRuns: 300 },
    );
  });

  test('bad input is refused by name', () => {
    const run = { cubics: polyline(P(0, 0), P(1, 0)), closed: false };
    expect(() => strokeOutline(run, [], round)).toThrow('at least one width');
    expect(() => strokeOutline(run, [{ at: 0, left: -1, right: 1 }], round)).toThrow('not negative');
    expect(() => strokeOutline(run, [{ at: 2, left: 1, right: 1 }], round)).toThrow('0 to 1');
    expect(() => strokeOutline(run, even(1), { ...round, tolerance: 0 })).toThrow('tolerance');
    expect(() => strokeOutline(run, even(1), { ...round, miterLimit: 0 })).toThrow('miter limit');
    expect(() => strokeOutline({ cubics: [], closed: false }, even(1), round)).toThrow('at least one cubic');
  });
});

describe('widthProfile', () => {
  test('goes through its marks and never beyond two neighbours', () => {
    const mark = fc.record({
      at: fc.double({ min: 0, max: 1, noNaN: true }),
      left: fc.double({ min: 0, max: 50, noNaN: true }),
      right: fc.double({ min: 0, max: 50, noNaN: true }),
    });
    fc.assert(
      fc.property(fc.array(mark, { minLength: 1, maxLength: 8 }), fc.boolean(), (loose, closed) => {
        const marks = loose.sort((a, b) => a.at - b.at);
        const profile = widthProfile(marks, closed);
        for (const m of profile.marks) expect(profile.at(m.at).left).toBeCloseTo(m.left, 6);
        profile.marks.slice(1).forEach((b, i) => {
          const a = profile.marks[i];
          for (let k = 0; k <= 20; k++) {
            const { left } = profile.at(a.at + ((b.at - a.at) * k) / 20);
            expect(left).toBeGreaterThanOrEqual(Math.min(a.left, b.left) - 1e-6);
            expect(left).toBeLessThanOrEqual(Math.max(a.left, b.left) + 1e-6);
          }
        });
      }),
    );
  });

  test('a closed stroke goes on across its seam', () => {
    const profile = widthProfile(
      [
        { at: 0.25, left: 2, right: 2 },
        { at: 0.75, left: 6, right: 6 },
      ],
      true,
    );
    expect(profile.at(0).left).toBeCloseTo(4, 9);
    expect(profile.at(1).left).toBeCloseTo(4, 9);
    expect(profile.at(0).leftSlope).toBeCloseTo(profile.at(1).leftSlope, 9);
  });
});
