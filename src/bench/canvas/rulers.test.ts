import fc from 'fast-check';
import { stepFor } from './rulers';

test('the figures on a ruler are round, and neither crowded nor lonely', () => {
  expect([stepFor(1), stepFor(100), stepFor(4.5), stepFor(0.02)]).toEqual([100, 1, 20, 5000]);
  fc.assert(
    fc.property(fc.double({ min: 0.01, max: 500, noNaN: true }), (pxPerUnit) => {
      const gap = stepFor(pxPerUnit) * pxPerUnit;
      expect(gap).toBeGreaterThan(59.99);
      expect(gap).toBeLessThan(151);
    }),
  );
});
