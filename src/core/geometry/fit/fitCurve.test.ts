import fc from 'fast-check';
import { fitCurve, nearestOnCubic, type Cubic, type Point } from '@/core';
import { stroke, strokeKinds, walk, type Stroke } from '@/core/test/strokes';

const distanceTo = (cubics: readonly Cubic[], p: Point): number =>
  Math.min(...cubics.map((c) => nearestOnCubic(c, p).distance));

/** The turn at each inner joint, in degrees. */
const turns = (cubics: readonly Cubic[]): { at: Point; turn: number }[] =>
  cubics.slice(1).map((b, i) => {
    const a = cubics[i];
    const turn = Math.atan2(b[1].y - b[0].y, b[1].x - b[0].x) - Math.atan2(a[3].y - a[2].y, a[3].x - a[2].x);
    return { at: b[0], turn: Math.abs(Math.atan2(Math.sin(turn), Math.cos(turn))) * (180 / Math.PI) };
  });

type Fitted = { stroke: Stroke; fit: Cubic[] };
let fitted: Fitted[];
beforeAll(() => {
  fitted = Array.from({ length: 45 }, (_, i) => stroke(strokeKinds[i % 5], i)).map((s) => ({
    stroke: s,
    fit: fitCurve(s.points, { tolerance: 2 }),
  }));
});

test('the points are served: 99.5 % within the tolerance, none beyond half as much again', () => {
  let [over, count] = [0, 0];
  for (const { stroke: s, fit } of fitted) {
    const distances = s.points.map((p) => distanceTo(fit, p));
    expect(Math.max(...distances)).toBeLessThan(3);
    over += distances.filter((d) => d > 2).length;
    count += distances.length;
  }
  expect(over / count).toBeLessThan(0.005);
});

test('noise is smoothed: the result runs along the true curve, between the points as well', () => {
  let [sum, count] = [0, 0];
  for (const { stroke: s, fit } of fitted) {
    const distances = walk(fit, 2).map((p) => distanceTo(s.cubics, p));
    expect(Math.max(...distances)).toBeLessThan(2);
    sum += distances.reduce((a, d) => a + d * d, 0);
    count += distances.length;
  }
  expect(Math.sqrt(sum / count)).toBeLessThan(0.3);
});

test('few segments: of each kind no more than the truth has, and half as many again', () => {
  for (const kind of strokeKinds.slice(0, 5)) {
    const own = fitted.filter((f) => f.stroke.kind === kind);
    const ratio = own.reduce((n, f) => n + f.fit.length, 0) / own.reduce((n, f) => n + f.stroke.cubics.length, 0);
    // A cusp is one cubic's, or a corner between two: with this noise there is no telling for some.
    expect(ratio).toBeLessThan(kind === 'cusp' ? 2 : 1.5);
  }
});

test('corners stay corners, and everything else is smooth', () => {
  let [kept, all] = [0, 0];
  for (const { stroke: s, fit } of fitted) {
    const sharp = turns(fit).filter((t) => t.turn > 20);
    all += s.corners.length;
    kept += s.corners.filter((c) => sharp.some((t) => Math.hypot(t.at.x - c.x, t.at.y - c.y) < 4)).length;
    if (s.kind === 'smooth' || s.kind === 'S') expect(turns(fit).every((t) => t.turn < 1e-6)).toBe(true);
  }
  expect(kept / all).toBeGreaterThan(0.95);
});

test('a short stray handle is no corner: long smooth strokes have none, however they are cut', () => {
  for (const seed of [5035, 5053, 9065, 20083]) {
    const fit = fitCurve(stroke('long', seed).points, { tolerance: 2 });
    expect(Math.max(...turns(fit).map((t) => t.turn))).toBeLessThan(1e-6);
  }
});

test('a closed stroke comes back to its start, smoothly where it is smooth', () => {
  const circle = Array.from({ length: 150 }, (_, i) => {
    const a = (i / 150) * 2 * Math.PI;
    return { x: 200 + 100 * Math.cos(a), y: 200 + 100 * Math.sin(a) };
  });
  const fit = fitCurve(circle, { tolerance: 0.5, closed: true });
  expect(fit.length).toBeLessThanOrEqual(4);
  expect(fit.at(-1)![3]).toEqual(fit[0][0]);
  expect(turns([...fit, fit[0]]).every((t) => t.turn < 1e-6)).toBe(true);
  for (const p of walk(fit, 3)) expect(Math.abs(Math.hypot(p.x - 200, p.y - 200) - 100)).toBeLessThan(0.5);

  const square = [0, 1, 2, 3].flatMap((side) =>
    Array.from({ length: 25 }, (_, i) => {
      const along = [
        [i * 4, 0],
        [100, i * 4],
        [100 - i * 4, 100],
        [0, 100 - i * 4],
      ][side];
      return { x: along[0], y: along[1] };
    }),
  );
  const sides = fitCurve(square, { tolerance: 1, closed: true });
  expect(sides).toHaveLength(4);
  for (const c of sides) expect([0, 100].some((v) => Math.abs(c[0].x - v) < 0.5)).toBe(true);
});

test('a stroke told by very many points is the same stroke', () => {
  const s = stroke('smooth', 12);
  const [coarse, fine] = [2, 0.2].map((spacing) => fitCurve(walk(s.cubics, spacing), { tolerance: 1 }));
  expect(fine.length).toBeLessThanOrEqual(s.cubics.length);
  expect(fine.length).toBe(coarse.length);
  for (const p of walk(fine, 3)) expect(distanceTo(s.cubics, p)).toBeLessThan(0.6);
});

test('a turn over the corner angle stays, one below it is rounded', () => {
  const bent = [
    ...Array.from({ length: 40 }, (_, i) => ({ x: i * 2, y: 0 })),
    ...Array.from({ length: 40 }, (_, i) => ({ x: 80 + i * 2 * Math.cos(0.8), y: i * 2 * Math.sin(0.8) })),
  ];
  const sharpest = (cornerAngle: number): number =>
    Math.max(0, ...turns(fitCurve(bent, { tolerance: 1, cornerAngle })).map((t) => t.turn));
  expect(sharpest(30)).toBeGreaterThan(40);
  expect(sharpest(75)).toBeLessThan(1e-6);
});

test('any points give a finite chain that starts and ends with them', () => {
  const coordinate = fc.double({ min: -500, max: 500, noNaN: true });
  fc.assert(
    fc.property(fc.array(fc.record({ x: coordinate, y: coordinate }), { minLength: 1, maxLength: 40 }), (points) => {
      const fit = fitCurve(points, { tolerance: 3 });
      expect(fit.length).toBeGreaterThan(0);
      expect(fit.flat().every((p) => Number.isFinite(p.x) && Number.isFinite(p.y))).toBe(true);
      fit.slice(1).forEach((c, i) => expect(c[0]).toEqual(fit[i][3]));
    }),
    { numRuns: 150 },
  );
});

test.each([
  ['no points', [], { tolerance: 1 }],
  ['a point that is not finite', [{ x: NaN, y: 0 }], { tolerance: 1 }],
  ['no tolerance', [{ x: 0, y: 0 }], { tolerance: 0 }],
  ['a negative tolerance', [{ x: 0, y: 0 }], { tolerance: -1 }],
  ['an impossible angle', [{ x: 0, y: 0 }], { tolerance: 1, cornerAngle: 400 }],
])('%s is refused', (_, points, options) => expect(() => fitCurve(points, options)).toThrow(RangeError));
