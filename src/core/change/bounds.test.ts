import fc from 'fast-check';
import type { Drawing, Item, Line } from '..';
import { itemsOnGrid } from '../drawing/grid';
import { emptyDrawing } from '../drawing/schema';
import { applyChange } from './apply';
import type { Step } from './change';
import { groupOf, testPage } from '../test/drawings';
import { levelLine } from '../test/levelLines';
import { beyondBounds, MOST_ITEMS, MOST_NODES, sizeOf } from './bounds';

const line = (id: string): Line => levelLine(id, 10);
const testDrawing = (): Drawing => emptyDrawing(testPage, { id: 's0', name: 'Sheet 1', tag: '#8f2d63' });
const withItems = (d: Drawing, items: readonly Item[]): Drawing => ({ ...d, sheets: [{ ...d.sheets[0], items }] });

test('items are counted with those in groups, and nodes with those of clips', () => {
  const group = { ...groupOf('g', line('a'), groupOf('h', line('b'))), clip: line('c') };
  const d = withItems(testDrawing(), [line('x'), group]);
  const each = line('a').runs[0].nodes.length;
  expect(sizeOf(d)).toEqual({ items: 5, nodes: 4 * each });
});

test('the last item that fits is taken, the next is refused with words; taking away is always possible', () => {
  const lines = Array.from({ length: MOST_ITEMS }, (_, i) => line(`l${i}`));
  const [full, more, fewer] = [lines, [...lines, line('x')], lines.slice(1)].map((l) => withItems(testDrawing(), l));
  expect(beyondBounds(fewer, full)).toBeNull();
  expect(beyondBounds(full, more)).toContain('at most 100,000 lines');
  const tooMany = withItems(testDrawing(), [...more.sheets[0].items, line('y')]);
  expect(beyondBounds(tooMany, more)).toBeNull();
});

test('nodes have a bound of their own, and so have sheets', () => {
  const nodes = Array.from({ length: 20_000 }, () => line('a').runs[0].nodes[0]);
  const long = (id: string): Line => ({ ...line(id), runs: [{ closed: false, nodes }] });
  const full = Array.from({ length: MOST_NODES / 20_000 }, (_, i) => long(`l${i}`));
  const d = withItems(testDrawing(), full);
  expect(beyondBounds(testDrawing(), d)).toBeNull();
  expect(beyondBounds(d, withItems(d, [...full, line('x')]))).toContain('2,000,000 nodes');
  const sheets = Array.from({ length: 2_001 }, (_, i) => ({ ...d.sheets[0], id: `s${i}`, items: [] }));
  expect(beyondBounds({ ...d, sheets: sheets.slice(1) }, { ...d, sheets })).toContain('2,000 sheets');
});

test('counted from what was before, a drawing is as large as counted anew', () => {
  const kinds = (n: number): Item =>
    n % 3 === 0 ? groupOf(`g${n}`, line(`a${n}`), groupOf(`h${n}`, line(`b${n}`))) : line(`l${n}`);
  const list = fc.array(fc.nat(40).map(kinds), { maxLength: 30 });
  fc.assert(
    fc.property(list, list, fc.nat(30), (a, b, kept) => {
      const before = withItems(testDrawing(), a);
      const items = [...a.slice(0, kept), ...b];
      sizeOf(before);
      expect(sizeOf(withItems(before, items), before)).toEqual(sizeOf(withItems(before, [...items])));
    }),
  );
});

test('what is only moved is as large as before', () => {
  const before = withItems(testDrawing(), itemsOnGrid([line('x'), groupOf('g', line('a'), line('b'))]));
  const move: Step = { step: 'translate', ids: ['x', 'g'], by: { x: 4, y: 0 } };
  const size = sizeOf(before);
  const after = applyChange(before, { steps: [move] });
  expect(beyondBounds(before, after, { steps: [move] })).toBeNull();
  expect(sizeOf(after)).toEqual(size);
});
