import { wanderingDrawing } from '../test/drawings';
import type { Line } from '../drawing/schema';
import { groupLines } from './arrangeEdits';
import { applyChange } from './apply';
import { changeSchema } from './change';
import { moveLines } from './lineEdits';
import { MOST_CHANGE_BYTES, refusalOf } from './refusal';

const d = wanderingDrawing(3, 2, 1);
const ids = new Set(d.sheets.flatMap((s) => s.lines.map((l) => l.id)));

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
  let now = d;
  const onOne = new Set(d.sheets[0].lines.map((l) => l.id));
  for (let i = 0; i < 20; i++) {
    const change = { id: `g${i}`, ...groupLines(now, onOne, `g${i}`) };
    expect(refusalOf(change)).toBeNull();
    now = applyChange(now, change);
  }
  expect(refusalOf({ id: 'g', ...groupLines(now, onOne, 'g20') })).toBe(
    'Groups can lie 20 deep in each other, and no deeper.',
  );
});

test('a change larger than what it is sent in is refused', () => {
  const { point, ...rest } = d.sheets[0].lines[0].runs[0].nodes[0];
  const nodes = Array.from({ length: 20_000 }, () => ({ ...rest, point: { x: point.x + 1 / 3, y: point.y + 1 / 7 } }));
  const line = { ...d.sheets[0].lines[0], runs: [{ closed: false, nodes }] } as Line;
  const insert = (i: number) => ({ step: 'insertLine', sheet: 's', index: 0, line: { ...line, id: `n${i}` } }) as const;
  const each = JSON.stringify(insert(0)).length;
  const steps = Array.from({ length: Math.ceil(MOST_CHANGE_BYTES / each) + 1 }, (_, i) => insert(i));
  expect(refusalOf({ id: 'big', label: 'Paste', steps })).toContain('more than can be kept as one change');
  expect(refusalOf({ id: 'big', label: 'Paste', steps: steps.slice(0, 3) })).toBeNull();
});
