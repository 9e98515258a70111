import { cubicsOf, skeletonBox, skeletonBoxOf } from '../drawing/run';
import type { Line } from '../drawing/schema';
import { isEmptyBox } from '../geometry/box';
import { placesAlong } from '../geometry/along';

/** What part a line plays in a drawing: its outer contour, a form within it, or a detail. */
export type Rank = 'outer' | 'inner' | 'detail';

/** Cells along the larger side of the drawing. */
const CELLS = 320;
/** Lines bar the way over gaps of about so many cells. */
const GAP = 2;
/** A line is outer that has the outside beside it over this share of its length. */
const OUTSIDE = 0.4;
/** A line within that is smaller than this share of the larger side is a detail. */
const SHORT = 0.14;

/**
 * The rank of each line by how they lie to each other: the outside is flooded from the drawing's rim, lines and small gaps
 * between them bar its way (Smith 1979, "Tint fill", on a grid of cells); outer lines have it beside them, of the others
 * the short ones are details.
 */
export function ranksOf(lines: readonly Line[]): Map<string, Rank> {
  const box = skeletonBoxOf(lines);
  if (isEmptyBox(box)) return new Map();
  const side = Math.max(box.maxX - box.minX, box.maxY - box.minY, 1e-6);
  const cell = side / CELLS;
  const margin = GAP + 3;
  const width = Math.ceil((box.maxX - box.minX) / cell) + 2 * margin + 1;
  const height = Math.ceil((box.maxY - box.minY) / cell) + 2 * margin + 1;
  const column = (x: number): number => Math.floor((x - box.minX) / cell) + margin;
  const row = (y: number): number => Math.floor((y - box.minY) / cell) + margin;
  const barred = new Uint8Array(width * height);
  const places = lines.map((l) =>
    l.runs.flatMap((run) => {
      const cubics = cubicsOf(run);
      if (cubics.length === 0) return [];
      const p = placesAlong({ cubics, closed: run.closed }, cell * 0.7);
      return Array.from(p.x, (x, i) => ({ x, y: p.y[i], nx: p.nx[i], ny: p.ny[i] }));
    }),
  );
  for (const { x, y } of places.flat()) {
    for (let dy = -GAP; dy <= GAP; dy++)
      for (let dx = -GAP; dx <= GAP; dx++)
        if (dx * dx + dy * dy <= GAP * GAP) barred[(row(y) + dy) * width + column(x) + dx] = 1;
  }
  const outside = flooded(barred, width, height);
  const beside = (GAP + 1.5) * cell;
  return new Map(
    lines.map((l, k): [string, Rank] => {
      const all = places[k];
      const out = all.filter(({ x, y, nx, ny }) =>
        [1, -1].some((s) => outside[row(y + s * beside * ny) * width + column(x + s * beside * nx)] === 1),
      );
      if (all.length > 0 && out.length >= OUTSIDE * all.length) return [l.id, 'outer'];
      const own = skeletonBox(l);
      const size = Math.max(own.maxX - own.minX, own.maxY - own.minY);
      return [l.id, size < SHORT * side ? 'detail' : 'inner'];
    }),
  );
}

/** The cells that can be come to from the first without crossing a barred one. */
function flooded(barred: Uint8Array, width: number, height: number): Uint8Array {
  const reached = new Uint8Array(width * height);
  const stack = [0];
  reached[0] = 1;
  while (stack.length > 0) {
    const at = stack.pop()!;
    const x = at % width;
    for (const next of [x > 0 ? at - 1 : -1, x < width - 1 ? at + 1 : -1, at - width, at + width]) {
      if (next < 0 || next >= width * height || reached[next] === 1 || barred[next] === 1) continue;
      reached[next] = 1;
      stack.push(next);
    }
  }
  return reached;
}
