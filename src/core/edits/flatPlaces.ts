import { outlineBox, outlineHolds } from '../drawing/outline';
import { cubicsOf, nearestOnLine } from '../drawing/run';
import type { Flat } from '../drawing/schema';
import { evaluate } from '../geometry/cubic';
import { subtract, type Point } from '../geometry/point';
import type { Moved } from './movedLines';

/** A place of an outline this near to a line is of it, page units. */
const ON_LINE = 0.3;

/** How far the line that a place lay on has moved there; not at all where it lay on none of these. */
export function movedBy(moved: readonly Moved[], p: Point): Point {
  for (const { was, is } of moved) {
    const on = was && is && nearestOnLine(was, p);
    if (!on || on.distance > ON_LINE) continue;
    const now = is?.runs[on.run];
    const isAlike = now && now.nodes.length === was.runs[on.run].nodes.length && now.closed === was.runs[on.run].closed;
    if (isAlike) return subtract(evaluate(cubicsOf(now)[on.segment], on.t), on.point);
  }
  return { x: 0, y: 0 };
}

/** Places evenly spread in a flat. */
export function placesIn(flat: Flat, across: number): Point[] {
  const { minX, minY, maxX, maxY } = outlineBox(flat);
  const places: Point[] = [];
  for (let i = 0; i < across; i++)
    for (let k = 0; k < across; k++) {
      const p = { x: minX + ((i + 0.5) / across) * (maxX - minX), y: minY + ((k + 0.5) / across) * (maxY - minY) };
      if (outlineHolds(flat, p)) places.push(p);
    }
  return places;
}
