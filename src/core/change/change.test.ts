import { allLines, linesOf } from '../drawing/items';
import fc from 'fast-check';
import { wanderingDrawing } from '../test/drawings';
import { findLine } from '../drawing/find';
import { drawingSchema, type Drawing } from '../drawing/schema';
import { applyChange, ChangeError, inverseOf } from './apply';
import { changeSchema, type Change } from './change';
import type { Edit } from './edit';
import { addLine, moveLines, removeLines, styleLines } from '../edits/lines';
import { changeKind, moveNodes, removeNodes, turnHandle } from '../edits/nodes';
import { setPage } from '../edits/page';
import { placedReference, placeReference, removeReference, setReference } from '../edits/references';
import { addSheet, freeSheetName, moveSheet, nextTag, removeSheet, setSheet } from '../edits/sheets';

const start = wanderingDrawing(12, 4, 1);
const made = (e: Edit, id = 'c'): Change => ({ id, ...e });
const picture = { id: 'r1', name: 'a.png', picture: 'a'.repeat(64), pixelWidth: 400, dpi: null, pixelHeight: 300 };

/** Every kind of edit, driven by three numbers. */
const edits: ((d: Drawing, a: number, b: number, id: string) => Edit)[] = [
  (d, a) => moveLines(d, [lineId(d, a)], { x: 3, y: -2 }),
  (d, a) => removeLines(d, [lineId(d, a), lineId(d, a + 3)]),
  (d, a) => styleLines(d, [lineId(d, a), lineId(d, a + 1)], { width: 7, stroke: '#112233' }, 'Set width'),
  (d, a, b) => moveNodes(d, [{ line: lineId(d, a), run: 0, node: b % 3 }], { x: 1, y: 1 }),
  (d, a, b) => turnHandle(d, { line: lineId(d, a), run: 0, node: b % 3 }, 'out', { x: 5, y: 6 }, b % 2 === 0),
  (d, a, b) =>
    changeKind(
      d,
      [{ line: lineId(d, a), run: 0, node: b % 3 }],
      (['corner', 'smooth', 'even', 'flowing'] as const)[b % 4],
    ),
  (d, a, b) => removeNodes(d, [{ line: lineId(d, a), run: 0, node: b % 3 }]),
  (d, a, _, id) => addSheet(d, id, freeSheetName(d), d.sheets[a % Math.max(1, d.sheets.length)]?.id),
  (d, a) => removeSheet(d, d.sheets[a % Math.max(1, d.sheets.length)]?.id ?? 'none'),
  (d, a, b) =>
    setSheet(
      d,
      d.sheets[a % Math.max(1, d.sheets.length)]?.id ?? 'none',
      { visible: b % 2 === 0, locked: b % 3 === 0, tag: nextTag(d) },
      'Set sheet',
    ),
  (d, a, b) => moveSheet(d, d.sheets[a % Math.max(1, d.sheets.length)]?.id ?? 'none', b % 5),
  (d, _, __, id) => placeReference(d, placedReference(d.page, { ...picture, id })),
  (d, a) =>
    setReference(
      d,
      d.references[a % Math.max(1, d.references.length)]?.id ?? 'none',
      { dim: 0.7, locked: false },
      'Dim',
    ),
  (d, a) => removeReference(d, d.references[a % Math.max(1, d.references.length)]?.id ?? 'none'),
  (d, a) => setPage(d, { width: 500 + a, unit: 'px' }, 'Resize'),
  (d, a, _, id) =>
    d.sheets.length > 0 && linesOf(start.sheets[0])[0]
      ? addLine(d, d.sheets[a % d.sheets.length].id, { ...linesOf(start.sheets[0])[0], id })
      : moveSheet(d, 'none', 0),
];

function lineId(d: Drawing, n: number): string {
  const all = allLines(d);
  return all[n % Math.max(1, all.length)]?.id ?? 'none';
}

const frozen = <T>(value: T): T => {
  if (value && typeof value === 'object' && !Object.isFrozen(value)) {
    Object.freeze(value);
    Object.values(value).forEach(frozen);
  }
  return value;
};

test('any series of edits can be taken back to the very start, replayed, and sent as JSON', () => {
  const one = fc.tuple(fc.nat(edits.length - 1), fc.nat(40), fc.nat(40));
  fc.assert(
    fc.property(fc.array(one, { minLength: 1, maxLength: 24 }), (plan) => {
      const first = frozen(wanderingDrawing(12, 4, 1));
      let now: Drawing = first;
      const changes: Change[] = [];
      plan.forEach(([kind, a, b], i) => {
        const change = made(edits[kind](now, a, b, `n${i}`), `c${i}`);
        if (change.steps.length === 0) return;
        changes.push(changeSchema.parse(JSON.parse(JSON.stringify(change))) as Change);
        now = frozen(applyChange(now, change));
      });
      expect(drawingSchema.safeParse(now).success).toBe(true);
      expect(changes.reduce(applyChange, first)).toEqual(now);
      const back = changes.toReversed().reduce((d, c) => applyChange(d, inverseOf(c, `u-${c.id}`, 'Undo')), now);
      expect(back).toEqual(first);
    }),
    { numRuns: 150 },
  );
});

test('what an edit leaves alone is shared', () => {
  const after = applyChange(start, made(moveLines(start, ['l0'], { x: 1, y: 0 })));
  expect(after.sheets[1]).toBe(start.sheets[1]);
  expect(linesOf(after.sheets[0])[1]).toBe(linesOf(start.sheets[0])[1]);
  expect(linesOf(after.sheets[0])[0]).not.toBe(linesOf(start.sheets[0])[0]);
});

describe('a change that does not fit is refused', () => {
  const twice = made(removeLines(start, ['l0']));
  const after = applyChange(start, twice);
  test.each<[string, Drawing, Change]>([
    ['a line removed twice', after, twice],
    [
      'a line there already',
      start,
      made({
        label: 'x',
        steps: [{ step: 'insertItem', at: { sheet: 's1', index: 0 }, item: linesOf(start.sheets[0])[0] }],
      }),
    ],
    [
      'no such sheet',
      start,
      made({ label: 'x', steps: [{ step: 'setSheet', id: 'zz', before: { name: 'a' }, after: { name: 'b' } }] }),
    ],
    [
      'not as it was',
      start,
      made({ label: 'x', steps: [{ step: 'setSheet', id: 's0', before: { name: 'a' }, after: { name: 'b' } }] }),
    ],
    [
      'set without saying what it was',
      start,
      made({ label: 'x', steps: [{ step: 'setPage', before: {}, after: { width: 4 } }] }),
    ],
    ['no such place', start, made({ label: 'x', steps: [{ step: 'moveSheet', from: 0, to: 9 }] })],
    [
      'no such line',
      start,
      made({ label: 'x', steps: [{ step: 'setLine', sheet: 's0', id: 'zz', before: {}, after: {} }] }),
    ],
    [
      'no such reference',
      start,
      made({ label: 'x', steps: [{ step: 'setReference', id: 'zz', before: {}, after: {} }] }),
    ],
  ])('%s', (_, drawing, change) => expect(() => applyChange(drawing, change)).toThrow(ChangeError));
});

test('style for many lines goes to their sheets too, so that the next line is alike', () => {
  const after = applyChange(start, made(styleLines(start, ['l0', 'l1', 'l4'], { width: 9 }, 'Set width')));
  expect(['l0', 'l1', 'l4'].map((id) => findLine(after, id)!.line.style.width)).toEqual([9, 9, 9]);
  expect(findLine(after, 'l2')!.line.style.width).not.toBe(9);
  expect(after.sheets.map((s) => s.style.width === 9)).toEqual([true, true, false, false]);
});

test('a picture lies on the page whole, its proportions kept, dimmed and locked', () => {
  const r = placedReference(start.page, picture);
  expect(r.width / r.height).toBeCloseTo(4 / 3, 9);
  expect(r.width).toBeLessThanOrEqual(start.page.width);
  expect(r.height).toBeCloseTo(start.page.height, 9);
  expect([r.dim, r.locked, r.visible]).toEqual([0.4, true, true]);
});
