import { referenceOf } from '../drawing/find';
import type { Drawing, Page, Reference } from '../drawing/schema';
import type { Point } from '../geometry/point';
import { edit, type Edit } from './edit';

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

/** A picture as it lies on the page at first: fitted, dimmed, locked. */
export function placedReference(
  page: Page,
  picture: Pick<Reference, 'id' | 'name' | 'picture' | 'pixelWidth' | 'pixelHeight'>,
): Reference {
  return {
    ...picture,
    ...fitOnPage(page, picture.pixelWidth, picture.pixelHeight),
    dim: FIRST_DIM,
    visible: true,
    locked: true,
  };
}

export const placeReference = (d: Drawing, reference: Reference): Edit =>
  edit('Bring in picture', { step: 'insertReference', index: d.references.length, reference });

export function removeReference(d: Drawing, id: string): Edit {
  const index = d.references.findIndex((r) => r.id === id);
  return edit('Take picture away', index < 0 ? [] : { step: 'removeReference', index, reference: d.references[index] });
}

type Settable = Pick<Reference, 'name' | 'at' | 'width' | 'height' | 'dim' | 'visible' | 'locked'>;

export function setReference(d: Drawing, id: string, after: Partial<Settable>, label: string): Edit {
  const reference = referenceOf(d, id);
  const keys = Object.keys(after) as (keyof Settable)[];
  if (!reference || keys.every((k) => reference[k] === after[k])) return edit(label);
  const before = Object.fromEntries(keys.map((k) => [k, reference[k]]));
  return edit(label, { step: 'setReference', id, before, after });
}
