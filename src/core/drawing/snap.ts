import type { Point } from '../geometry/point';
import type { Page } from './schema';

/**
 * A place drawn to the guides within `reach` page units of it, and to the grid where that is switched on; each
 * coordinate by itself, a guide before the grid. A place that nothing is near comes back as it is.
 */
export function snapped(page: Page, p: Point, reach: number): Point {
  const along = (axis: 'x' | 'y'): number => {
    const near = page.guides
      .filter((g) => g.axis === axis)
      .map((g) => g.at)
      .filter((at) => Math.abs(at - p[axis]) <= reach)
      .sort((a, b) => Math.abs(a - p[axis]) - Math.abs(b - p[axis]));
    if (near.length > 0) return near[0];
    if (!page.grid.snap) return p[axis];
    const line = Math.round(p[axis] / page.grid.spacing) * page.grid.spacing;
    return Math.abs(line - p[axis]) <= reach ? line : p[axis];
  };
  return { x: along('x'), y: along('y') };
}
