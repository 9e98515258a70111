import type { Drawing } from '@/core';
import { asShown } from '@/core/raster/correction';
import { referencesOf } from '@/core/scene/scene';
import { fetchedPicture, pictureUrl } from '@/workers/pictureUrl';

/** The sizes in which the server has a picture, each with its longer side at most, px; the coarsest first. */
export const sizes = [
  { size: 'quarter', longest: 1024 },
  { size: 'half', longest: 2048 },
  { size: 'screen', longest: 4096 },
] as const;
export type PictureSize = (typeof sizes)[number]['size'];

/** The place among the sizes of what is to be seen so many device px long: the coarsest that is fine enough, or the finest. */
export function placeFor(longest: number): number {
  const fine = sizes.findIndex((s) => s.longest >= longest);
  return fine < 0 ? sizes.length - 1 : fine;
}

const ahead = new Map<string, Promise<ImageBitmap>>();

/**
 * Asks for the pictures of references as they are about to be seen, so many device px a page unit, before there is a page to
 * show them. What was asked for before, and not taken, is let go of.
 */
export function askPicturesAhead(drawing: Drawing, scale: number): void {
  for (const late of ahead.values()) late.then((b) => b.close()).catch(() => undefined);
  ahead.clear();
  for (const { placed } of referencesOf(drawing)) {
    if (asShown(placed).some((c) => c.on)) continue;
    const { size } = sizes[placeFor(Math.max(placed.width, placed.height) * scale)];
    const url = pictureUrl(placed.picture, size);
    if (ahead.has(url)) continue;
    const coming = fetchedPicture(url);
    // Whoever takes it is told.
    coming.catch(() => undefined);
    ahead.set(url, coming);
  }
}

/** A picture as the server has it. Rejects where it cannot be had. */
export function plainPicture(hash: string, size: PictureSize): Promise<ImageBitmap> {
  const url = pictureUrl(hash, size);
  const coming = ahead.get(url) ?? fetchedPicture(url);
  ahead.delete(url);
  return coming;
}
