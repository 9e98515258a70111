import { isDeepStrictEqual as isSame } from 'node:util';
import { applyChange, type Change, type Drawing } from '@/core';
import { moveLines, removeLines } from '@/core/edits/lines';
import { moveNodes } from '@/core/edits/nodes';
import { removeSheet, setSheet } from '@/core/edits/sheets';
import { wanderingDrawing } from '@/core/test/drawings';
import { benchWith } from '../test/hand';
import { commandFor, conflictOf, keyCaps, keysOf, keyTable } from '../commands/keys';
import { clampScale, fitting, LEAST_SCALE, MOST_SCALE, panned, shownBox, toPage, toScreen, zoomedAt } from './view';

const drawing = wanderingDrawing(8, 3, 3);
const by = { x: 5, y: 5 };

describe('a bench', () => {
  test('tells of every change, undone and redone ones too, each with an id of its own', () => {
    const bench = benchWith(drawing);
    const heard: Change[] = [];
    const told: boolean[] = [];
    bench.onChange(({ change, before, after, touched }) => {
      heard.push(change);
      told.push(before === bench.getState().drawing && isSame(after, applyChange(before, change)));
      told.push(isSame([...touched], ['l0']));
    });
    bench.commit(moveLines(drawing, ['l0'], by));
    const moved = bench.getState().drawing;
    bench.undo();
    expect(bench.getState().drawing).toEqual(drawing);
    bench.redo();
    expect(bench.getState().drawing).toEqual(moved);
    expect(heard.map((c) => c.label)).toEqual(['Move line', 'Undo: Move line', 'Move line']);
    expect(new Set(heard.map((c) => c.id)).size).toBe(3);
    expect(told).toEqual(Array(6).fill(true));
  });

  test('one who hears of a change and fails keeps no other from hearing, and no change from being made', () => {
    const report = jest.spyOn(console, 'error').mockImplementation(() => undefined);
    const bench = benchWith(drawing);
    const fail = (): never => {
      throw new RangeError('made to fail');
    };
    let heard = 0;
    const seen: Drawing[] = [];
    bench.onChange(fail);
    bench.subscribe(fail);
    bench.onChange(() => heard++);
    bench.subscribe((s) => seen.push(s.drawing));
    const change = bench.commit(moveLines(drawing, ['l0'], by));
    expect(change).not.toBeNull();
    expect([heard, seen.at(-1)]).toEqual([1, applyChange(drawing, change!)]);
    expect(bench.getState().undoable).toHaveLength(1);
    expect(report).toHaveBeenCalledTimes(2);
    report.mockRestore();
  });

  test('a new change ends what could be redone; an edit that does nothing is none', () => {
    const bench = benchWith(drawing);
    bench.commit(moveLines(drawing, ['l0'], by));
    bench.undo();
    bench.commit(moveLines(bench.getState().drawing, ['l1'], by));
    expect(bench.getState().redoable).toEqual([]);
    expect(bench.commit(removeLines(bench.getState().drawing, []))).toBeNull();
    expect(bench.getState().undoable).toHaveLength(1);
  });

  test('what is shown beforehand is heard by nobody', () => {
    const bench = benchWith(drawing);
    let heard = 0;
    bench.onChange(() => heard++);
    bench.show(moveNodes(drawing, [{ line: 'l0', run: 0, node: 1 }], by));
    expect(bench.getState().preview).not.toBeNull();
    bench.show(null);
    expect([bench.getState().preview, bench.getState().drawing, heard]).toEqual([null, drawing, 0]);
  });

  test('what is chosen follows what is there: removed, hidden and locked lines are let go', () => {
    const bench = benchWith(drawing);
    bench.choose(['l0', 'l1', 'l2'], ['l0:0:1', 'l1:0:0']);
    bench.commit(removeLines(bench.getState().drawing, ['l0']));
    expect([[...bench.getState().lines], [...bench.getState().nodes]]).toEqual([['l1', 'l2'], ['l1:0:0']]);
    bench.commit(setSheet(bench.getState().drawing, 's1', { locked: true }, 'Lock'));
    expect([[...bench.getState().lines], bench.getState().nodes.size]).toEqual([['l2'], 0]);
  });

  test('a removed sheet hands over to its neighbour', () => {
    const bench = benchWith(drawing);
    bench.setState({ sheet: 's2' });
    bench.commit(removeSheet(bench.getState().drawing, 's2'));
    expect(bench.getState().sheet).toBe('s1');
    for (const id of ['s1', 's0', 's3']) bench.commit(removeSheet(bench.getState().drawing, id));
    expect(bench.getState().sheet).toBe('');
  });

  test('reading only: nothing is committed, undone or shown', () => {
    const bench = benchWith(drawing);
    bench.commit(moveLines(drawing, ['l0'], by));
    bench.setState({ reading: true });
    const before = bench.getState().drawing;
    bench.undo();
    bench.show(moveLines(before, ['l1'], by));
    expect(bench.commit(moveLines(before, ['l1'], by))).toBeNull();
    expect([bench.getState().drawing, bench.getState().preview]).toEqual([before, null]);
  });
});

describe('the view', () => {
  const view = { scale: 2, x: 30, y: -10 };
  test('page and screen are each other’s inverse; zooming keeps the place under the pointer', () => {
    const p = { x: 12.5, y: 40 };
    expect(toPage(view, toScreen(view, p))).toEqual(p);
    const at = { x: 200, y: 150 };
    const z = zoomedAt(view, at, 7);
    const [before, after] = [toPage(view, at), toPage(z, at)];
    expect(after.x).toBeCloseTo(before.x, 9);
    expect(after.y).toBeCloseTo(before.y, 9);
    expect(panned(z, { x: 3, y: 4 })).toEqual({ scale: 7, x: z.x + 3, y: z.y + 4 });
  });
  test('fitting shows all of a box, in the middle; scales have bounds', () => {
    const box = { minX: 10, minY: 20, maxX: 110, maxY: 40 };
    const seen = shownBox(fitting(box, { width: 500, height: 400 }), { width: 500, height: 400 });
    expect(seen.minX < 10 && seen.maxX > 110 && seen.minY < 20 && seen.maxY > 40).toBe(true);
    expect(seen.minX + seen.maxX).toBeCloseTo(120, 9);
    expect([clampScale(1e9), clampScale(0)]).toEqual([MOST_SCALE, LEAST_SCALE]);
  });
});

describe('keys', () => {
  const press = (key: string, held: Partial<KeyboardEvent> = {}) =>
    commandFor(
      { key, code: '', ctrlKey: false, metaKey: false, shiftKey: false, altKey: false, ...held },
      { keys: {}, mirrored: false },
    );
  test('no key stands for two things', () => {
    const all = keyTable.flatMap((g) => g.rows).map((r) => r.keys);
    expect(new Set(all).size).toBe(all.length);
  });
  test('letters, signs and modifiers find their command', () => {
    expect(press('a')).toEqual({ do: 'tool', tool: 'pen' });
    expect(press('A')).toEqual({ do: 'tool', tool: 'pen' });
    expect([press('z', { ctrlKey: true }), press('z', { metaKey: true })]).toEqual([{ do: 'undo' }, { do: 'undo' }]);
    expect(press('Z', { ctrlKey: true, shiftKey: true })).toEqual({ do: 'redo' });
    expect([press('='), press('+', { shiftKey: true }), press('?', { shiftKey: true })]).toEqual([
      { do: 'zoomIn' },
      { do: 'zoomIn' },
      { do: 'keys' },
    ]);
    expect(press(')', { shiftKey: true, code: 'Digit0' })).toEqual({ do: 'actualSize' });
    expect([press('a', { altKey: true }), press('i')]).toEqual([undefined, undefined]);
  });
  test('keys that were changed, or mirrored for the other hand, stand for the same', () => {
    const plain = { code: '', ctrlKey: false, metaKey: false, shiftKey: false, altKey: false };
    const changed = { keys: { pen: 'Shift p', fit: '5' }, mirrored: false };
    expect(commandFor({ ...plain, key: 'P', shiftKey: true }, changed)).toEqual({ do: 'tool', tool: 'pen' });
    expect(commandFor({ ...plain, key: 'a' }, changed)).toBeUndefined();
    expect(commandFor({ ...plain, key: '5', code: 'Digit5' }, changed)).toEqual({ do: 'fit' });
    const other = { keys: {}, mirrored: true };
    const pressed = (key: string, shiftKey = false) =>
      commandFor({ ...plain, key, shiftKey }, { keys: {}, mirrored: false });
    expect([...'aqsdfgwe'].map((key) => pressed(key))).toEqual(
      ['pen', 'pencil', 'select', 'nodes', 'bend', 'settle', 'swell', 'thin'].map((tool) => ({ do: 'tool', tool })),
    );
    expect([pressed('n'), pressed('N', true)]).toEqual([
      { do: 'toolKey', key: 'n' },
      { do: 'toolKey', key: 'cut' },
    ]);
    expect(commandFor({ ...plain, key: ';' }, other)).toEqual({ do: 'tool', tool: 'pen' });
    expect(commandFor({ ...plain, key: 'p' }, other)).toEqual({ do: 'tool', tool: 'pencil' });
    expect(commandFor({ ...plain, key: 'z', ctrlKey: true }, other)).toEqual({ do: 'undo' });
    const all = keyTable.flatMap((g) => g.rows).map((r) => keysOf(r, other));
    expect(new Set(all).size).toBe(all.length);
    expect(conflictOf('q', 'pen', { keys: {}, mirrored: false })?.id).toBe('pencil');
    expect(conflictOf('Shift y', 'pen', { keys: {}, mirrored: false })).toBeUndefined();
  });
  test('caps are written for people', () => {
    expect([keyCaps('Mod Shift z'), keyCaps('Mod z', true), keyCaps('space')]).toEqual([
      ['Ctrl', 'Shift', 'Z'],
      ['⌘', 'Z'],
      ['Space'],
    ]);
  });
});
