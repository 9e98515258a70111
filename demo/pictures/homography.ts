/** A plane seen from aside: x' = (a x + b y + c) / (g x + h y + 1), y' = (d x + e y + f) / (g x + h y + 1). */
export type Homography = readonly [number, number, number, number, number, number, number, number];

type XY = readonly [number, number];

/** The homography that takes four points to four others (the direct linear transform, solved by elimination). */
export function homographyBetween(from: readonly XY[], to: readonly XY[]): Homography {
  const rows = from.flatMap(([x, y], i) => {
    const [u, v] = to[i];
    return [
      [x, y, 1, 0, 0, 0, -u * x, -u * y, u],
      [0, 0, 0, x, y, 1, -v * x, -v * y, v],
    ];
  });
  for (let k = 0; k < 8; k++) {
    const pivot = rows.findIndex(
      (r, i) => i >= k && Math.abs(r[k]) === Math.max(...rows.slice(k).map((q) => Math.abs(q[k]))),
    );
    [rows[k], rows[pivot]] = [rows[pivot], rows[k]];
    for (let i = 0; i < 8; i++) {
      if (i === k) continue;
      const f = rows[i][k] / rows[k][k];
      for (let j = k; j < 9; j++) rows[i][j] -= f * rows[k][j];
    }
  }
  return rows.map((r, i) => r[8] / r[i]) as unknown as Homography;
}

export function mapPoint([a, b, c, d, e, f, g, h]: Homography, x: number, y: number): [number, number] {
  const w = g * x + h * y + 1;
  return [(a * x + b * y + c) / w, (d * x + e * y + f) / w];
}
