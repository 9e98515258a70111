import { applyChange, type Drawing } from '../index';
import { placedBox } from '../drawing/placement';
import { boxesMeet } from '../geometry/box';
import { wanderingDrawing } from '../test/drawings';
import { layBeside, layOver, placedReference, placeReference } from './references';

const empty = wanderingDrawing(0, 1, 1);
const picture = (id: string, pixelWidth = 300, pixelHeight = 200) =>
  placedReference(empty.page, { id, name: id, picture: 'a'.repeat(64), pixelWidth, pixelHeight, dpi: null });
const withPicture = (d: Drawing, id: string): Drawing =>
  applyChange(d, { id, ...placeReference(d, layOver(d, picture(id))) });
const besideOf = (d: Drawing, id: string, is = true): Drawing =>
  applyChange(d, { id: `${id} beside`, ...layBeside(d, id, is) });
const box = (d: Drawing, id: string) => placedBox(d.references.find((r) => r.id === id)!);

test('a picture over another is moved a little: no two lie in the same place', () => {
  const d = ['a', 'b', 'c'].reduce(withPicture, empty);
  expect(d.references[0]).toEqual(picture('a'));
  expect(new Set(d.references.map((r) => `${r.at.x},${r.at.y}`)).size).toBe(3);
  // What lies beside the page, or is not seen, lies over nothing.
  expect(layOver(besideOf(withPicture(empty, 'a'), 'a'), picture('b'))).toEqual(picture('b'));
});

test('pictures beside the page lie next to each other, as high as it; under the work again they fit it', () => {
  const d = ['a', 'b', 'c'].reduce(withPicture, empty);
  const beside = ['a', 'b', 'c'].reduce((x, id) => besideOf(x, id), d);
  const page = { minX: 0, minY: 0, maxX: d.page.width, maxY: d.page.height };
  const boxes = [page, ...['a', 'b', 'c'].map((id) => box(beside, id))];
  boxes.forEach((a, i) => boxes.slice(i + 1).forEach((b) => expect(boxesMeet(a, b)).toBe(false)));
  for (const r of beside.references)
    expect([r.height, r.beside, r.dim, r.locked]).toEqual([d.page.height, true, 0, true]);
  const back = besideOf(beside, 'b', false);
  expect(back.references[1]).toMatchObject({ beside: false, dim: 0.4, at: picture('b').at, width: picture('b').width });
});
