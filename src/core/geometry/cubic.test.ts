import fc from 'fast-check';
import { sampledDistance, sampledLength, sampledMinimum } from '../test/bruteForce';
import { randomCubics } from '../test/randomCubics';
import { seeded } from '@/core/seeded';
import { cubicBounds } from './bounds';
import { cubicAt, pieceOf, polygonLength, splitCubic, type Cubic } from './cubic';
import { cubicLength } from './length';
import { nearestOnCubic } from './nearest';
import { distance, point, type Point } from './point';

const anyPoint = fc.record({
  x: fc.double({ min: -2000, max: 2000, noNaN: true }),
  y: fc.double({ min: -2000, max: 2000, noNaN: true }),
});
const anyCubic = fc.tuple(anyPoint, anyPoint, anyPoint, anyPoint) as fc.Arbitrary<Cubic>;
const parameter = fc.double({ min: 0, max: 1, noNaN: true });

describe('bad input', () => {
  const good: Cubic = [point(0, 0), point(1, 2), point(3, 2), point(4, 0)];
  const bad: Cubic = [point(0, 0), point(NaN, 2), point(3, 2), point(4, 0)];
  test.each([
    ['cubicAt', () => cubicAt(bad, 0.5)],
    ['cubicAt, parameter', () => cubicAt(good, NaN)],
    ['splitCubic', () => splitCubic(bad, 0.5)],
    ['splitCubic, parameter', () => splitCubic(good, 1.5)],
    ['cubicBounds', () => cubicBounds(bad)],
    ['cubicLength', () => cubicLength(bad)],
    ['cubicLength, tolerance', () => cubicLength(good, -1)],
    ['nearestOnCubic', () => nearestOnCubic(bad, point(0, 0))],
    ['nearestOnCubic, point', () => nearestOnCubic(good, point(0, Infinity))],
    ['too few points', () => cubicLength([point(0, 0)] as unknown as Cubic)],
  ])('%s throws a RangeError', (_, call) => expect(call).toThrow(RangeError));
});

test('a split keeps the ends and the joint exactly, and the curve', () => {
  fc.assert(
    fc.property(anyCubic, parameter, parameter, (c, t, s) => {
      const [left, right] = splitCubic(c, t);
      expect(left[0]).toEqual(c[0]);
      expect(right[3]).toEqual(c[3]);
      expect(left[3]).toBe(right[0]);
      expect(distance(cubicAt(left, s), cubicAt(c, s * t))).toBeLessThan(1e-9);
      expect(distance(cubicAt(right, s), cubicAt(c, t + s * (1 - t)))).toBeLessThan(1e-9);
    }),
  );
});

test('a piece runs from one parameter to the other', () => {
  fc.assert(
    fc.property(anyCubic, parameter, parameter, (c, s, t) => {
      const [from, to] = [Math.min(s, t), Math.max(s, t)];
      fc.pre(from < 1);
      const piece = pieceOf(c, from, to);
      expect(distance(piece[0], cubicAt(c, from))).toBeLessThan(1e-9);
      expect(distance(piece[3], cubicAt(c, to))).toBeLessThan(1e-9);
    }),
  );
});

describe('against brute force, on 400 seeded cubics with every degenerate family', () => {
  const cubics = randomCubics(20260101, 400);

  test('arc length within 1e-6 relative', () => {
    // The sampled truth takes its time: every third of them, of every family.
    for (const { family, cubic } of cubics.filter((_, i) => i % 3 === 0)) {
      const truth = sampledLength(cubic);
      // Below 1e-6 units (a curve of one point) only rounding is left to compare.
      const off = truth < 1e-6 ? cubicLength(cubic) : Math.abs(cubicLength(cubic) - truth) / truth;
      expect({ family, off: off < 1e-6 ? 'fine' : off }).toEqual({ family, off: 'fine' });
    }
  });

  test('bounds within 1e-9: nothing sticks out, and every side is touched', () => {
    for (const { family, cubic } of cubics) {
      const b = cubicBounds(cubic);
      for (const [side, axis, sign] of [
        ['minX', 'x', 1],
        ['maxX', 'x', -1],
        ['minY', 'y', 1],
        ['maxY', 'y', -1],
      ] as const) {
        const off = Math.abs(sign * sampledMinimum(cubic, (p) => sign * p[axis]) - b[side]);
        expect({ family, side, off: off < 1e-9 ? 'fine' : off }).toEqual({ family, side, off: 'fine' });
      }
    }
  });

  test('nearest distance within 1e-6, the point on the curve', () => {
    const random = seeded(77);
    cubics.forEach(({ family, cubic }, i) => {
      const p: Point = i % 3 === 0 ? cubicAt(cubic, random()) : point(random() * 1400 - 200, random() * 1400 - 200);
      const found = nearestOnCubic(cubic, p);
      expect(distance(found.point, cubicAt(cubic, found.t))).toBeLessThan(1e-9);
      const off = Math.abs(found.distance - sampledDistance(cubic, p));
      expect({ family, off: off < 1e-6 ? 'fine' : off }).toEqual({ family, off: 'fine' });
    });
  });
});

test('nearest place on straight cubics that stand still at their ends, for points on them', () => {
  fc.assert(
    fc.property(anyPoint, anyPoint, parameter, (p, q, t) => {
      const straight: Cubic = [p, p, q, q];
      expect(nearestOnCubic(straight, cubicAt(straight, t)).distance).toBeLessThan(1e-4);
    }),
    { numRuns: 2000 },
  );
});

test('nearest point from the centre of a near-circle, where all of the curve is as far', () => {
  const k = 0.5522847498;
  const arc: Cubic = [point(100, 0), point(100, 100 * k), point(100 * k, 100), point(0, 100)];
  expect(Math.abs(nearestOnCubic(arc, point(0, 0)).distance - sampledDistance(arc, point(0, 0)))).toBeLessThan(1e-9);
});

test('length is additive, and between the chord and the control polygon', () => {
  fc.assert(
    fc.property(anyCubic, parameter, (c, t) => {
      const whole = cubicLength(c);
      const [left, right] = splitCubic(c, t);
      expect(Math.abs(cubicLength(left) + cubicLength(right) - whole)).toBeLessThanOrEqual(1e-7 * (whole + 1));
      expect(whole).toBeGreaterThanOrEqual(distance(c[0], c[3]) * (1 - 1e-9));
      expect(whole).toBeLessThanOrEqual(polygonLength(c) * (1 + 1e-9) + 1e-12);
    }),
  );
});
