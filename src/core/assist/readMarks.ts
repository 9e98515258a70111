import { placementOf } from '../drawing/beneath';
import { shownCubics } from '../drawing/rounding';
import type { Line, Mark, Reference } from '../drawing/schema';
import { arcLengthOf } from '../geometry/arcLength';
import type { Cubic } from '../geometry/cubic';
import { smoothed } from '../geometry/smoothed';
import type { GrayImage } from '../raster/grayImage';
import { readWidths } from './readWidths';
import { thinnedMarks } from '../ink/thinMarks';
import { widthProfile } from '../ink/widths';

export type ReadFigures = {
  /** How far the ink may be, px of the corrected picture. */
  readonly reach: number;
  /** Widths are evened out over so much of the line, page units. */
  readonly smoothing: number;
  /** No width is set smaller or larger than these, page units. */
  readonly smallest: number;
  readonly largest: number;
};

/** Marks that tell the widths so well are enough, page units. */
const THINNING = 0.2;
const MOST = 400;

/**
 * The width marks of a line, page units, as the ink of a picture beneath it tells them; both sides alike, for the line
 * need not run in the ink's middle. None where there is no ink within reach.
 */
export function readMarks(
  line: Pick<Line, 'runs'>,
  r: Reference,
  image: GrayImage,
  { reach, smoothing, smallest, largest }: ReadFigures,
): Mark[] {
  const [run] = line.runs;
  const cubics = run.nodes.length > 1 || run.closed ? shownCubics(run) : [];
  if (cubics.length === 0) return [];
  const { inPicture, unit, px } = placementOf(r, image);
  const there = { cubics: cubics.map((c) => c.map(inPicture) as Cubic), closed: run.closed };
  const read = readWidths(there, image, { reach: reach / px });
  if (read.length === 0) return [];
  const profile = widthProfile(read, run.closed);
  const { length } = arcLengthOf(cubics);
  const count = Math.max(8, Math.min(MOST, Math.ceil(length / 2)));
  const widths = Array.from({ length: count + 1 }, (_, i) => {
    const { left, right } = profile.at(i / count);
    return (left + right) * unit;
  });
  const even = smoothedWidths(widths, smoothing > 0 ? (smoothing / length) * count : 0, run.closed);
  const marks = even.map((w, i): Mark => {
    const half = Math.min(largest, Math.max(smallest, w)) / 2;
    return { at: i / count, left: half, right: half };
  });
  return thinnedMarks(marks, THINNING);
}

/** Means over so many places to both sides, by a Gaussian kernel; a closed line's last place is its first again. */
function smoothedWidths(list: readonly number[], over: number, closed: boolean): number[] {
  const reach = Math.round(over);
  if (reach < 1) return [...list];
  const kernel = Array.from({ length: reach + 1 }, (_, k) => Math.exp(-2 * (k / reach) ** 2));
  const places = Float64Array.from(closed ? list.slice(0, -1) : list);
  const even = [...smoothed(places, kernel.slice(0, Math.max(1, places.length >> 1)), closed)];
  return closed ? [...even, even[0]] : even;
}
