import { nanoid } from 'nanoid';
import type { Flat, Reference } from '@/core';
import type { Edit } from '@/core/change/edit';
import { findItem, isOpenSheet } from '@/core/drawing/find';
import { isFlat } from '@/core/drawing/items';
import type { BasePaint } from '@/core/drawing/paint';
import { seenFlats } from '@/core/edits/flats';
import { addSwatches, swatchesOf } from '@/core/edits/palette';
import { takeColours, type Joined } from '@/core/edits/takeColours';
import { rgbColour } from '@/core/colour/colour';
import { formatCount } from '@/ui/format';
import { beneathFlats } from '../state/beneath';
import { correct, sourceOf } from '../state/corrections';
import { tellOf } from './telling';
import type { Bench, BenchState } from '../state/store';

/** What can be done with colours that come from a picture, or are of the palette. */

const freshId = (): string => nanoid(12);

/** The flats that are chosen. */
export const chosenFlats = ({ drawing, flats }: Pick<BenchState, 'drawing' | 'flats'>): Flat[] =>
  [...flats].flatMap((id) => {
    const item = findItem(drawing, id)?.item;
    return item && isFlat(item) ? [item] : [];
  });

/** A colour as it is painted with: the palette's own where it has it, so that it changes with it. */
export const paintOf = (bench: Bench, colour: string): BasePaint => {
  const own = swatchesOf(bench.getState().drawing).find((s) => s.colour === colour);
  return own ? { swatch: own.id } : colour;
};

/**
 * What taking the picture's colours would do to all flats that are seen, or some; null, and told, where it cannot be done. The
 * drawing may have changed meanwhile: then it is null as well.
 */
export async function coloursToTake(
  bench: Bench,
  joined: Joined,
  only: ReadonlySet<string> | null,
): Promise<Edit | null> {
  const { drawing } = bench.getState();
  const seen = seenFlats(drawing).filter((f) => only?.has(f.id) !== false);
  if (seen.length === 0) return tellOf(bench, 'There is no flat yet. Pour some first.');
  const flats = seen.filter((f) => isOpenSheet(findItem(drawing, f.id)!.sheet));
  if (flats.length === 0) return tellOf(bench, 'The sheet that the flats are on is locked. Unlock it first.');
  try {
    const beneath = await beneathFlats(drawing, flats);
    if (bench.getState().drawing !== drawing) return tellOf(bench, 'The drawing has changed meanwhile. Ask once more.');
    if (beneath.length === 0) return tellOf(bench, 'There is no picture beneath the flats to take colours from.');
    if (joined.to === 'palette' && swatchesOf(drawing).length === 0)
      return tellOf(bench, 'The palette has no swatch yet.');
    const edit = takeColours(drawing, beneath, joined, freshId);
    if (edit.steps.length === 0) return tellOf(bench, 'The flats have the colours of the picture already.');
    const without = flats.length - beneath.length;
    if (without > 0) bench.tell(`${formatCount(without, 'flat')} without a picture beneath: left as they are.`);
    return edit;
  } catch {
    return tellOf(bench, 'The picture could not be read. Nothing was changed.', 'warning');
  }
}

/** The colours that stand for a picture put into the palette. */
export async function paletteFromPicture(bench: Bench, r: Reference, count: number): Promise<void> {
  try {
    const found = await correct.palette(sourceOf(r), r.corrections, count);
    const { drawing } = bench.getState();
    const known = new Set(swatchesOf(drawing).map((s) => s.colour));
    const fresh = found.map((f) => rgbColour(...f.colour)).filter((c) => !known.has(c));
    const group = r.name.replace(/\.[a-z0-9]+$/i, '');
    bench.commit(
      addSwatches(
        drawing,
        fresh.map((colour) => ({ colour, group })),
        freshId,
      ),
      null,
      'The palette has all of them already.',
    );
  } catch {
    bench.tell('The picture could not be read. Nothing was changed.', undefined, 'warning');
  }
}
