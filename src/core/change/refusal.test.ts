import { linesOf } from '../drawing/items';
import { wanderingDrawing } from '../test/drawings';
import type { Item, Line } from '../drawing/schema';
import { changeSchema } from './change';
import { moveLines } from '../edits/lines';
import { MOST_CHANGE_BYTES, refusalOf } from './refusal';

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
