import type { Box, Point } from '../geometry/point';
import type { Page } from './schema';

/** The guides of a page that lie along one axis. */
const guidesAlong = (page: Page, axis: 'x' | 'y'): number[] =>
  page.guides.filter((g) => g.axis === axis).map((g) => g.at);

/** The offset to the nearest of `targets` from any of `places`, where that is within `reach`. */
function nearestOffset(places: readonly number[], targets: readonly number[], reach: number): number | null {
  let best: number | null = null;
  for (const at of places) {
    for (const to of targets) {
      const by = to - at;
      if (Math.abs(by) <= reach && (best === null || Math.abs(by) < Math.abs(best))) best = by;
    }
  }
  return best;
}

/** The offset that draws one of `places` to a guide within `reach`; null where none is near. */
export const guideOffset = (page: Page, axis: 'x' | 'y', places: readonly number[], reach: number): number | null =>
  nearestOffset(places, guidesAlong(page, axis), reach);

/** The offset that draws one of `places` to the grid, where that is switched on and near; else 0. */
export function gridOffset(page: Page, places: readonly number[], reach: number): number {
  if (!page.grid.snap) return 0;
  const { spacing } = page.grid;
  const lines = places.map((at) => Math.round(at / spacing) * spacing);
  return nearestOffset(places, lines, reach) ?? 0;
}

/** The offset that draws one of `places` to a guide, or to the grid where no guide is near. */
const drawTo = (page: Page, axis: 'x' | 'y', places: readonly number[], reach: number): number =>
  guideOffset(page, axis, places, reach) ?? gridOffset(page, places, reach);

/**
 * A place drawn to the guides within `reach` page units of it, and to the grid where that is switched on; each
 * coordinate by itself, a guide before the grid. A place that nothing is near comes back as it is.
 */
export const snapped = (page: Page, p: Point, reach: number): Point => ({
  x: p.x + drawTo(page, 'x', [p.x], reach),
  y: p.y + drawTo(page, 'y', [p.y], reach),
});

/**
 * How far a box must go so that one of its sides, or its middle, lies on a guide or the grid within `reach`; each way
 * by itself, 0 where nothing is near.
 */
export const snapOfBox = (page: Page, b: Box, reach: number): Point => ({
  x: drawTo(page, 'x', [b.minX, (b.minX + b.maxX) / 2, b.maxX], reach),
  y: drawTo(page, 'y', [b.minY, (b.minY + b.maxY) / 2, b.maxY], reach),
});
