import { usualOrder, type Correction } from '../raster/correction';
import { referenceOf } from '../drawing/find';
import { laidOut, placedAfter, placedBox, shownPixels, sizedAbout } from '../drawing/placement';
import type { Drawing, Page, Reference } from '../drawing/schema';
import type { Point } from '../geometry/point';
import { edit, sidesOf, type Edit } from '../change/edit';

/** How far a reference is dimmed when it is placed. */
export const FIRST_DIM = 0.4;

/** The largest placement of a picture on a page that keeps its proportions, in the middle. */
export function fitOnPage(
  page: Page,
  pixelWidth: number,
  pixelHeight: number,
): { at: Point; width: number; height: number } {
  const k = Math.min(page.width / pixelWidth, page.height / pixelHeight);
  const [width, height] = [pixelWidth * k, pixelHeight * k];
  return { at: { x: (page.width - width) / 2, y: (page.height - height) / 2 }, width, height };
}

/** What is known of a picture that was taken in. */
export type TakenPicture = Pick<Reference, 'id' | 'name' | 'picture' | 'pixelWidth' | 'pixelHeight' | 'dpi'> &
  Partial<Pick<Reference, 'target'>>;

/** A picture as it lies on the page at first: fitted, dimmed, locked. */
export const placedReference = (page: Page, picture: TakenPicture): Reference => ({
  ...picture,
  ...fitOnPage(page, picture.pixelWidth, picture.pixelHeight),
  corrections: [],
  turn: 0,
  flipX: false,
  flipY: false,
  beside: false,
  dim: FIRST_DIM,
  blend: 'normal',
  tint: null,
  visible: true,
  locked: true,
  target: picture.target ?? 'ink',
});

export const placeReference = (d: Drawing, reference: Reference): Edit =>
  edit('Bring in picture', { step: 'insertReference', index: d.references.length, reference });

/** Between the page and what lies beside it, page units. */
const APART = 24;

/** Lays a picture beside the page, as high as it and right of what lies there; or under the work again. */
export function layBeside(d: Drawing, id: string, is: boolean): Edit {
  const r = referenceOf(d, id);
  if (!r) return edit('Lay beside the page');
  if (!is)
    return setReference(d, id, { beside: false, dim: FIRST_DIM, ...laidOut(d.page, r, 'fit') }, 'Lay under the work');
  const others = d.references.filter((o) => o.beside && o.visible && o.id !== id);
  const x = Math.max(d.page.width, ...others.map((o) => placedBox(o).maxX)) + APART;
  const size = { width: (r.width * d.page.height) / r.height, height: d.page.height };
  return setReference(d, id, { beside: true, dim: 0, at: { x, y: 0 }, ...size, locked: true }, 'Lay beside the page');
}

/** How far a picture that comes to lie over another is moved, so that both can be seen: a share of the page's smaller side. */
const OVER = 0.04;

/** A picture that was taken in, laid on the page; over others so that they can be told apart. */
export function layOver(d: Drawing, reference: Reference): Reference {
  const over = d.references.filter((r) => r.visible && !r.beside).length;
  const by = over * OVER * Math.min(d.page.width, d.page.height);
  return by === 0 ? reference : { ...reference, at: { x: reference.at.x + by, y: reference.at.y + by } };
}

export function removeReference(d: Drawing, id: string): Edit {
  const index = d.references.findIndex((r) => r.id === id);
  return edit('Take picture away', index < 0 ? [] : { step: 'removeReference', index, reference: d.references[index] });
}

type Settable = Omit<Reference, 'id'>;

export function setReference(d: Drawing, id: string, after: Partial<Settable>, label: string): Edit {
  const reference = referenceOf(d, id);
  const sides = reference && sidesOf<Settable>(reference, after);
  return edit(label, sides ? { step: 'setReference', id, ...sides } : []);
}

/** Other corrections for a reference; its placement follows where they change the picture's size. */
export function correctReference(d: Drawing, id: string, corrections: readonly Correction[], label: string): Edit {
  const r = referenceOf(d, id);
  return r ? setReference(d, id, { corrections, ...placedAfter(d.page, r, corrections) }, label) : edit(label);
}

/** A correction set for a reference: in place of its own of that kind, or where such a one usually comes. */
export function setCorrection(d: Drawing, id: string, correction: Correction, label: string): Edit {
  const list = referenceOf(d, id)?.corrections ?? [];
  const at = list.findIndex((c) => c.kind === correction.kind);
  const rank = usualOrder.indexOf(correction.kind);
  const before = list.findIndex((c) => usualOrder.indexOf(c.kind) > rank);
  const next = at >= 0 ? list.with(at, correction) : list.toSpliced(before < 0 ? list.length : before, 0, correction);
  return correctReference(d, id, next, label);
}

/** References in another order on the shelf; 0 is the lowest. */
export function moveReference(d: Drawing, id: string, to: number): Edit {
  const from = d.references.findIndex((r) => r.id === id);
  const place = Math.min(d.references.length - 1, Math.max(0, to));
  return edit('Reorder pictures', from < 0 || from === place ? [] : { step: 'moveReference', from, to: place });
}

/** Another picture under the same placement: as wide as the one before, its own proportions kept. */
export function swapPicture(d: Drawing, id: string, picture: TakenPicture): Edit {
  const r = referenceOf(d, id);
  if (!r) return edit('Swap picture');
  const { name, picture: hash, pixelWidth, pixelHeight, dpi } = picture;
  const next = { name, picture: hash, pixelWidth, pixelHeight, dpi, corrections: [] };
  const shape = shownPixels({ ...r, ...next });
  return setReference(
    d,
    id,
    { ...next, ...sizedAbout(r, r.width, (r.width * shape.height) / shape.width) },
    'Swap picture',
  );
}

/** How far all references are dimmed beyond their own dim. */
export const dimAll = (d: Drawing, dim: number): Edit =>
  edit('Dim all pictures', d.dim === dim ? [] : { step: 'setDrawing', before: { dim: d.dim }, after: { dim } });
