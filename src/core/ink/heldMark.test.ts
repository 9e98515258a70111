import { grownMark, markByKey, movedMark } from './heldMark';

const marks = [
  { at: 0, left: 1, right: 1 },
  { at: 0.5, left: 4, right: 6 },
  { at: 1, left: 1, right: 1 },
];

test('a mark grows on both sides or one, and never below nothing', () => {
  expect(grownMark(marks[1], 2)).toEqual({ at: 0.5, left: 6, right: 8 });
  expect(grownMark(marks[1], 2, 'left')).toEqual({ at: 0.5, left: 6, right: 6 });
  expect(grownMark(marks[1], -5)).toEqual({ at: 0.5, left: 0, right: 1 });
});

test('a mark stays between its neighbours, and those at the ends on the line', () => {
  expect(movedMark(marks, marks[1], 0.7).at).toBe(0.7);
  expect(movedMark(marks, marks[1], 2).at).toBeLessThan(1);
  expect(movedMark(marks, marks[1], -1).at).toBeGreaterThan(0);
  expect(movedMark(marks, marks[0], -1).at).toBe(0);
  expect(movedMark(marks, marks[2], 3).at).toBe(1);
});

test('keys work a mark; others are not taken', () => {
  expect(markByKey(marks, 1, 'ArrowUp', true)?.marks[1]).toEqual({ at: 0.5, left: 5, right: 7 });
  expect(markByKey(marks, 1, 'ArrowLeft', false)?.marks[1].at).toBeCloseTo(0.49, 9);
  expect(markByKey(marks, 1, 'Delete', false)).toEqual({
    marks: [marks[0], marks[2]],
    label: 'Remove mark',
    isGone: true,
  });
  expect(markByKey(marks, 1, 'x', false)).toBeNull();
  expect(markByKey(marks, 9, 'Delete', false)).toBeNull();
});
