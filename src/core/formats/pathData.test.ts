import fc from 'fast-check';
import { decimal } from './pathData';

test('a number is written as the language itself writes it, rounded', () => {
  const figure = fc.oneof(
    fc.double({ noNaN: true, noDefaultInfinity: true }),
    fc.double({ min: -2_000, max: 2_000, noNaN: true }),
  );
  fc.assert(
    fc.property(figure, fc.integer({ min: 0, max: 12 }), (value, precision) => {
      const unit = 10 ** precision;
      expect(decimal(value, precision)).toBe(String(Math.round(value * unit) / unit));
    }),
    { numRuns: 3_000 },
  );
  expect([decimal(-0.0001, 3), decimal(1.5, 3), decimal(-1000, 0), decimal(0.05, 2)]).toEqual([
    '0',
    '1.5',
    '-1000',
    '0.05',
  ]);
});
