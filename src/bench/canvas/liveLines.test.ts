import { applyChange } from '@/core';
import { moveNodes } from '@/core/edits/nodes';
import { wanderingDrawing } from '@/core/test/drawings';
import { createBench } from '../state/store';
import { differingLines, LiveLines } from './liveLines';
import { changesGround, changesMarks } from './whatChanged';

const drawing = wanderingDrawing(12, 3, 5);
const moved = (line: string, by: number) =>
  applyChange(drawing, { id: 'm', ...moveNodes(drawing, [{ line, run: 0, node: 1 }], { x: by, y: 0 }) });

test('only lines on the move are drawn by hand, and it is news when they become others', () => {
  const live = new LiveLines();
  expect(live.move(drawing, drawing)).toBe(false);
  expect(live.move(drawing, moved('l3', 4))).toBe(true);
  expect([...live.moved]).toEqual(['l3']);
  const further = moved('l3', 9);
  expect(live.move(drawing, further)).toBe(false);
  expect(live.lines).toEqual(differingLines(drawing, further).lines);
  expect(live.move(drawing, moved('l5', 4))).toBe(true);
  expect(live.move(drawing, drawing)).toBe(true);
  expect(live.lines).toEqual([]);
});

test('a changed line is drawn by hand until the painter has come so far', () => {
  const live = new LiveLines();
  const { lines } = differingLines(drawing, moved('l3', 4));
  live.await(lines, 7);
  live.await([], 8);
  expect([live.isPainted, live.lines]).toEqual([false, lines]);
  expect(live.drop((order) => order < 7)).toBe(false);
  expect(live.drop((order) => order <= 7)).toBe(true);
  expect(live.isPainted).toBe(true);
});

test('a hand that moves a line has the marks painted anew, and not the ground', () => {
  const bench = createBench({ id: 'd', title: 'T', stage: 'refine', drawing, revision: 0 });
  const seen = { ground: 0, marks: 0 };
  bench.subscribe((s, before) => {
    seen.ground += Number(changesGround(s, before));
    seen.marks += Number(changesMarks(s, before));
  });
  const edit = moveNodes(drawing, [{ line: 'l3', run: 0, node: 1 }], { x: 4, y: 0 });
  bench.show(edit);
  bench.commit(edit);
  expect(seen).toEqual({ ground: 0, marks: 2 });
  bench.choose(['l3']);
  bench.setState({ view: { scale: 2, x: 0, y: 0 } });
  bench.setState({ save: { kind: 'saved', revision: 3 } });
  expect(seen).toEqual({ ground: 2, marks: 4 });
});
