import { applyChange } from '@/core';
import { changeOf } from '@/core/change/changeOf';
import { groupLines, moveToSheet } from '@/core/edits/arrange';
import { moveLines } from '@/core/edits/lines';
import { wanderingDrawing } from '@/core/test/drawings';
import { chosenOf, chosenSheets, chosenTally, sharedStyle } from './chosen';

const drawing = wanderingDrawing(12, 3, 5);
const chosen = (...ids: string[]) => ({ drawing, lines: new Set(ids) });

test('what is chosen is found once for each state, whoever asks', () => {
  const s = chosen('l0', 'l1', 'l4', 'gone');
  expect(chosenOf(s).map((f) => f.line.id)).toEqual(['l0', 'l1', 'l4']);
  expect(chosenOf({ ...s })).toBe(chosenOf(s));
  expect(chosenTally({ ...s })).toBe(chosenTally(s));
  const closed = chosenOf(s).filter((f) => f.line.runs[0].closed).length;
  expect(chosenTally(s)).toEqual({ count: 3, nodes: 12, closed, marked: 0 });
  expect([...chosenSheets(s)]).toEqual(['s0', 's1']);
  expect(chosenOf(chosen('l5')).map((f) => f.line.id)).toEqual(['l5']);
});

test('the sheets of what is chosen are looked up again only where something lies elsewhere', () => {
  const s = chosen('l0', 'l4');
  const own = chosenSheets(s);
  const moved = applyChange(drawing, changeOf(moveLines(drawing, s.lines, { x: 3, y: 4 }), 'm'));
  expect(chosenSheets({ ...s, drawing: moved })).toBe(own);
  const elsewhere = applyChange(moved, changeOf(moveToSheet(moved, new Set(['l4']), 's2'), 's'));
  expect([...chosenSheets({ ...s, drawing: elsewhere })]).toEqual(['s0', 's2']);
  const grouped = applyChange(elsewhere, changeOf(groupLines(elsewhere, new Set(['l0', 'l3']), 'g'), 'g'));
  expect([...chosenSheets({ ...s, drawing: grouped })]).toEqual(['s0', 's2']);
});

test('what all have in common, nothing where they differ, and not even that where there are none', () => {
  expect(sharedStyle(chosen('l0', 'l1'), (style) => style.cap)).toBe('round');
  expect(sharedStyle(chosen('l0', 'l1'), (style) => style.width)).toBeNull();
  expect(sharedStyle(chosen(), (style) => style.cap)).toBeUndefined();
});
