import fc from 'fast-check';
import { z } from 'zod';
import { nodeSchema, nodesSchema } from './nodes';

const slow = z.array(nodeSchema).min(1).max(4);
const quick = nodesSchema(1, 4);

const number = fc.oneof(fc.double({ min: -2e7, max: 2e7 }), fc.constant(NaN), fc.constant('1'), fc.constant(-1e7));
const offset = fc.oneof(
  { weight: 8, arbitrary: fc.record({ x: number, y: number }) },
  { weight: 1, arbitrary: fc.record({ x: number, y: number, z: number }, { requiredKeys: ['x'] }) },
  { weight: 1, arbitrary: fc.constantFrom(undefined, null, 7, [1, 2]) },
);
const node = fc.oneof(
  {
    weight: 8,
    arbitrary: fc.record(
      {
        point: offset,
        in: fc.option(offset),
        out: fc.option(offset),
        kind: fc.constantFrom('corner', 'smooth', 'even', 'flowing', 'odd'),
        radius: fc.constantFrom(undefined, 0, 12, -1, 100_000, 100_001, NaN, null),
        more: fc.anything(),
      },
      { requiredKeys: ['point', 'in', 'out', 'kind'] },
    ),
  },
  { weight: 1, arbitrary: fc.anything() },
);
const sound = fc.record({
  point: fc.record({ x: fc.integer(), y: fc.double({ min: -1e7, max: 1e7, noNaN: true }) }),
  in: fc.constant(null),
  out: fc.option(fc.record({ x: fc.constantFrom(1e7, 1e7 + 1), y: fc.constant(0) })),
  kind: fc.constantFrom('corner', 'smooth'),
});

test('nodes pass, and fail at the same places in the same words, as if each were gone through', () => {
  fc.assert(
    fc.property(
      fc.oneof(fc.array(sound, { maxLength: 5 }), fc.array(node, { maxLength: 5 }), fc.anything()),
      (value) => {
        const [a, b] = [quick.safeParse(value), slow.safeParse(value)];
        expect(a.success).toBe(b.success);
        if (a.success) expect(a.data).toBe(value);
        else
          expect(a.error.issues.map((i) => [i.code, i.path, i.message])).toEqual(
            b.error!.issues.map((i) => [i.code, i.path, i.message]),
          );
      },
    ),
    { numRuns: 2_000 },
  );
});
