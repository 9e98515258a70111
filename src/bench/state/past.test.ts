import { applyChange, type Change, type Drawing } from '@/core';
import { moveLines } from '@/core/edits/lines';
import { wanderingDrawing } from '@/core/test/drawings';
import { createBench, type Bench } from './store';

const start = wanderingDrawing(3, 2, 1);
const text = (d: Drawing): string => JSON.stringify(d);
const settle = (): Promise<void> => new Promise((done) => setTimeout(done, 0));

/** A visit that makes changes; what it leaves in the journal. */
function visit(bench: Bench, count: number): Change[] {
  const journal: Change[] = [];
  const stop = bench.onChange(({ change }) => journal.push(change));
  for (let i = 0; i < count; i++)
    bench.commit({ ...moveLines(bench.getState().drawing, [`l${i % 3}`], { x: i + 1, y: 2 }), label: `Move ${i}` });
  stop();
  return journal;
}

const benchAt = (drawing: Drawing, revision: number): Bench =>
  createBench({ id: 'd', title: 'Test', stage: 'trace', drawing, revision });

/** The next visit, which reads the journal by sevens. */
function nextVisit(journal: readonly Change[]): { bench: Bench; asked: number[] } {
  const bench = benchAt(journal.reduce(applyChange, start), journal.length);
  const asked: number[] = [];
  bench.recallFrom(journal.length, async (before) => {
    asked.push(before);
    const from = Math.max(1, before - 7);
    return { from, changes: journal.slice(from - 1, before - 1) };
  });
  return { bench, asked };
}

test('what was done before a reload is undone, one change a press, back to the start; and made again', async () => {
  const journal = visit(benchAt(start, 0), 20);
  const { bench, asked } = nextVisit(journal);
  await bench.recall();
  expect([bench.getState().undoable.at(-1)?.label, asked]).toEqual(['Move 19', [21]]);
  const end = text(bench.getState().drawing);
  for (let i = 0; i < 20; i++) {
    bench.undo();
    await settle();
  }
  expect(text(bench.getState().drawing)).toBe(text(start));
  expect([bench.getState().hasPast, asked]).toEqual([false, [21, 14, 7]]);
  bench.undo();
  for (let i = 0; i < 20; i++) bench.redo();
  expect(text(bench.getState().drawing)).toBe(end);
});

test('what was undone before a reload can be made again, unless something else was done meanwhile', async () => {
  const first = benchAt(start, 0);
  const journal: Change[] = [];
  first.onChange(({ change }) => journal.push(change));
  visit(first, 5);
  first.undo();
  first.undo();
  expect(journal.slice(5).map((c) => c.undoes)).toEqual([journal[4].id, journal[3].id]);
  const { bench } = nextVisit(journal);
  await bench.recall();
  expect(bench.getState().redoable.map((c) => c.label)).toEqual(['Move 4', 'Move 3']);
  bench.redo();
  bench.redo();
  expect(text(bench.getState().drawing)).toBe(text(journal.slice(0, 5).reduce(applyChange, start)));
  const other = nextVisit(journal).bench;
  const asked = other.recall();
  visit(other, 1);
  await asked;
  expect(other.getState().redoable).toEqual([]);
  expect(other.getState().undoable.map((c) => c.label)).toEqual(['Move 0', 'Move 1', 'Move 2', 'Move 0']);
});

test('a past that cannot be read is none; changes carry the time they were made at', async () => {
  const bench = benchAt(start, 9);
  bench.recallFrom(9, () => Promise.reject(new Error('no')));
  expect(bench.getState().hasPast).toBe(true);
  bench.undo();
  await settle();
  expect(bench.getState().hasPast).toBe(false);
  const [change] = visit(bench, 1);
  expect(Math.abs(change.time! - Date.now())).toBeLessThan(60_000);
});
