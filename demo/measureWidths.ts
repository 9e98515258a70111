import { readWidths, type Cubic, type GrayImage, type Point } from '../src/core';
import { placesAlong } from '../src/core/geometry/along';
import { widthProfile } from '../src/core/ink/widths';

/** How read widths compare with the true ones, over the lengths of lines, px. */
export type WidthFigures = { seen: number; right: number; length: number; over: number };

/** A width is right within so much, px, or this share. */
const WITHIN = { px: 0.5, share: 0.08 };
/** A width this many times the true one is another's. */
const OVER = 1.5;
/** Paper that must be seen beyond a rim for it to be told from others' ink, px. */
const CLEAR = 2;

/** Reads a stroke's widths and compares them, all along but for its round ends. */
export function measureWidths(
  image: GrayImage,
  run: { cubics: Cubic[]; closed: boolean },
  width: (at: number) => number,
  toOthers: (p: Point) => number,
  into: WidthFigures,
): void {
  const profile = widthProfile(readWidths(run, image, { reach: 10 }), run.closed);
  const places = placesAlong(run, 2);
  for (let i = 0; i < places.n; i++) {
    const at = places.along[i] / places.length;
    const truth = width(at);
    if (!run.closed && Math.min(at, 1 - at) * places.length < truth / 2 + 2) continue;
    const { left, right } = profile.at(at);
    const read = left + right;
    into.length++;
    if (read > OVER * truth) into.over++;
    const rim = (side: number): number =>
      toOthers({
        x: places.x[i] + (side * truth * places.nx[i]) / 2,
        y: places.y[i] + (side * truth * places.ny[i]) / 2,
      });
    if (Math.min(rim(1), rim(-1)) < CLEAR) continue;
    into.seen++;
    if (Math.abs(read - truth) <= Math.max(WITHIN.px, WITHIN.share * truth)) into.right++;
  }
}
