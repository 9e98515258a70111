import fc from 'fast-check';
import { bent, bentEvenly } from './bend';
import { cubicAt } from '../index';
import type { Cubic } from './cubic';
import { distance, type Point } from './point';

const place = fc.record({
  x: fc.double({ min: -500, max: 500, noNaN: true }),
  y: fc.double({ min: -500, max: 500, noNaN: true }),
});
const cubics = fc.tuple(place, place, place, place) as fc.Arbitrary<Cubic>;

describe('bending a cubic', () => {
  it('takes its place at t to the pointer and leaves its ends', () => {
    fc.assert(
      fc.property(cubics, fc.double({ min: 0.06, max: 0.94, noNaN: true }), place, (c, t, to) => {
        const result = bent(c, t, to);
        expect(distance(cubicAt(result, t), to)).toBeLessThan(1e-6);
        expect([result[0], result[3]]).toEqual([c[0], c[3]]);
      }),
    );
  });

  it('moves both handles by the least that will do: any other way to the same place moves them further', () => {
    const c: Cubic = [
      { x: 0, y: 0 },
      { x: 30, y: 40 },
      { x: 70, y: 40 },
      { x: 100, y: 0 },
    ];
    const to = { x: 40, y: 80 };
    const moved = (r: Cubic): number => Math.hypot(distance(r[1], c[1]), distance(r[2], c[2]));
    const t = 0.4;
    const [b1, b2] = [3 * t * (1 - t) ** 2, 3 * t ** 2 * (1 - t)];
    const least = moved(bent(c, t, to));
    for (let share = -1; share <= 2; share += 0.05) {
      // Another pair of handles through the same place: a share of the way by the first, the rest by the second.
      const at = cubicAt(c, t);
      const direction = { x: to.x - at.x, y: to.y - at.y };
      const other: Cubic = [
        c[0],
        { x: c[1].x + (direction.x * share) / b1, y: c[1].y + (direction.y * share) / b1 },
        { x: c[2].x + (direction.x * (1 - share)) / b2, y: c[2].y + (direction.y * (1 - share)) / b2 },
        c[3],
      ];
      expect(distance(cubicAt(other, t), to)).toBeLessThan(1e-9);
      expect(moved(other)).toBeGreaterThanOrEqual(least - 1e-9);
    }
  });

  it('does not throw its handles to the end of the world when taken next to an end', () => {
    const c: Cubic = [
      { x: 0, y: 0 },
      { x: 33, y: 0 },
      { x: 66, y: 0 },
      { x: 100, y: 0 },
    ];
    expect(Math.abs(bent(c, 0.001, { x: 0, y: 10 })[1].y)).toBeLessThan(100);
  });

  it('can be even: its own mirror image, through the pointer', () => {
    fc.assert(
      fc.property(
        place,
        place,
        fc.double({ min: 0.1, max: 0.9, noNaN: true }),
        fc.double({ min: -200, max: 200, noNaN: true }),
        (a, b, t, h) => {
          const length = distance(a, b);
          fc.pre(length > 1);
          const [ax, ay] = [(b.x - a.x) / length, (b.y - a.y) / length];
          const to: Point = { x: a.x + ax * length * t + ay * h, y: a.y + ay * length * t - ax * h };
          const c = bentEvenly([a, a, b, b], to);
          expect(distance(cubicAt(c, t), to)).toBeLessThan(1e-6 * (1 + Math.abs(h)));
          // Mirrored about the middle of its chord, it is itself.
          const along = (p: Point): number => (p.x - a.x) * ax + (p.y - a.y) * ay;
          const across = (p: Point): number => (p.x - a.x) * ay - (p.y - a.y) * ax;
          expect(along(c[1]) + along(c[2])).toBeCloseTo(length, 6);
          expect(across(c[1])).toBeCloseTo(across(c[2]), 6);
        },
      ),
    );
  });
});
