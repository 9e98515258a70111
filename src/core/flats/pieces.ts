import { hullBox } from '../geometry/bounds';
import { boxesMeet } from '../geometry/box';
import { evaluate, type Cubic } from '../geometry/cubic';
import type { Box } from '../geometry/point';
import { Pieces, type Vertices } from './grid';

const MOST_PIECES = 512;

/** So many pieces follow a cubic within `tolerance`: its second derivative bounds how far chords stray from it. */
function piecesOf([a, b, c, d]: Cubic, tolerance: number): number {
  const first = Math.hypot(a.x - 2 * b.x + c.x, a.y - 2 * b.y + c.y);
  const second = Math.hypot(b.x - 2 * c.x + d.x, b.y - 2 * c.y + d.y);
  const n = Math.ceil(Math.sqrt((6 * Math.max(first, second)) / (8 * tolerance)));
  return Math.max(1, Math.min(MOST_PIECES, n || 1));
}

/**
 * Curves as chains of straight pieces within `tolerance` of them, cut evenly, so that a curve and the same one the other
 * way give the same; a curve that is no longer than a step of the grid gives none, and with `within` one that lies outside.
 */
export function straightPieces(
  curves: readonly Cubic[],
  vertices: Vertices,
  tolerance: number,
  within: Box | null,
): Pieces {
  const pieces = new Pieces();
  curves.forEach((c, source) => {
    if (within && !boxesMeet(hullBox(c), within)) return;
    const n = piecesOf(c, tolerance);
    let from = vertices.at(c[0], true);
    let t0 = 0;
    for (let i = 1; i <= n; i++) {
      const t1 = i / n;
      const to = i === n ? vertices.at(c[3], true) : vertices.at(evaluate(c, t1));
      if (to === from) continue;
      pieces.add(from, to, source, t0, t1);
      from = to;
      t0 = t1;
    }
  });
  return pieces;
}
