import fc from 'fast-check';
import { reversed, straightCubic, type Cubic } from '../geometry/cubic';
import type { Point } from '../geometry/point';
import { areaBetween, bodyOfOutlines } from '../test/bodyOracle';
import { withoutSpikes } from './spikes';

const P = (x: number, y: number): Point => ({ x, y });
const ring = (...points: Point[]): Cubic[] => points.map((p, i) => straightCubic(p, points[(i + 1) % points.length]));
const corners = (outline: Cubic[]): number[][] => outlineOf(outline).map((p) => [p.x, p.y]);
const outlineOf = (outline: Cubic[]): Point[] => outline.map((c) => c[0]);
const square = [P(0, 0), P(10, 0), P(10, 10), P(0, 10)];

test('a spike inward or outward goes, in the middle or at the seam', () => {
  const [a, b, c, d] = square;
  expect(corners(withoutSpikes(ring(a, b, P(5, 5), b, c, d)))).toEqual(corners(ring(...square)));
  expect(corners(withoutSpikes(ring(a, b, c, P(30, 10), c, d)))).toEqual(corners(ring(...square)));
  expect(withoutSpikes(ring(P(-9, -9), a, b, c, d, a))).toHaveLength(4);
  // It began on a side, which stays cut there.
  expect(withoutSpikes(ring(P(0, 5), a, b, c, d, P(0, -7)))).toHaveLength(5);
});

test('what is there and back again is nothing; curves go back as well', () => {
  expect(withoutSpikes(ring(P(0, 0), P(10, 0)))).toEqual([]);
  expect(withoutSpikes([])).toEqual([]);
  const bow: Cubic = [P(10, 0), P(14, 3), P(14, 8), P(20, 9)];
  const outline = ring(...square).flatMap((c, i) => (i === 0 ? [c, bow, reversed(bow)] : [c]));
  expect(corners(withoutSpikes(outline))).toEqual(corners(ring(...square)));
  expect(withoutSpikes([bow])).toEqual([bow]);
});

test('what it encloses stays the same, and it stays closed', () => {
  const place = fc.record({ x: fc.integer({ min: 0, max: 60 }), y: fc.integer({ min: 0, max: 60 }) });
  fc.assert(
    fc.property(fc.array(place, { minLength: 3, maxLength: 9 }), (points) => {
      const outline = ring(...points);
      const clean = withoutSpikes(outline);
      clean.forEach((c, i) => expect(c[3]).toEqual(clean[(i + 1) % clean.length][0]));
      expect(clean.length).toBeLessThanOrEqual(outline.length);
      const { difference } = areaBetween(bodyOfOutlines([outline]), bodyOfOutlines(clean.length > 0 ? [clean] : []));
      expect(difference).toBeLessThan(0.5);
    }),
    { numRuns: 60 },
  );
});
