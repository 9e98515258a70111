import { groupOf, wanderingDrawing, wanderingLine } from '../test/drawings';
import { seeded } from '../seeded';
import type { Drawing, Item } from '../drawing/schema';
import type { Step } from './change';
import { historyOf, type JournalChange } from './historyPoints';

const first: Drawing = { ...wanderingDrawing(2, 2, 1), sheets: wanderingDrawing(2, 2, 1).sheets.slice(0, 1) };
const sheet = first.sheets[0];
const line = (id: string) => wanderingLine(id, 2, seeded(id.charCodeAt(0)));
const insert = (item: Item, index: number): Step => ({ step: 'insertItem', at: { sheet: sheet.id, index }, item });
const journal = (...steps: Step[]): JournalChange[] =>
  steps.map((step, i) => ({
    revision: i + 1,
    at: 1000 * i,
    change: { id: `c${i}`, label: `Deed ${i}`, steps: [step] },
  }));
const there = sheet.items.map((i) => i.id);

test('how far it was, at so many places at most; the last is of now', () => {
  const changes = journal(...Array.from({ length: 10 }, (_, i) => insert(line(`x${i}`), 0)));
  const { points } = historyOf(first, changes, 4);
  expect(points.map((p) => [p.revision, p.at, p.lines - there.length])).toEqual([
    [3, 2000, 3],
    [6, 5000, 6],
    [9, 8000, 9],
    [10, 9000, 10],
  ]);
  expect(points[0].label).toBe('Deed 2');
  expect(historyOf(first, [], 4).points).toEqual([]);
});

test('parts that are traced are counted from when they were said to be', () => {
  const { points } = historyOf(
    first,
    journal(insert(line('a'), 0), {
      step: 'setSheet',
      id: sheet.id,
      before: { state: sheet.state },
      after: { state: 'traced' },
    }),
    10,
  );
  expect(points.map((p) => [p.parts, p.traced])).toEqual([
    [1, 0],
    [1, 1],
  ]);
});

test('items in the order in which they were drawn, not as they lie; what came in a group came with it', () => {
  const changes = journal(
    insert(line('a'), 0),
    insert(groupOf('g', line('b'), line('c')), 0),
    insert(line('d'), 0),
    insert(line('e'), 4),
    { step: 'removeItem', at: { sheet: sheet.id, index: 0 }, item: line('d') },
  );
  expect(historyOf(first, changes, 10).order).toEqual([...there, 'a', 'b', 'c', 'e']);
});
