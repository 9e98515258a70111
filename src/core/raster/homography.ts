import type { Point } from '../geometry/point';

/** A plane seen from aside: x' = (a x + b y + c) / (g x + h y + 1), y' = (d x + e y + f) / (g x + h y + 1). */
export type Homography = readonly [number, number, number, number, number, number, number, number];

/**
 * The homography that takes four points to four others (the direct linear transform: Hartley and Zisserman 2003,
 * chapter 4; eight equations, solved by elimination with pivoting).
 * @throws RangeError when three of the points lie on one line.
 */
export function homographyBetween(from: readonly Point[], to: readonly Point[]): Homography {
  const rows = from.flatMap(({ x, y }, i) => {
    const { x: u, y: v } = to[i];
    return [
      [x, y, 1, 0, 0, 0, -u * x, -u * y, u],
      [0, 0, 0, x, y, 1, -v * x, -v * y, v],
    ];
  });
  const scale = Math.max(1, ...from.flatMap((p) => [Math.abs(p.x), Math.abs(p.y)]));
  for (let k = 0; k < 8; k++) {
    let pivot = k;
    for (let i = k; i < 8; i++) if (Math.abs(rows[i][k]) > Math.abs(rows[pivot][k])) pivot = i;
    if (!(Math.abs(rows[pivot][k]) > 1e-12 * scale)) throw new RangeError('three of the four corners lie on one line');
    [rows[k], rows[pivot]] = [rows[pivot], rows[k]];
    for (let i = 0; i < 8; i++) {
      if (i === k) continue;
      const f = rows[i][k] / rows[k][k];
      for (let j = k; j < 9; j++) rows[i][j] -= f * rows[k][j];
    }
  }
  return rows.map((r, i) => r[8] / r[i]) as unknown as Homography;
}

export function mapPoint([a, b, c, d, e, f, g, h]: Homography, { x, y }: Point): Point {
  const w = g * x + h * y + 1;
  return { x: (a * x + b * y + c) / w, y: (d * x + e * y + f) / w };
}

/** The corners of a box of this size, from the upper left one on, clockwise. */
export const cornersOfBox = (width: number, height: number): [Point, Point, Point, Point] => [
  { x: 0, y: 0 },
  { x: width, y: 0 },
  { x: width, y: height },
  { x: 0, y: height },
];
