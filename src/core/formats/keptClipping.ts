import { z } from 'zod';
import type { Paints } from '../edits/broughtPaints';
import { freshItems, movedItem } from '../edits/transform';
import { itemsOnGrid } from '../drawing/grid';
import { itemsSchema, type Item } from '../drawing/item';
import { linesIn } from '../drawing/items';
import { palettesShape } from '../drawing/paint';
import { skeletonBoxOf } from '../drawing/run';
import { SCHEMA_VERSION, type Drawing } from '../drawing/schema';
import { upgradedItems } from '../drawing/upgrade';
import { middleOfBox } from '../geometry/box';
import { subtract, type Point } from '../geometry/point';
import type { PictureBytes } from './svg/pictures';

/** What is copied is an SVG for everybody. An SVG has no kinds of nodes and no roundings: beside it, it is kept in full. */
const keptSchema = z.object({
  svg: z.string(),
  schema: z.number().int().default(1),
  /** What was copied; the first programs had nothing but lines. */
  items: z.array(z.unknown()).optional(),
  lines: z.array(z.unknown()).optional(),
  ...palettesShape,
});

/** Items in full, to be kept beside the SVG that they were copied as. */
export const keptInFull = (svg: string, items: readonly Item[], { palette, gradients }: Drawing): string =>
  JSON.stringify({ svg, schema: SCHEMA_VERSION, items, palette, gradients });

/** What a text stands for: items, the colours that they speak of, the pictures that came along, and what cannot be kept. */
export type Clipping = {
  items: readonly Item[];
  paints: Paints;
  pictures: readonly PictureBytes[];
  dropped: string[];
  /** Why the first of that cannot. */
  why?: string;
};

/** A clipping under ids of its own, where it was or with the middle of its lines at `at`. */
export function laidClipping(found: Clipping, at: Point | null, freshId: () => string): Clipping {
  const lines = linesIn(found.items);
  const by = at && lines.length > 0 ? subtract(at, middleOfBox(skeletonBoxOf(lines))) : null;
  const fresh = freshItems(found.items, freshId);
  return { ...found, items: itemsOnGrid(by ? fresh.map((item) => movedItem(item, by)) : fresh) };
}

/** Whether a text is one that was copied: line ends may have been changed on their way through the system. */
export const isSameText = (copied: string, text: string): boolean =>
  copied === text || copied.replace(/\s+/g, '') === text.replace(/\s+/g, '');

/** What the paints of a drawing's items can speak of. */
export const paintsOf = ({ palette, gradients }: Paints): Paints => ({
  ...(palette && { palette }),
  ...(gradients && { gradients }),
});

/** What was copied here and is on the clipboard still; null for anything else. */
export function keptClipping(text: string, full: string | null): Clipping | null {
  try {
    const kept = keptSchema.safeParse(JSON.parse(full ?? 'null'));
    if (!kept.success || !isSameText(kept.data.svg, text)) return null;
    const { items = kept.data.lines ?? [], schema } = kept.data;
    const paints = paintsOf(kept.data);
    return { items: itemsSchema.parse(upgradedItems(items, schema)), paints, pictures: [], dropped: [] };
  } catch {
    // What is kept cannot be read: the SVG on the clipboard is there still.
    return null;
  }
}
