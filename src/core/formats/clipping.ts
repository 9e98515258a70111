import type { Point } from '../geometry/point';
import { keptClipping, laidClipping, paintsOf, type Clipping } from './keptClipping';
import { readSvg } from './svg/readSvg';

/**
 * What the SVG on a clipboard stands for, as items that are new: those that were `kept` in full when it was copied here, or what
 * can be read of it. They lie where they were, or with their middle at `at`. @throws RangeError for a text that is no SVG.
 */
export const clippingOf = (text: string, kept: string | null, at: Point | null, freshId: () => string): Clipping =>
  laidClipping(keptClipping(text, kept) ?? readClipping(text), at, freshId);

function readClipping(text: string): Clipping {
  const { drawing, dropped, pictures } = readSvg(text);
  return {
    items: drawing.sheets.flatMap((s) => s.items),
    paints: paintsOf(drawing),
    pictures,
    dropped: dropped.map((d) => d.what),
    ...(dropped.length > 0 && { why: dropped[0].why }),
  };
}
