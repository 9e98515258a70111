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
