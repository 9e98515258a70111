import fc from 'fast-check';
import { linesOf } from '../drawing/items';
import { anyNode } from '../test/anyNode';
import { wanderingDrawing } from '../test/drawings';
import type { Item, Line } from '../drawing/schema';
import { changeSchema } from './change';
import { moveLines } from '../edits/lines';
import { MOST_CHANGE_BYTES, mostBytes, refusalOf } from './refusal';

const d = wanderingDrawing(3, 2, 1);
const ids = new Set(d.sheets.flatMap((s) => linesOf(s).map((l) => l.id)));

test('what the journal takes is not refused', () => {
  const change = { id: 'a', ...moveLines(d, ids, { x: 5, y: 5 }) };
  expect(changeSchema.safeParse(change).success).toBe(true);
  expect(refusalOf(change)).toBeNull();
});

test('far coordinates are told as such', () => {
  expect(refusalOf({ id: 'a', ...moveLines(d, ids, { x: 2e7, y: 0 }) })).toContain('further out');
  expect(refusalOf({ id: 'a', ...moveLines(d, ids, { x: NaN, y: 0 }) })).toContain('cannot be kept');
});

test('groups that are too deep are told as such', () => {
  const deep = (levels: number): Item =>
    levels === 0 ? linesOf(d.sheets[0])[0] : { kind: 'group', id: `g${levels}`, name: '', items: [deep(levels - 1)] };
  const pasted = (levels: number) =>
    refusalOf({
      id: 'g',
      label: 'Paste',
      steps: [{ step: 'insertItem', at: { sheet: 's0', index: 0 }, item: deep(levels) }],
    });
  expect(pasted(20)).toBeNull();
  expect(pasted(21)).toBe('Groups can lie 20 deep in each other, and no deeper.');
  expect(pasted(900)).toBe('Groups can lie 20 deep in each other, and no deeper.');
});

test('a change larger than what it is sent in is refused', () => {
  const { point, ...rest } = linesOf(d.sheets[0])[0].runs[0].nodes[0];
  const nodes = Array.from({ length: 20_000 }, () => ({ ...rest, point: { x: point.x + 1 / 3, y: point.y + 1 / 7 } }));
  const line = { ...linesOf(d.sheets[0])[0], runs: [{ closed: false, nodes }] } as Line;
  const insert = (i: number) =>
    ({ step: 'insertItem', at: { sheet: 's', index: 0 }, item: { ...line, id: `n${i}` } }) as const;
  const each = JSON.stringify(insert(0)).length;
  const steps = Array.from({ length: Math.ceil(MOST_CHANGE_BYTES / each) + 1 }, (_, i) => insert(i));
  expect(refusalOf({ id: 'big', label: 'Paste', steps })).toContain('more than can be kept as one change');
  expect(refusalOf({ id: 'big', label: 'Paste', steps: steps.slice(0, 3) })).toBeNull();
});

test('what lines that come take at most is told without writing them, and they never take more', () => {
  const far = fc.double({ min: -1e7, max: 1e7, noNaN: true });
  const nodes = fc.array(anyNode(far), { minLength: 1, maxLength: 9 });
  const width = fc.double({ min: 0, max: 10_000, noNaN: true });
  const mark = fc.record({
    at: fc.double({ min: 0, max: 1, noNaN: true }),
    left: width,
    right: width,
    sharp: fc.boolean(),
  });
  const line = fc.record({
    id: fc.string({ minLength: 60, maxLength: 60, unit: fc.constant('x') }),
    runs: fc.array(fc.record({ closed: fc.boolean(), nodes }), { minLength: 1, maxLength: 4 }),
    style: fc.record({
      stroke: fc.constant({ of: { swatch: 'x'.repeat(60) }, by: -1 / 3, else: '#12345678' }),
      fill: fc.constant({ gradient: 'x'.repeat(60) }),
      width,
      cap: fc.constant('square' as const),
      join: fc.constant('round' as const),
      dash: fc.record({ lengths: fc.array(width, { minLength: 12, maxLength: 12 }), offset: far }),
      nib: fc.constant({ kind: 'broad' as const, angle: -100 / 3, flatness: 1 / 3 }),
      wobble: width,
      overrun: width,
    }),
    marks: fc.array(mark, { maxLength: 30 }),
    blend: fc.constant('color-dodge' as const),
    name: fc.string({ maxLength: 200, unit: fc.constantFrom('\u0000', 'a', '\u{1F58B}') }),
  });
  fc.assert(
    fc.property(line, (item) => {
      const at = { sheet: 's'.repeat(60), group: 'g'.repeat(60), index: 1e5 };
      const change = { id: 'a', label: 'Paste', steps: [{ step: 'insertItem' as const, at, item }] };
      expect(new TextEncoder().encode(JSON.stringify(change)).length).toBeLessThan(mostBytes(change));
    }),
  );
  expect(mostBytes({ id: 'a', ...moveLines(d, ids, { x: 5, y: 5 }) })).toBe(Infinity);
});
