import { allLines, linesOf } from '../drawing/items';
import fc from 'fast-check';
import { isOnGrid, lineOnGrid, onGrid } from '../drawing/grid';
import { findLine, groupsAround, type Place } from '../drawing/find';
import type { Item, Picture } from '../drawing/item';
import type { Drawing, Line } from '../drawing/schema';
import { groupOf, mixedRun, wanderingDrawing } from '../test/drawings';
import { remembered } from '../test/remembered';
import { applyChange, inverseOf, touchedItems } from './apply';
import { groupLines, moveInOrder, moveToPlace, moveToSheet, ungroupLines } from '../edits/arrange';
import { changeSchema, type Change } from './change';
import { changeOf } from './changeOf';
import { edit, type Edit } from './edit';
import { addLine, moveLines, removeLines, reshapeLines, styleLines } from '../edits/lines';
import { moveNodes, removeNodes } from '../edits/nodes';
import { addSheet, removeSheet } from '../edits/sheets';
import { transformLines } from '../edits/transform';
import { turningAbout } from '../geometry/matrix';

const bytes = (d: Drawing): string => JSON.stringify(d);
const all = (d: Drawing): Line[] => allLines(d);
const off = (id: string): Line => ({
  ...linesOf(wanderingDrawing(1, 2, 3).sheets[0])[0],
  id,
  runs: [mixedRun(9, 5, false)],
});

test('the grid is exact: there and back is where it was, however often', () => {
  const value = fc
    .integer({ min: -1e6, max: 1e6 })
    .chain((n) => fc.integer({ min: 0, max: 999 }).map((k) => n + k / 999));
  fc.assert(
    fc.property(value, fc.array(value, { maxLength: 9 }), (at, by) => {
      const [start, steps] = [onGrid(at), by.map(onGrid)];
      const there = steps.reduce((v, s) => v + s, start);
      expect(isOnGrid(there)).toBe(true);
      expect(steps.reduceRight((v, s) => v - s, there)).toBe(start);
      expect(Math.abs(start - at)).toBeLessThan(5e-7);
    }),
  );
  expect(Object.is(onGrid(-1e-9), 0)).toBe(true);
});

const picture = (id: string): Picture => ({
  kind: 'picture',
  id,
  name: 'Leaf',
  picture: 'a'.repeat(64),
  pixelWidth: 10,
  pixelHeight: 20,
  corrections: [],
  at: { x: 1 / 3, y: 2 },
  width: 10,
  height: 20,
  turn: 0,
  flipX: false,
  flipY: false,
  blend: 'normal',
});
const insert = (sheet: string, index: number, item: Item): Edit =>
  edit('Lay', { step: 'insertItem', at: { sheet, index }, item });

/** All items of a drawing, each with its sheet. */
const itemsOf = (d: Drawing): { sheet: string; item: Item }[] => {
  const within = (sheet: string, items: readonly Item[]): { sheet: string; item: Item }[] =>
    items.flatMap((item) => [{ sheet, item }, ...(item.kind === 'group' ? within(sheet, item.items) : [])]);
  return d.sheets.flatMap((s) => within(s.id, s.items));
};

/** The beginnings of all lists of items. */
const places = (d: Drawing): Place[] => [
  ...d.sheets.map((s) => ({ sheet: s.id, index: 0 })),
  ...itemsOf(d).flatMap(({ sheet, item }) => (item.kind === 'group' ? [{ sheet, group: item.id, index: 0 }] : [])),
];

/** An item laid otherwise over what is below, a group named or clipped. */
function setOf(d: Drawing, a: number, b: number): Edit {
  const found = itemsOf(d)[a % Math.max(1, itemsOf(d).length)];
  if (!found) return edit('Set');
  const { sheet, item } = found;
  const { opacity = 1, blend = 'normal' } = item;
  const laying = [{ opacity: (b % 5) / 4 }, { blend: (['normal', 'multiply', 'screen'] as const)[b % 3] }][b % 2];
  const was = 'opacity' in laying ? { opacity } : { blend };
  const which = { sheet, id: item.id };
  if (item.kind === 'picture') return edit('Set', { step: 'setPicture', ...which, before: was, after: laying });
  if (item.kind !== 'group') return edit('Set', { step: 'setLine', ...which, before: was, after: laying });
  const before = { ...was, name: item.name, clip: item.clip ?? null };
  const after = { ...laying, name: `${item.name}x`, clip: b % 3 === 0 ? null : off(`clip${b}`) };
  return edit('Set', { step: 'setGroup', ...which, before, after });
}

test('what is as good as not said is not kept: a thing is the same whether it was said or not', () => {
  const d = wanderingDrawing(2, 2, 1);
  const said = { ...off('said'), marks: [], opacity: 1, blend: 'normal' as const };
  const inserted = changeOf(insert('s0', 0, { ...groupOf('g', said), opacity: 1 }), 'c');
  const after = applyChange(d, inserted);
  expect(Object.keys(findLine(after, 'said')!.line)).toEqual(['id', 'style', 'runs']);
  const faint = changeOf(
    edit('Faint', { step: 'setGroup', sheet: 's0', id: 'g', before: { opacity: 1 }, after: { opacity: 0.5 } }),
    'f',
  );
  const back = applyChange(applyChange(after, faint), inverseOf(faint, 'u', 'Undo'));
  expect(bytes(back)).toBe(bytes(after));
  expect(applyChange(back, inverseOf(inserted, 'v', 'Undo'))).toEqual(d);
});

const around = (d: Drawing, line: string): string[] => groupsAround(findLine(d, line)!.sheet, line).map((g) => g.id);

test('what is taken out of a group, or put into it, is known to be', () => {
  const plain = wanderingDrawing(5, 4, 2);
  const sheet = { ...plain.sheets[0], items: [groupOf('g', ...all(plain).slice(0, 4)), all(plain)[4]] };
  const d = { ...plain, sheets: [sheet] };
  remembered(d);
  const without = applyChange(d, changeOf(removeLines(d, ['l1']), 'r'));
  expect(findLine(without, 'l1')).toBeUndefined();
  expect(remembered(without)).toEqual(remembered(structuredClone(without)));
  const into = applyChange(
    without,
    changeOf(moveToPlace(without, 'l4', { sheet: sheet.id, group: 'g', index: 1 }), 'm'),
  );
  expect(remembered(into)).toEqual(remembered(structuredClone(into)));
});

test('any series of changes, undone and redone, is equal to the byte, and so is what is kept of it as JSON', () => {
  const pick = (d: Drawing, n: number): string => all(d)[n % Math.max(1, all(d).length)]?.id ?? 'none';
  const edits: ((d: Drawing, a: number, b: number, id: string) => Edit)[] = [
    (d, a, b) => moveLines(d, [pick(d, a), pick(d, a + b)], { x: b / 7, y: -a / 3 }),
    (d, a, b) =>
      moveLines(
        d,
        all(d).map((l) => l.id),
        { x: a / 11, y: b / 13 },
      ),
    (d, a, b) => moveNodes(d, [{ line: pick(d, a), run: 0, node: b % 3 }], { x: b / 9, y: 1 / 3 }),
    (d, a, b) => removeNodes(d, [{ line: pick(d, a), run: 0, node: b % 3 }]),
    (d, a, b) => transformLines(d, [pick(d, a), pick(d, b)], turningAbout({ x: a, y: b }, 37), b % 2 === 0, 'Turn'),
    (d, a, b) => styleLines(d, [pick(d, a)], { width: 1 + b / 3 }, 'Width'),
    (d, a, _, id) =>
      d.sheets.length > 0 ? addLine(d, d.sheets[a % d.sheets.length].id, off(id)) : { label: 'x', steps: [] },
    (d, a, b) => removeLines(d, [pick(d, a), pick(d, b)]),
    (d, a, b) =>
      moveInOrder(d, new Set([pick(d, a), pick(d, b)]), (['forward', 'back', 'to front', 'to back'] as const)[b % 4]),
    (d, a, b, id) => groupLines(d, new Set([pick(d, a), pick(d, b), pick(d, a + b)]), id),
    (d, a, b) =>
      moveToSheet(d, new Set([pick(d, a), pick(d, b)]), d.sheets[a % Math.max(1, d.sheets.length)]?.id ?? 'none'),
    (d, a, b) => ungroupLines(d, new Set([pick(d, a), pick(d, b)])),
    (d, a, b) => moveToPlace(d, pick(d, a), places(d)[b % places(d).length] ?? { sheet: 'none', index: 0 }),
    (d, a, b) => setOf(d, a, b),
    (d, a, _, id) =>
      d.sheets.length > 0 ? insert(d.sheets[a % d.sheets.length].id, 0, picture(id)) : { label: 'x', steps: [] },
    (d, _, __, id) => addSheet(d, id, 'New'),
    (d, a) => removeSheet(d, d.sheets[a % Math.max(1, d.sheets.length)]?.id ?? 'none'),
  ];
  const one = fc.tuple(fc.nat(edits.length - 1), fc.nat(40), fc.nat(40));
  fc.assert(
    fc.property(fc.array(one, { minLength: 1, maxLength: 30 }), (plan) => {
      const first = wanderingDrawing(12, 4, 2);
      const states = [first];
      const changes: Change[] = [];
      plan.forEach(([kind, a, b], i) => {
        const edit = edits[kind](states.at(-1)!, a, b, `n${i}`);
        if (edit.steps.length === 0) return;
        const change = changeOf(edit, `c${i}`);
        changes.push(JSON.parse(JSON.stringify(change)) as Change);
        expect(changeSchema.safeParse(changes.at(-1)).error).toBeUndefined();
        const after = applyChange(states.at(-1)!, change);
        const touched = touchedItems(change);
        for (const line of all(after))
          if (!touched.has(line.id) && !around(after, line.id).some((g) => touched.has(g)))
            expect(findLine(states.at(-1)!, line.id)!.line).toBe(line);
        expect(remembered(after)).toEqual(remembered(structuredClone(after)));
        states.push(after);
      });
      let now = states.at(-1)!;
      changes.toReversed().forEach((c, i) => {
        now = applyChange(now, inverseOf(c, `u-${c.id}`, 'Undo'));
        expect(bytes(now)).toBe(bytes(states.at(-2 - i)!));
      });
      changes.forEach((c, i) => {
        now = applyChange(now, c);
        expect(bytes(now)).toBe(bytes(states[i + 1]));
      });
      expect(all(now).every((l) => lineOnGrid(l) === l)).toBe(true);
    }),
    { numRuns: 150 },
  );
});

describe('what is sent', () => {
  const d = wanderingDrawing(400, 8, 1);
  const ids = all(d).map((l) => l.id);

  test('moving everything is one short step', () => {
    const { steps } = changeOf(moveLines(d, ids, { x: 1 / 3, y: 5 }), 'c');
    expect(steps.map((s) => s.step)).toEqual(['translate']);
    expect(JSON.stringify(steps).length).toBeLessThan(400 * 12);
  });

  test('a line off the grid is moved whole, and lies on it from then on', () => {
    const with1 = applyChange(d, addLine(d, 's0', off('off')));
    const change = changeOf(moveLines(with1, ['l0', 'off'], { x: 0.1, y: 0 }), 'c');
    expect(change.steps.map((s) => s.step)).toEqual(['translate', 'setLine']);
    const after = applyChange(with1, change);
    expect(changeOf(moveLines(after, ['l0', 'off'], { x: 0.1, y: 0 }), 'c').steps).toHaveLength(1);
    expect(applyChange(after, inverseOf(change, 'u', 'Undo'))).toEqual(with1);
  });

  test('a node moved is that node; a run closed, or most of a line, is all of it', () => {
    const [node] = changeOf(moveNodes(d, [{ line: 'l0', run: 0, node: 3 }], { x: 1, y: 1 }), 'c').steps;
    expect(node).toMatchObject({
      step: 'setNodes',
      id: 'l0',
      run: 0,
      at: 3,
      before: { length: 1 },
      after: { length: 1 },
    });
    const { runs } = findLine(d, 'l0')!.line;
    const closed = changeOf(
      reshapeLines(d, new Map([['l0', [{ ...runs[0], closed: !runs[0].closed }]]]), 'Close'),
      'c',
    );
    expect(closed.steps.map((s) => s.step)).toEqual(['setLine']);
    const turned = changeOf(transformLines(d, ['l0'], turningAbout({ x: 0, y: 0 }, 9), false, 'Turn'), 'c');
    expect(turned.steps.map((s) => s.step)).toEqual(['setLine']);
  });

  test('changing the order sends no line', () => {
    for (const way of ['forward', 'back', 'to front', 'to back'] as const)
      for (const s of changeOf(moveInOrder(d, new Set(['l8', 'l20', 'l48']), way), 'c').steps)
        expect(s.step).toBe('moveItems');
  });
});
