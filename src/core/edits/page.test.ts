import { applyChange, emptyDrawing, inverseOf, plainPage } from '..';
import { dpiOf } from '../drawing/placement';
import { toUnit } from '../drawing/unit';
import { pageFromReference, pagePresets, setPage } from './page';
import { placedReference, placeReference } from './references';

const empty = emptyDrawing(plainPage({ width: 400, height: 300, unit: 'px', dpi: 96, ground: '#ffffff' }), {
  id: 's',
  name: 'S',
  tag: '#8f2d63',
});
const reference = (dpi: number | null) =>
  placedReference(empty.page, { id: 'r', name: 'x', picture: 'a'.repeat(64), pixelWidth: 1200, pixelHeight: 600, dpi });

test('only what differs is set, and it can be taken back', () => {
  expect(setPage(empty, { width: 400, guides: [] }, 'Same').steps).toEqual([]);
  const edit = setPage(empty, { width: 500, height: 300, ground: null }, 'Resize');
  const change = { id: 'c', ...edit };
  const after = applyChange(empty, change);
  expect(edit.steps).toEqual([
    { step: 'setPage', before: { width: 400, ground: '#ffffff' }, after: { width: 500, ground: null } },
  ]);
  expect(applyChange(after, inverseOf(change, 'u', 'undo'))).toEqual(empty);
});

test.each([
  [300, 384, 192],
  [null, 1200, 600],
])('a page as large as the picture in print, by its %s dpi', (dpi, width, height) => {
  const r = reference(dpi);
  const placed = applyChange(empty, { id: 'p', ...placeReference(empty, r) });
  const { page, references } = applyChange(placed, { id: 'c', ...pageFromReference(placed, r) });
  expect([page.width, page.height, page.dpi]).toEqual([width, height, dpi ?? 96]);
  expect(references[0]).toMatchObject({ at: { x: 0, y: 0 }, width, height });
  expect(dpiOf(references[0])).toBeCloseTo(dpi ?? 96);
});

test('the presets are as large as their names say, the longer side first', () => {
  for (const p of pagePresets) {
    expect(p.width).toBeGreaterThanOrEqual(p.height);
    const named = /([\d.]+) x ([\d.]+) (mm|in|px)/.exec(p.name);
    if (named) {
      expect(toUnit(p.width, named[3] as 'mm')).toBeCloseTo(Number(named[1]), 3);
      expect(toUnit(p.height, named[3] as 'mm')).toBeCloseTo(Number(named[2]), 3);
    }
  }
  const a4 = pagePresets.find((p) => p.name === 'A4')!;
  expect([Math.round(toUnit(a4.width, 'mm')), Math.round(toUnit(a4.height, 'mm'))]).toEqual([297, 210]);
});
