import { edit, sidesOf, type Edit } from '../change/edit';
import { findItem } from '../drawing/find';
import type { Drawing, Picture, Reference } from '../drawing/schema';
import { firstCorrections, type Correction } from '../raster/correction';
import { layInside } from './keepInside';

/** How a picture that is cut out is seen: in its own colours, in one, or in two (its dark and its light). */
export const pictureLooks = ['own', 'one', 'two'] as const;
export type PictureLook = (typeof pictureLooks)[number];

const kinds: Record<PictureLook, 'tint' | 'twoTone' | null> = { own: null, one: 'tint', two: 'twoTone' };

/** The correction that gives a picture its look; null where it has its own colours. */
export const lookOf = (p: Pick<Picture, 'corrections'>): Extract<Correction, { kind: 'tint' | 'twoTone' }> | null => {
  const last = p.corrections.at(-1);
  return last?.kind === 'tint' || last?.kind === 'twoTone' ? last : null;
};

export const lookNamed = (look: PictureLook): Correction | null => {
  const kind = kinds[look];
  return kind && firstCorrections[kind];
};

export const nameOfLook = (p: Pick<Picture, 'corrections'>): PictureLook =>
  pictureLooks.find((l) => kinds[l] === (lookOf(p)?.kind ?? null))!;

/** A reference's picture cut out by a shape: it lies inside of it, below what is held there, where it lies under the work. */
export function pictureInside(d: Drawing, r: Reference, shape: string, freshId: () => string): Edit {
  const { name, picture, pixelWidth, pixelHeight, corrections, at, width, height, turn, flipX, flipY } = r;
  const placed = { name, picture, pixelWidth, pixelHeight, corrections, at, width, height, turn, flipX, flipY };
  const item: Picture = { kind: 'picture', id: freshId(), ...placed };
  return layInside(d, [item], shape, 'Cut the picture out', freshId, 'below');
}

/** A picture in the art in another look: a correction that is laid over all others, or none. */
export function setPictureLook(d: Drawing, id: string, look: Correction | null): Edit {
  const found = findItem(d, id);
  const label = 'Look of the picture';
  if (found?.item.kind !== 'picture') return edit(label);
  const { corrections } = found.item;
  const plain = lookOf(found.item) ? corrections.slice(0, -1) : corrections;
  const sides = sidesOf<Pick<Picture, 'corrections'>>(found.item, {
    corrections: look ? [...plain, look] : [...plain],
  });
  return edit(label, sides ? { step: 'setPicture', sheet: found.sheet.id, id, ...sides } : []);
}
