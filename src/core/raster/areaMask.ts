import type { Point } from '../geometry/point';

/** The pixels of a picture whose middles lie in an area: a mask over a window of the picture, in whole pixels. */
export type AreaMask = {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  /** Row by row, 1 within the area. */
  readonly mask: Uint8Array;
};

/**
 * The part of a picture of some size that outlines enclose (even-odd; px, as polygons); null where none of it lies in the
 * picture. `margin` widens the window by so many pixels where the picture goes on.
 */
export function areaMask(
  size: { width: number; height: number },
  outlines: readonly (readonly Point[])[],
  margin = 0,
): AreaMask | null {
  const xs = outlines.flatMap((o) => o.map((p) => p.x));
  const ys = outlines.flatMap((o) => o.map((p) => p.y));
  const least = (values: readonly number[]): number => values.reduce((a, b) => Math.min(a, b), Infinity);
  const most = (values: readonly number[]): number => values.reduce((a, b) => Math.max(a, b), -Infinity);
  const [x, y] = [Math.max(0, Math.floor(least(xs)) - margin), Math.max(0, Math.floor(least(ys)) - margin)];
  const width = Math.min(size.width, Math.ceil(most(xs)) + margin) - x;
  const height = Math.min(size.height, Math.ceil(most(ys)) + margin) - y;
  if (!(width > 0 && height > 0)) return null;
  const mask = new Uint8Array(width * height);
  const crossings = Array.from({ length: height }, (): number[] => []);
  for (const outline of outlines)
    outline.forEach((a, i) => {
      const b = outline[(i + 1) % outline.length];
      const [from, to] = a.y < b.y ? [a, b] : [b, a];
      const first = Math.max(0, Math.ceil(from.y - y - 0.5));
      const last = Math.min(height - 1, Math.ceil(to.y - y - 0.5) - 1);
      for (let row = first; row <= last; row++)
        crossings[row].push(from.x + ((row + 0.5 + y - from.y) / (to.y - from.y)) * (to.x - from.x) - x);
    });
  let isAny = false;
  crossings.forEach((row, r) => {
    row.sort((a, b) => a - b);
    for (let k = 0; k + 1 < row.length; k += 2) {
      const [from, to] = [Math.max(0, Math.ceil(row[k] - 0.5)), Math.min(width, Math.ceil(row[k + 1] - 0.5))];
      if (to > from) isAny = true;
      mask.fill(1, r * width + from, r * width + Math.max(from, to));
    }
  });
  return isAny ? { x, y, width, height, mask } : null;
}
