import { allLines, isLine, linesOf } from '../drawing/items';
import { applyChange, inverseOf, type Drawing } from '../index';
import { wanderingDrawing } from '../test/drawings';
import { groupLines, moveBeside, moveInOrder, moveToPlace, moveToSheet, ungroupLines, withGroup } from './arrange';
import type { Edit } from '../change/edit';

/** Twelve lines on four sheets: l0 l4 l8 on the first. Ten on one sheet are easier to order. */
const base = wanderingDrawing(12, 2, 5);
const flat: Drawing = {
  ...base,
  sheets: base.sheets.map((s, i) => ({
    ...s,
    items: i === 0 ? allLines(base).slice(0, 6) : [],
  })),
};
const order = (d: Drawing, sheet = 0): string =>
  linesOf(d.sheets[sheet])
    .map((l) => l.id.slice(1))
    .join(' ');
const start = order(flat);
const ids = (...at: number[]): Set<string> => new Set(at.map((i) => linesOf(flat.sheets[0])[i].id));

function after(d: Drawing, e: Edit): Drawing {
  const change = { id: 'c', ...e };
  const result = applyChange(d, change);
  expect(applyChange(result, inverseOf(change, 'u', 'Undo'))).toEqual(d);
  return result;
}
const sorted = (places: number[]): string => places.map((i) => start.split(' ')[i]).join(' ');

describe('the order of lines', () => {
  it.each([
    ['forward', [1, 2], [0, 3, 1, 2, 4, 5]],
    ['forward', [1, 5], [0, 2, 1, 3, 4, 5]],
    ['back', [1, 3], [1, 0, 3, 2, 4, 5]],
    ['to front', [0, 2], [1, 3, 4, 5, 0, 2]],
    ['to back', [4, 2], [2, 4, 0, 1, 3, 5]],
  ] as const)('goes %s, and neighbours keep their order', (way, which, wanted) => {
    expect(order(after(flat, moveInOrder(flat, ids(...which), way)))).toBe(sorted([...wanted]));
  });

  it('is no change at the top, and one place when asked for one', () => {
    expect(moveInOrder(flat, ids(4, 5), 'forward').steps).toEqual([]);
    expect(
      order(after(flat, moveToPlace(flat, linesOf(flat.sheets[0])[1].id, { sheet: flat.sheets[0].id, index: 4 }))),
    ).toBe(sorted([0, 2, 3, 4, 1, 5]));
  });

  it.each([
    [1, 4, 'over', [0, 2, 3, 4, 1, 5]],
    [1, 4, 'under', [0, 2, 3, 1, 4, 5]],
    [4, 1, 'over', [0, 1, 4, 2, 3, 5]],
    [4, 1, 'under', [0, 4, 1, 2, 3, 5]],
    [3, 2, 'over', [0, 1, 2, 3, 4, 5]],
  ] as const)('puts one (%i) beside another (%i): %s it', (one, other, where, wanted) => {
    const [a, b] = [one, other].map((i) => linesOf(flat.sheets[0])[i].id);
    expect(order(after(flat, moveBeside(flat, a, b, where)))).toBe(sorted([...wanted]));
  });

  it('puts one beside another on another sheet', () => {
    const over = after(base, moveBeside(base, 'l0', 'l5', 'over'));
    expect([order(over, 0), order(over, 1)]).toEqual(['4 8', '1 5 0 9']);
    const under = after(base, moveBeside(base, 'l0', 'l5', 'under'));
    expect(order(under, 1)).toBe('1 0 5 9');
  });

  it('moves lines on top of another sheet', () => {
    const moved = after(base, moveToSheet(base, new Set(['l0', 'l8', 'l1']), 's1'));
    expect(order(moved, 0)).toBe('4');
    expect(order(moved, 1)).toBe('1 5 9 0 8');
  });
});

describe('groups', () => {
  it('put back on another sheet in the change that took them away bring along what was moved into them', () => {
    const [line] = [...ids(1)];
    const d = after(flat, groupLines(flat, ids(0, 3), 'g'));
    const [from, to] = [d.sheets[0].id, d.sheets[1].id];
    const into = moveToPlace(d, line, { sheet: from, group: 'g', index: 0 });
    const moved = applyChange(d, { id: 'm', ...into });
    const index = moved.sheets[0].items.findIndex((item) => item.id === 'g');
    const item = moved.sheets[0].items[index];
    const put = after(d, {
      label: 'Move',
      steps: [
        ...into.steps,
        { step: 'removeItem', at: { sheet: from, index }, item },
        { step: 'insertItem', at: { sheet: to, index: 0 }, item },
        { step: 'setLine', sheet: to, id: line, before: { opacity: 1 }, after: { opacity: 0.5 } },
      ],
    });
    expect(allLines(put).find((l) => l.id === line)?.opacity).toBe(0.5);
    expect(put.sheets[1].items[0].id).toBe('g');
  });

  it('bring their lines together where the top one was, and let them go again', () => {
    const grouped = after(flat, groupLines(flat, ids(0, 3), 'g'));
    expect(order(grouped)).toBe(sorted([1, 2, 0, 3, 4, 5]));
    expect(withGroup(grouped, linesOf(flat.sheets[0])[0].id)).toEqual([...ids(0, 3)]);
    const loose = after(grouped, ungroupLines(grouped, ids(3)));
    expect(loose.sheets[0].items.every(isLine)).toBe(true);
  });

  it('lie within groups: what is chosen with a line depends on which group is entered', () => {
    const inner = after(flat, groupLines(flat, ids(0, 1), 'inner'));
    const outer = after(inner, groupLines(inner, ids(0, 1, 2), 'outer'));
    const first = linesOf(flat.sheets[0])[0].id;
    expect(withGroup(outer, first)).toHaveLength(3);
    expect(withGroup(outer, first, ['outer'])).toHaveLength(2);
    expect(withGroup(outer, first, ['outer', 'inner'])).toEqual([first]);
    // Taking the outer one apart leaves the inner one whole.
    const apart = after(outer, ungroupLines(outer, new Set([first])));
    expect(withGroup(apart, first)).toHaveLength(2);
  });

  it('are of one sheet', () => {
    expect(groupLines(base, new Set(['l0', 'l1']), 'g').steps).toEqual([]);
  });
});
