import { outlineBox } from '../drawing/outline';
import { isOnGrid } from '../drawing/grid';
import type { Flat } from '../drawing/item';
import type { Drawing } from '../drawing/schema';
import { growBox, joinBoxes, movedBox } from '../geometry/box';
import { indexOfBoxes } from '../geometry/boxIndex';
import { subtract, type Point } from '../geometry/point';
import { boundsOf, boundsOfLine } from './flats';
import type { Moved } from './movedLines';

/** Places differ by no more than this, page units. */
const SAME = 1e-6;

/**
 * The flats that go along with lines which have all been moved by one offset, and have none near them that stayed: nothing
 * else becomes of them. Null where lines were not moved so.
 */
export function carriedFlats(
  after: Drawing,
  moved: readonly Moved[],
  flats: readonly Flat[],
): { by: Point; flats: Flat[] } | null {
  const by = offsetOf(moved);
  if (!by || !isOnGrid(by.x) || !isOnGrid(by.y)) return null;
  const own = new Set(moved.flatMap(({ is }) => boundsOfLine(is!)));
  const stay = boundsOf(after, []).filter((b) => !own.has(b));
  const index = stay.length > 0 ? indexOfBoxes(stay.map((b) => b.box)) : null;
  const carried = flats.filter((f) => {
    const box = outlineBox(f);
    const { minX, minY, maxX, maxY } = growBox(joinBoxes(box, movedBox(box, by)), f.gap + 1);
    return !index?.collides(minX, minY, maxX, maxY);
  });
  return carried.length > 0 ? { by, flats: carried } : null;
}

/** The offset by which all nodes of all lines have moved; null where they differ. */
function offsetOf(moved: readonly Moved[]): Point | null {
  let by: Point | null = null;
  for (const { was, is } of moved) {
    if (!was || was.runs.length !== is?.runs.length) return null;
    for (const [r, run] of was.runs.entries()) {
      const now = is.runs[r].nodes;
      if (now.length !== run.nodes.length || run.closed !== is.runs[r].closed) return null;
      for (const [i, { point, in: back, out }] of run.nodes.entries()) {
        const own = subtract(now[i].point, point);
        by ??= own;
        if (!isNear(own, by) || !isNear(now[i].in, back) || !isNear(now[i].out, out)) return null;
      }
    }
  }
  return by;
}

const isNear = (a: Point | null, b: Point | null): boolean =>
  a === b || (!!a && !!b && Math.abs(a.x - b.x) < SAME && Math.abs(a.y - b.y) < SAME);
