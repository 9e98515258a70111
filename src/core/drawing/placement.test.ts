import fc from 'fast-check';
import {
  correctReference,
  dimAll,
  moveReference,
  placedReference,
  placeReference,
  setCorrection,
  swapPicture,
} from '../edits/references';
import { applyChange, inverseOf, plainPage, emptyDrawing, type Drawing, type Reference } from '..';
import type { Edit } from '../change/edit';
import { firstCorrections } from '../raster/correction';
import { dpiOf, holdsPlace, laidOut, opacityOf, pageToShares, placedBox, sharesToPage, shownPixels } from './placement';

const page = plainPage({ width: 600, height: 400, unit: 'px', dpi: 96, ground: null });
const taken = { id: 'r', name: 'x', picture: 'a'.repeat(64), pixelWidth: 1200, pixelHeight: 600, dpi: 300 };
const reference = placedReference(page, taken);
const empty = emptyDrawing(page, { id: 's', name: 'S', tag: '#8f2d63' });
let changes = 0;
const done = (d: Drawing, edit: Edit): Drawing => {
  const change = { id: `c${changes++}`, ...edit };
  const after = applyChange(d, change);
  expect(applyChange(after, inverseOf(change, `u${changes}`, 'undo'))).toEqual(d);
  return after;
};
const drawing = done(empty, placeReference(empty, reference));
const only = (d: Drawing): Reference => d.references[0];

test('shares of the picture and places of the page go into each other, however it is turned and flipped', () => {
  const share = fc.double({ min: -1, max: 2, noNaN: true });
  fc.assert(
    fc.property(
      share,
      share,
      fc.double({ min: -360, max: 360, noNaN: true }),
      fc.boolean(),
      fc.boolean(),
      (x, y, turn, flipX, flipY) => {
        const r = { ...reference, turn, flipX, flipY };
        const back = pageToShares(r, sharesToPage(r, { x, y }));
        expect(Math.hypot(back.x - x, back.y - y)).toBeLessThan(1e-9);
        expect(holdsPlace(r, sharesToPage(r, { x: 0.01, y: 0.99 }))).toBe(true);
        expect(holdsPlace(r, sharesToPage(r, { x: 1.01, y: 0.5 }))).toBe(false);
      },
    ),
  );
  expect(sharesToPage({ ...reference, turn: 90 }, { x: 0, y: 0.5 })).toEqual({
    x: expect.closeTo(300),
    y: expect.closeTo(-100),
  });
  expect(sharesToPage({ ...reference, flipX: true }, { x: 0, y: 0 }).x).toBeCloseTo(600);
  const box = placedBox({ ...reference, turn: 90 });
  expect([box.minX, box.maxX, box.minY, box.maxY].map(Math.round)).toEqual([150, 450, -100, 500]);
});

test('fit, fill, and actual size by the picture’s own dpi', () => {
  expect(laidOut(page, reference, 'fit')).toEqual({ at: { x: 0, y: 50 }, width: 600, height: 300 });
  expect(laidOut(page, reference, 'fill')).toMatchObject({ width: 800, height: 400 });
  expect(laidOut(page, reference, 'actual').width).toBeCloseTo(384);
  expect(dpiOf({ ...reference, ...laidOut(page, reference, 'actual') })).toBeCloseTo(300);
});

test('corrections come in their usual order, keep a pixel’s size on the page, and can be taken back', () => {
  let d = done(drawing, setCorrection(drawing, 'r', firstCorrections.levels, 'Levels'));
  const crop = { ...firstCorrections.crop, left: 0.5 };
  d = done(d, setCorrection(d, 'r', crop, 'Crop'));
  expect(only(d).corrections.map((c) => c.kind)).toEqual(['crop', 'levels']);
  // It filled the page as far as it could, and does so again.
  expect(shownPixels(only(d))).toEqual({ width: 600, height: 600 });
  expect(only(d)).toMatchObject({ width: 400, height: 400 });
  const moved = { ...d, references: [{ ...only(d), at: { x: 7, y: 9 }, width: 200, height: 200 }] };
  const halved = only(done(moved, setCorrection(moved, 'r', { ...crop, bottom: 0.5 }, 'Crop')));
  expect([halved.width, halved.height, halved.at]).toEqual([200, 100, { x: 7, y: 59 }]);
  expect(only(done(d, correctReference(d, 'r', [], 'None'))).corrections).toEqual([]);
});

test('pictures: another order, another picture under the same placement, all dimmed', () => {
  let d = done(drawing, placeReference(drawing, { ...reference, id: 'q' }));
  d = done(d, moveReference(d, 'q', 0));
  expect(d.references.map((r) => r.id)).toEqual(['q', 'r']);
  d = done(d, swapPicture(d, 'q', { ...taken, name: 'y', pixelWidth: 300, pixelHeight: 300, dpi: null }));
  expect(d.references[0]).toMatchObject({ name: 'y', width: 600, height: 600, dpi: null, id: 'q' });
  d = done(d, dimAll(d, 0.5));
  expect(opacityOf(d, d.references[1])).toBeCloseTo(0.3);
});
