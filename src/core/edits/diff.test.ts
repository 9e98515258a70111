import { allLines, linesOf } from '../drawing/items';
import fc from 'fast-check';
import { applyChange, inverseOf, type Drawing, type Line, type Sheet } from '../index';
import { freshSheet } from '../drawing/schema';
import { wanderingDrawing } from '../test/drawings';
import { diff } from './diff';

const plain = wanderingDrawing(6, 2, 4);
const pool: readonly Line[] = allLines(plain);

/** A drawing with some of the lines, in some order, on some of the sheets, each as it is or changed. */
const anyDrawing = fc
  .record({
    lines: fc.shuffledSubarray([...pool]),
    on: fc.array(fc.nat(2), { minLength: 6, maxLength: 6 }),
    widths: fc.array(fc.constantFrom(1, 2, 5), { minLength: 6, maxLength: 6 }),
    marked: fc.array(fc.boolean(), { minLength: 6, maxLength: 6 }),
    sheets: fc.shuffledSubarray(['a', 'b', 'c'], { minLength: 1 }),
    named: fc.constantFrom('Lines', 'Outline'),
    dim: fc.constantFrom(0.2, 0.4),
    dpi: fc.constantFrom(96, 300),
    kept: fc.boolean(),
  })
  .map(({ lines, on, widths, marked, sheets, named, dim, dpi, kept }): Drawing => {
    const drawn = lines.map((l, i): Line => ({
      ...l,
      style: { ...l.style, width: widths[i] },
      ...(marked[i] && { marks: [{ at: 0.5, left: widths[i], right: 1 }] }),
    }));
    return {
      ...plain,
      dim,
      page: { ...plain.page, dpi },
      ...(kept && { profiles: [{ id: 'p', name: 'mine', marks: [{ at: 0, left: 1, right: 1 }] }] }),
      sheets: sheets.map((id, s): Sheet => ({
        ...freshSheet(id, `${named} ${id}`, '#aa3322'),
        items: drawn.filter((_, i) => on[i] % sheets.length === s),
      })),
    };
  });

test('any state becomes any other, and is had back by undoing', () => {
  fc.assert(
    fc.property(anyDrawing, anyDrawing, (now, then) => {
      const e = diff(now, then, 'Go back');
      const change = { id: 'c', ...e };
      const after = e.steps.length > 0 ? applyChange(now, change) : now;
      expect(after).toEqual(then);
      expect(applyChange(after, inverseOf(change, 'u', 'Undo'))).toEqual(now);
    }),
    { numRuns: 300 },
  );
});

test('what is the same is not touched', () => {
  expect(diff(plain, plain, 'Go back').steps).toEqual([]);
  const copy = JSON.parse(JSON.stringify(plain)) as Drawing;
  expect(diff(plain, copy, 'Go back').steps).toEqual([]);
  const [sheet, ...rest] = plain.sheets;
  const wider = linesOf(sheet).map((l, i): Line => (i === 0 ? { ...l, style: { ...l.style, width: 9 } } : l));
  const { steps } = diff(plain, { ...plain, sheets: [{ ...sheet, items: wider }, ...rest] }, 'Go back');
  expect(steps.map((s) => s.step)).toEqual(['setLine']);
});

test('references come, go, change places and are set anew', () => {
  const reference = (id: string) => ({
    id,
    name: id,
    picture: 'a'.repeat(64),
    pixelWidth: 100,
    pixelHeight: 80,
    dpi: 96,
    at: { x: 0, y: 0 },
    width: 100,
    height: 80,
  });
  const of = (...refs: object[]): Drawing => ({ ...plain, references: refs as unknown as Drawing['references'] });
  const now = of(reference('one'), reference('two'), reference('three'));
  const then = of(reference('three'), { ...reference('one'), at: { x: 5, y: 5 } }, reference('four'));
  const change = { id: 'c', ...diff(now, then, 'Go back') };
  expect(applyChange(now, change)).toEqual(then);
  expect(applyChange(then, inverseOf(change, 'u', 'Undo'))).toEqual(now);
});
