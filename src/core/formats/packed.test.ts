import fc from 'fast-check';
import { isGroup } from '../drawing/items';
import { freshSheet, type Drawing, type Item } from '../drawing/schema';
import { anyNode } from '../test/anyNode';
import { wanderingDrawing } from '../test/drawings';
import { isPacked, packed, unpacked, unpackedBare } from './packed';

const node = anyNode(fc.double({ noNaN: true, noDefaultInfinity: true }));

const start = wanderingDrawing(1, 2, 1);
const [plain] = start.sheets[0].items as [Item & { kind?: undefined }];
const line = fc
  .array(fc.record({ closed: fc.boolean(), nodes: fc.array(node, { minLength: 1, maxLength: 5 }) }), {
    minLength: 1,
    maxLength: 3,
  })
  .map((runs) => ({ ...plain, runs }));
const { item } = fc.letrec<{ item: Item }>((tie) => ({
  item: fc.oneof(
    { maxDepth: 3 },
    line,
    fc
      .record({ name: fc.string(), items: fc.array(tie('item'), { maxLength: 3 }), clip: fc.option(line) })
      .map(({ clip, ...g }) => ({ kind: 'group' as const, id: 'g', ...g, ...(clip && { clip }) })),
  ),
}));
const drawing: fc.Arbitrary<Drawing> = fc.array(fc.array(item, { maxLength: 4 }), { maxLength: 3 }).map((lists) => ({
  ...start,
  sheets: lists.map((items, i) => ({ ...freshSheet(`s${i}`, 'nodes', '#8f2d63'), items })),
}));

describe('a packed drawing', () => {
  test('is, unpacked, what its JSON is, whatever is in it', () => {
    fc.assert(
      fc.property(drawing, (d) => {
        const bytes = packed(d);
        expect(isPacked(bytes)).toBe(true);
        expect(unpacked(bytes)).toEqual(JSON.parse(JSON.stringify(d)));
        // Wherever in other bytes it lies.
        const moved = new Uint8Array(bytes.length + 3).subarray(3);
        moved.set(bytes);
        expect(JSON.stringify(unpacked(moved))).toBe(JSON.stringify(d));
      }),
    );
  });

  test('tells its page and what lies under the work without what lies on its sheets', () => {
    fc.assert(
      fc.property(drawing, (d) => expect(unpackedBare(packed(d))).toEqual({ ...d, sheets: [] })),
      { numRuns: 30 },
    );
    expect(() => unpackedBare(packed(start).slice(0, -1))).toThrow('it has not its length');
  });

  test('keeps nodes that say more than it knows of, as JSON', () => {
    const odd = {
      ...start.sheets[0].items[0],
      runs: [{ closed: false, nodes: [{ point: { x: 1, y: 2 }, warmth: 7 }] }],
    };
    const d = { ...start, sheets: [{ ...start.sheets[0], items: [odd, plain] }] } as unknown as Drawing;
    expect(unpacked(packed(d))).toEqual(d);
    expect(d.sheets[0].items.some(isGroup)).toBe(false);
  });

  test('takes less than half of its JSON', () => {
    const d = wanderingDrawing(200, 8, 3);
    expect(packed(d).length).toBeLessThan(JSON.stringify(d).length / 2);
  });

  test('that is damaged says so', () => {
    const bytes = packed(start);
    expect(() => unpacked(new Uint8Array(3))).toThrow(/does not begin as one/);
    expect(() => unpacked(new TextEncoder().encode(JSON.stringify(start)))).toThrow(/does not begin as one/);
    expect(() => unpacked(bytes.subarray(0, bytes.length - 1))).toThrow(/has not its length/);
    const fewer = bytes.slice();
    // One node more is in its runs than there are numbers for.
    const text = new TextDecoder('latin1').decode(fewer);
    fewer[text.indexOf('"nodes":3') + 8] = '4'.charCodeAt(0);
    expect(() => unpacked(fewer)).toThrow(/damaged/);
  });

  test('of a later program is not read', () => {
    const later = packed({ ...start, schema: 99 as never });
    expect(() => unpacked(later)).toThrow(/later program/);
  });
});
