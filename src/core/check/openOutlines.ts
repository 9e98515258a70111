import { labPictureOf, fieldScale } from '../edges/labPicture';
import { placedEdge } from '../edges/placedEdge';
import { strongOutlines } from '../edges/strongOutlines';
import type { Picture } from '../colour/picture';
import type { Cubic } from '../geometry/cubic';
import { fitCurve } from '../geometry/fit/fitCurve';
import type { Point } from '../geometry/point';
import type { CoverCount } from './coverCount';

/** A stretch of a photo's outline that no line has: px of the picture, and the place that names the whole outline. */
export type OpenStretch = { readonly points: readonly Point[]; readonly name: string };

/** Shorter stretches are left, px of the field; and gaps between lines no longer than this are none. */
const SHORTEST = 24;

/** The stretches of a photo's strong outlines that no line has, the longest and clearest first. */
export function openStretches(image: Picture, count: CoverCount): OpenStretch[] {
  const found: (OpenStretch & { weight: number })[] = [];
  for (const { points, clear } of strongOutlines(image)) {
    const first = points[0];
    const name = `${Math.round(first.x)} ${Math.round(first.y)} ${points.length}`;
    let own: Point[] = [];
    const end = (): void => {
      if (own.length >= SHORTEST) found.push({ points: own, name, weight: own.length * Math.min(20, clear) });
      own = [];
    };
    for (const p of points) {
      if (count.isOpen(Math.floor(p.y) * image.width + Math.floor(p.x))) own.push(p);
      else end();
    }
    end();
  }
  return found.sort((a, b) => b.weight - a.weight);
}

/** Few curves along a stretch of an outline, px of the picture. */
export function curvesAlong(image: Picture, points: readonly Point[]): Cubic[] {
  const placed = placedEdge(labPictureOf(image), points, fieldScale(image));
  return fitCurve(placed, { tolerance: 1 });
}
