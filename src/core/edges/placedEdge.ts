import { placeAt, placesAlong } from '../geometry/along';
import type { Cubic } from '../geometry/cubic';
import { distance, type Point } from '../geometry/point';
import { smoothed } from '../geometry/smoothed';
import { edgePath } from './edgePath';
import type { LabPicture } from './labPicture';

/** A way over pixels is evened by this kernel, then the edge is looked for so far beside it, each so many px of the field. */
const EVEN = Array.from({ length: 8 }, (_, d) => Math.exp(-(d * d) / 18));
const ASIDE = 3.5;
const SPACING = 2;

/**
 * A way over pixels' middles (px of the picture, of which one of the field's stands for `by`) moved onto the edge beneath it,
 * between pixels; over what is lost it goes on straight. Ends stay near where they are.
 */
export function placedEdge(lab: LabPicture, way: readonly Point[], by: number): Point[] {
  const [x, y] = [
    smoothed(
      Float64Array.from(way, (p) => p.x),
      EVEN,
      false,
    ),
    smoothed(
      Float64Array.from(way, (p) => p.y),
      EVEN,
      false,
    ),
  ];
  const rough = Array.from(x, (v, i): Point => ({ x: v, y: y[i] })).filter(
    (p, i, all) => i === 0 || distance(p, all[i - 1]) > 1e-6,
  );
  const cubics = rough.slice(1).map((p, i): Cubic => [rough[i], rough[i], p, p]);
  if (cubics.length === 0) return rough;
  const places = placesAlong({ cubics, closed: false }, SPACING * by);
  const offset = places.n > 4 ? edgePath(lab, places, ASIDE * by, true) : null;
  if (!offset) return rough;
  return Array.from(offset, (o, i) => ({ o, i }))
    .filter(({ o, i }) => !Number.isNaN(o) || i === 0 || i === places.n - 1)
    .map(({ o, i }) => placeAt(places, i, Number.isNaN(o) ? 0 : o));
}
