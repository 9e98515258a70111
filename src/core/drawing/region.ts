import { hullBox } from '../geometry/bounds';
import { boxesMeet, boxHolds, boxOfPoints } from '../geometry/box';
import { splitAt, type Cubic } from '../geometry/cubic';
import type { Box, Point } from '../geometry/point';
import { isWithin } from '../geometry/polygon';
import { cubicsOf } from './run';
import type { Line } from './schema';

/** A part of the page that is chosen by: a box, or a figure drawn around what is wanted (closed, even-odd). */
export type Region = { readonly box: Box; readonly figure: readonly Point[] | null };

export const boxRegion = (box: Box): Region => ({ box, figure: null });
export const figureRegion = (figure: readonly Point[]): Region => ({ box: boxOfPoints(figure), figure });

/** A lone node, or a curve that is cut no further than to this size in page units. */
const HAIR = 0.25;

/** Whether a place lies in a region. */
export const regionHolds = ({ box, figure }: Region, p: Point): boolean =>
  boxHolds(box, p) && (!figure || isWithin(p, figure));

/** Whether any part of a line lies in a region. */
export const touchesRegion = (line: Pick<Line, 'runs'>, region: Region): boolean =>
  line.runs.some(
    (r) => r.nodes.some((n) => regionHolds(region, n.point)) || cubicsOf(r).some((c) => touches(c, region)),
  );

/** Whether all of a line lies in a region. */
export const liesInRegion = (line: Pick<Line, 'runs'>, region: Region): boolean =>
  line.runs.every(
    (r) => r.nodes.every((n) => regionHolds(region, n.point)) && cubicsOf(r).every((c) => lies(c, region)),
  );

/** By halving until a piece lies inside or outside, or is a hair's breadth long. */
function touches(c: Cubic, region: Region): boolean {
  const hull = hullBox(c);
  if (!boxesMeet(hull, region.box)) return false;
  if (regionHolds(region, c[0]) || regionHolds(region, c[3])) return true;
  if (isSmall(hull)) return false;
  const [left, right] = splitAt(c, 0.5);
  return touches(left, region) || touches(right, region);
}

function lies(c: Cubic, region: Region): boolean {
  if (!regionHolds(region, c[0]) || !regionHolds(region, c[3])) return false;
  const hull = hullBox(c);
  if (isSmall(hull) || (!region.figure && holdsBox(region.box, hull))) return true;
  const [left, right] = splitAt(c, 0.5);
  return lies(left, region) && lies(right, region);
}

const isSmall = (b: Box): boolean => b.maxX - b.minX < HAIR && b.maxY - b.minY < HAIR;
const holdsBox = (a: Box, b: Box): boolean =>
  a.minX <= b.minX && a.minY <= b.minY && a.maxX >= b.maxX && a.maxY >= b.maxY;
