import { linesOf } from '../drawing/items';
import { applyChange, emptyDrawing, inverseOf, plainPage, type Drawing } from '..';
import type { Edit } from '../change/edit';
import { addFolderOfLines, addPlan, moveSheetInto, readPlan, removeFolder, setFolder } from './folders';
import { wanderingDrawing } from '../test/drawings';
import { tagColours } from './sheets';

const empty = emptyDrawing(plainPage({ width: 100, height: 100, unit: 'px', dpi: 96, ground: null }), {
  id: 's',
  name: 'S',
  tag: tagColours[0],
});
let count = 0;
/** Makes an edit, and sees that it can be taken back. */
const done = (d: Drawing, edit: Edit): Drawing => {
  const change = { id: `c${count++}`, ...edit };
  const after = applyChange(d, change);
  expect(applyChange(after, inverseOf(change, `u${count}`, 'undo'))).toEqual(d);
  return after;
};
const ids = () => `i${count++}`;
const fromTop = (d: Drawing) =>
  d.sheets.toReversed().map((s) => [s.name, d.folders.find((f) => f.id === s.folder)?.name ?? null]);

test.each([
  [
    'stem; leaves: left, right, veins; pear',
    [
      { folder: null, sheets: ['stem'] },
      { folder: 'leaves', sheets: ['left', 'right', 'veins'] },
      { folder: null, sheets: ['pear'] },
    ],
  ],
  [
    'a, b\n c : d',
    [
      { folder: null, sheets: ['a', 'b'] },
      { folder: 'c', sheets: ['d'] },
    ],
  ],
  [' ; leaves: ,, ; : x', [{ folder: 'Folder', sheets: ['x'] }]],
  ['', []],
])('the plan “%s”', (text, plan) => expect(readPlan(text)).toEqual(plan));

test('a plan lays its sheets on top, the first named nearest, with tags that differ from their neighbours', () => {
  const d = done(empty, addPlan(empty, readPlan('stem; leaves: left, right, veins; pear'), ids));
  expect(fromTop(d)).toEqual([
    ['stem', null],
    ['left', 'leaves'],
    ['right', 'leaves'],
    ['veins', 'leaves'],
    ['pear', null],
    ['S', null],
  ]);
  d.sheets.slice(1).forEach((s, i) => expect(s.tag).not.toBe(d.sheets[i].tag));
  expect(d.sheets.slice(1).every((s) => s.state === 'to do' && linesOf(s).length === 0)).toBe(true);
});

test('sheets go into folders and out, folders are renamed, closed and taken apart', () => {
  let d = done(empty, addPlan(empty, readPlan('leaves: left, right; pear'), ids));
  const sheet = (name: string) => d.sheets.find((s) => s.name === name)!;
  const folder = d.folders[0].id;
  d = done(d, moveSheetInto(d, sheet('pear').id, d.sheets.indexOf(sheet('left')), folder));
  expect(fromTop(d).slice(0, 3)).toEqual([
    ['pear', 'leaves'],
    ['left', 'leaves'],
    ['right', 'leaves'],
  ]);
  d = done(d, moveSheetInto(d, sheet('pear').id, 0, null));
  expect(fromTop(d).at(-1)).toEqual(['pear', null]);
  d = done(d, setFolder(d, folder, { name: 'Leaves', open: false }, 'Rename'));
  expect(d.folders).toEqual([{ id: folder, name: 'Leaves', open: false }]);
  expect(setFolder(d, folder, { open: false }, 'Same').steps).toEqual([]);
  d = done(d, removeFolder(d, folder));
  expect([d.folders, d.sheets.map((s) => s.folder)]).toEqual([[], [null, null, null, null]]);
});

test('pulled lines come as one folder with one sheet', () => {
  const lines = linesOf(wanderingDrawing(3, 1, 2).sheets[0]);
  const d = done(
    empty,
    addFolderOfLines(empty, { id: 'f', name: 'Ink' }, [{ id: 't', name: 'Strokes', lines }], 'Pull ink'),
  );
  expect(d.sheets.at(-1)).toMatchObject({ id: 't', name: 'Strokes', folder: 'f', items: lines });
});
