import fc from 'fast-check';
import { itemSchema, itemsSchema } from './item';
import { lineSchema } from './line';
import { isPlainLine } from './plainLine';

const node = { point: { x: 1, y: 2 }, in: null, out: { x: 3, y: 0 }, kind: 'smooth' };
/** Mostly what is sound: of many parts, one that is odd is enough. */
const mostly = <A, B>(sound: fc.Arbitrary<A>, odd: fc.Arbitrary<B>): fc.Arbitrary<A | B> =>
  fc.oneof({ weight: 24, arbitrary: sound }, { weight: 1, arbitrary: odd });
const few = <T extends object>(parts: { [K in keyof T]: fc.Arbitrary<T[K]> }, ...always: (keyof T)[]) =>
  mostly(fc.record(parts, { requiredKeys: always }), fc.anything());
const more = fc.constantFrom(undefined, 1);

const width = mostly(fc.constantFrom(0, 0.5, 1), fc.constantFrom(7, 10_000.5, -1, NaN, Infinity, '1', null));
const paint = mostly(
  fc.constantFrom('#ab01ff', '#ab01ff80', { swatch: 'a' }),
  fc.constantFrom(
    '#AB01FF',
    '#ab01f',
    '#ab01ff8',
    'red',
    7,
    { swatch: '' },
    { swatch: 'a', more: 1 },
    { gradient: 'g' },
  ),
);
const style = few(
  {
    stroke: paint,
    fill: fc.option(paint),
    width,
    cap: mostly(fc.constantFrom('butt', 'round', 'square'), fc.constant('odd')),
    join: mostly(fc.constantFrom('miter', 'round', 'bevel'), fc.constant('odd')),
  },
  'stroke',
  'fill',
  'width',
  'cap',
  'join',
);
const run = few({ closed: mostly(fc.boolean(), fc.constant(1)), nodes: mostly(fc.constant([node]), fc.constant([])) });
const sharp = mostly(fc.boolean(), fc.constantFrom(undefined, 1));
const mark = few({ at: width, left: width, right: width, sharp }, 'at', 'left', 'right');
const line = few(
  {
    id: mostly(fc.constant('a'), fc.constantFrom('a b', '', 7)),
    runs: mostly(fc.array(run, { minLength: 1, maxLength: 2 }), fc.constant([])),
    style,
    marks: mostly(fc.array(mark, { maxLength: 3 }), fc.constantFrom(undefined, null)),
    more,
  },
  'id',
  'runs',
  'style',
);

const plain = {
  id: 'a',
  runs: [{ closed: false, nodes: [node, node] }],
  style: { stroke: '#102030', width: 2, cap: 'round', join: 'round', fill: null },
};

test('what is seen to be a sound line at once is one for the schema as well', () => {
  let seen = 0;
  fc.assert(
    fc.property(line, (value) => {
      if (!isPlainLine(value)) return;
      seen++;
      expect(lineSchema.safeParse(value).success).toBe(true);
    }),
    { numRuns: 5_000 },
  );
  expect(seen).toBeGreaterThan(100);
});

test('a plain line is seen at once, and goes on as it is', () => {
  expect(isPlainLine(plain)).toBe(true);
  expect(itemSchema.parse(plain)).toBe(plain);
  // What else is sound is gone through, and taken as well.
  expect(itemSchema.parse({ ...plain, name: 'stem' })).toEqual({ ...plain, name: 'stem' });
});

test('what is not sound is told with its place', () => {
  const far = { ...plain, runs: [{ closed: false, nodes: [{ ...node, point: { x: 2e7, y: 0 } }] }] };
  const group = { kind: 'group', id: 'g', name: '', items: [plain, far] };
  const { error } = itemsSchema.safeParse([plain, group]);
  expect(error?.issues.map((i) => [i.code, i.path.join(' ')])).toEqual([
    ['too_big', '1 items 1 runs 0 nodes 0 point x'],
  ]);
});
