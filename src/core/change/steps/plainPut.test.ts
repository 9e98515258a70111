import fc from 'fast-check';
import { z } from 'zod';
import { linesOf } from '../../drawing/items';
import { wanderingDrawing } from '../../test/drawings';
import { changeSchema } from '../change';
import { definitions } from '.';
import { isPlainPut } from './plainPut';

const puts = z.union([definitions.insertItem.schema, definitions.removeItem.schema]);
const [line] = linesOf(wanderingDrawing(1, 3, 1).sheets[0]);
const odd = fc.constantFrom<unknown>(undefined, null, -1, 0.5, NaN, Infinity, 2 ** 53, 'a b', '', [], {}, 7);
const mostly = (...sound: unknown[]) =>
  fc.oneof({ weight: 24, arbitrary: fc.constantFrom(...sound) }, { weight: 1, arbitrary: odd });
const place = fc.record({ sheet: mostly('s'), group: mostly('g', undefined), index: mostly(3) });
const step = fc.record({
  step: mostly('insertItem', 'removeItem', 'setLine'),
  at: fc.oneof({ weight: 24, arbitrary: place }, { weight: 1, arbitrary: odd }),
  item: mostly(line, line, { ...line, style: { ...line.style, width: -1 } }),
});

test('what is seen at once to be sound is so for the schema as well, and goes on as it is', () => {
  let seen = 0;
  fc.assert(
    fc.property(step, (value) => {
      if (!isPlainPut(value)) return;
      seen++;
      expect(puts.safeParse(value).success).toBe(true);
    }),
    { numRuns: 5_000 },
  );
  expect(seen).toBeGreaterThan(100);
  const put = { step: 'insertItem', at: { sheet: 's', index: 0 }, item: line };
  expect(isPlainPut(put)).toBe(true);
  for (const more of [
    { ...put, more: 1 },
    { ...put, at: { ...put.at, more: 1 } },
  ])
    expect(isPlainPut(more)).toBe(false);
});

test('a change of plain steps is taken as it is; one that is not sound is told with its place', () => {
  const put = { step: 'insertItem', at: { sheet: 's', index: 0 }, item: line };
  const steps = [put, { ...put, step: 'removeItem' }];
  const change = { id: 'a', label: 'Paste', steps };
  expect(changeSchema.parse(change)).toEqual(change);
  // A step of another kind among them is gone through, and taken as well.
  const sheet = { step: 'removeSheet', at: 0 };
  expect(changeSchema.safeParse({ ...change, steps: [put, sheet] }).error?.issues[0].path.slice(0, 2)).toEqual([
    'steps',
    1,
  ]);
  const far = { ...put, at: { sheet: 's', index: -1 } };
  expect(changeSchema.safeParse({ ...change, steps: [put, far] }).error?.issues[0].path).toEqual([
    'steps',
    1,
    'at',
    'index',
  ]);
  for (const none of [[], 'steps', null])
    expect(changeSchema.safeParse({ ...change, steps: none }).success).toBe(false);
});
