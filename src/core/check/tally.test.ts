import fc from 'fast-check';
import { lineOf, together, type LineDistance } from './lineDistance';
import { figuresOfAll, tallyOf } from './tally';

const lineAt = (distances: readonly number[]): LineDistance => {
  const rows = Float32Array.from(distances.flatMap((d, i) => [i, 0, i, d]));
  const run = { cubics: [], closed: false, rows, segment: new Int32Array(distances.length), stroke: null };
  return lineOf('l', [run]).distance;
};

test('tallies of many lines come to the same figures as all their places', () => {
  const distance = fc.oneof(
    fc.double({ min: 0, max: 20, noNaN: true }),
    fc.constant(NaN),
    fc.constantFrom(0, 0.02, 0.5, 12),
  );
  fc.assert(
    fc.property(fc.array(fc.array(distance, { minLength: 1, maxLength: 60 }), { maxLength: 12 }), (lists) => {
      const lines = lists.map(lineAt);
      const [exact, counted] = [together(lines), figuresOfAll(lines.map((l) => tallyOf(l.places)))];
      expect(counted.mean).toBeCloseTo(exact.mean, 4);
      expect(counted.max).toBe(exact.max);
      expect(counted.inked).toBeCloseTo(exact.inked, 9);
      expect(Math.abs(counted.p95 - exact.p95)).toBeLessThan(0.021);
    }),
    { numRuns: 200 },
  );
});
