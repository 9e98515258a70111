import type { Point } from './point';

/** Whether a place lies within a closed figure, by the crossings of a ray to the right (even-odd rule). */
export function isWithin(p: Point, figure: readonly Point[]): boolean {
  let within = false;
  figure.forEach((a, i) => {
    const b = figure[(i + 1) % figure.length];
    if (a.y > p.y !== b.y > p.y && p.x < a.x + ((p.y - a.y) / (b.y - a.y)) * (b.x - a.x)) within = !within;
  });
  return within;
}

/** How often a closed figure goes round a place, clockwise as y points down; 0 outside of it (the nonzero rule). */
export function windingAround(figure: readonly Point[], p: Point): number {
  let winding = 0;
  figure.forEach((a, i) => {
    const b = figure[(i + 1) % figure.length];
    if (a.y > p.y === b.y > p.y) return;
    if (p.x < a.x + ((p.y - a.y) / (b.y - a.y)) * (b.x - a.x)) winding += b.y > a.y ? 1 : -1;
  });
  return winding;
}
