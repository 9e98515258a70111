import { withoutPictures } from '@/core/drawing/items';
import type { PictureBytes } from '@/core/formats/svg/pictures';
import { keepDrawing } from './drawings';
import { doneApart } from './jobs/pool';
import { takePicture } from './pictures';
import { Problem } from './problem';

export const MOST_SVG_BYTES = 60 * 1024 * 1024;
const WITHIN_MS = 60_000;

export type Imported = { id: string; revision: number; dropped: { what: string; why: string }[] };

/**
 * Keeps an SVG as a new drawing, read in a process of its own. @throws Problem 400 for what is no SVG or has nothing in it that
 * can be kept, 413 for too much.
 */
export async function importSvg(title: string, bytes: Uint8Array, signal?: AbortSignal): Promise<Imported> {
  if (bytes.length === 0) throw new Problem(400, 'empty', 'The file is empty. Nothing was brought in.');
  const { drawing, dropped, pictures } = await doneApart('readSvg', [bytes], { signal, within: WITHIN_MS });
  if (drawing.sheets.every((s) => s.items.length === 0))
    throw new Problem(400, 'nothing-in-it', 'There is nothing in this SVG that can be drawn. Nothing was brought in.');
  const bad = await refusedPictures(pictures);
  if (bad.size > 0) dropped.push({ what: 'damaged pictures', why: 'They are damaged or cut short.' });
  const sheets = drawing.sheets.map((s) => (bad.size > 0 ? { ...s, items: withoutPictures(s.items, bad) } : s));
  const { id, revision } = keepDrawing(title, { ...drawing, sheets }, 'trace');
  return { id, revision, dropped };
}

/** Takes the pictures in; gives the hashes of those that cannot be shown. */
async function refusedPictures(pictures: readonly PictureBytes[]): Promise<Set<string>> {
  const bad = new Set<string>();
  for (const { hash, bytes } of pictures) {
    try {
      await takePicture(new Blob([bytes as BlobPart]).stream(), bytes.length);
    } catch (error) {
      if (!(error instanceof Problem) || error.status >= 500) throw error;
      bad.add(hash);
    }
  }
  return bad;
}
