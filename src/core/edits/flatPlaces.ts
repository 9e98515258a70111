import { outlineBox, outlineHolds } from '../drawing/outline';
import { cubicsOf } from '../drawing/run';
import type { Flat, Line, Run } from '../drawing/schema';
import { hullBox } from '../geometry/bounds';
import { boxHolds, growBox } from '../geometry/box';
import { evaluate } from '../geometry/cubic';
import { nearestOnCubic } from '../geometry/nearest';
import { subtract, type Point } from '../geometry/point';
import type { Moved } from './movedLines';

/** A place of an outline this near to a line is of it, page units. */
const ON_LINE = 0.3;

/** How far the line that a place lay on has moved there; not at all where it lay on none of these. */
export function movedBy(moved: readonly Moved[], p: Point): Point {
  for (const { was, is } of moved) {
    const on = was && is && placeOn(was, p);
    if (!on) continue;
    const now = is?.runs[on.run];
    const isAlike = now && now.nodes.length === was.runs[on.run].nodes.length && now.closed === was.runs[on.run].closed;
    if (isAlike) return subtract(evaluate(cubicsOf(now)[on.segment], on.t), on.point);
  }
  return { x: 0, y: 0 };
}

/** The place of a line that a place of an outline lies on; null where it lies on none. */
function placeOn(line: Line, p: Point): { run: number; segment: number; t: number; point: Point } | null {
  for (const [run, r] of line.runs.entries())
    for (const [segment, c] of cubicsOf(r).entries()) {
      if (!boxHolds(growBox(hullBox(c), ON_LINE), p)) continue;
      const { t, point, distance } = nearestOnCubic(c, p);
      if (distance <= ON_LINE) return { run, segment, t, point };
    }
  return null;
}

const spread = new WeakMap<readonly Run[], Map<number, Point[]>>();

/** Places evenly spread in a flat; worked out once for each outline. */
export function placesIn({ runs }: Pick<Flat, 'runs'>, across: number): readonly Point[] {
  let known = spread.get(runs);
  if (!known) spread.set(runs, (known = new Map()));
  let places = known.get(across);
  if (!places) known.set(across, (places = spreadIn({ runs }, across)));
  return places;
}

function spreadIn(flat: Pick<Flat, 'runs'>, across: number): Point[] {
  const { minX, minY, maxX, maxY } = outlineBox(flat);
  const places: Point[] = [];
  for (let i = 0; i < across; i++)
    for (let k = 0; k < across; k++) {
      const p = { x: minX + ((i + 0.5) / across) * (maxX - minX), y: minY + ((k + 0.5) / across) * (maxY - minY) };
      if (outlineHolds(flat, p)) places.push(p);
    }
  return places;
}
