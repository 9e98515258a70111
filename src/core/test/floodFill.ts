import type { CubicRun } from '../geometry/along';
import { evaluate, polygonLength } from '../geometry/cubic';
import type { Point } from '../geometry/point';

/** Hi-res pixels a px. */
export const FINE = 16;

/** An area as flooding finds it: its pixels, px², and the one that lies furthest from any line, with how far, px. */
export type Flooded = { readonly size: number; readonly deepest: Point; readonly depth: number };

/** The areas that lines bound in a square, by flooding what lies between lines one fine pixel wide. */
export function flooded(runs: readonly CubicRun[], closings: readonly [Point, Point][], side: number): Flooded[] {
  const n = (side + 2) * FINE;
  const walls = new Uint8Array(n * n);
  const mark = (p: Point): void => {
    const [x, y] = [Math.floor((p.x + 1) * FINE), Math.floor((p.y + 1) * FINE)];
    if (x >= 0 && y >= 0 && x < n && y < n) walls[y * n + x] = 1;
  };
  for (const { cubics } of runs)
    for (const c of cubics) {
      const steps = Math.ceil(4 * FINE * polygonLength(c));
      for (let i = 0; i <= steps; i++) mark(evaluate(c, i / steps));
    }
  for (const [a, b] of closings)
    for (let i = 0; i <= 800; i++) mark({ x: a.x + ((b.x - a.x) * i) / 800, y: a.y + ((b.y - a.y) * i) / 800 });
  const deep = depths(walls, n);
  const seen = walls.slice();
  const found: Flooded[] = [];
  for (let start = 0; start < n * n; start++) {
    if (seen[start]) continue;
    const stack = [start];
    seen[start] = 1;
    let [count, best, outside] = [0, start, false];
    while (stack.length > 0) {
      const i = stack.pop()!;
      const [x, y] = [i % n, Math.floor(i / n)];
      count++;
      if (deep[i] > deep[best]) best = i;
      if (x === 0 || y === 0 || x === n - 1 || y === n - 1) outside = true;
      for (const j of [x > 0 ? i - 1 : i, x < n - 1 ? i + 1 : i, y > 0 ? i - n : i, y < n - 1 ? i + n : i])
        if (!seen[j]) {
          seen[j] = 1;
          stack.push(j);
        }
    }
    if (outside) continue;
    const deepest = { x: ((best % n) + 0.5) / FINE - 1, y: (Math.floor(best / n) + 0.5) / FINE - 1 };
    found.push({ size: count / FINE ** 2, deepest, depth: deep[best] / FINE });
  }
  return found;
}

/** How far each pixel lies from the nearest wall, in steps over sides and corners (chamfer 3-4). */
function depths(walls: Uint8Array, n: number): Float32Array {
  const d = Float32Array.from(walls, (w) => (w ? 0 : 1e6));
  const pass = (order: (k: number) => number, near: [number, number][]): void => {
    for (let k = 0; k < n * n; k++) {
      const i = order(k);
      const x = i % n;
      for (const [offset, by] of near) {
        const j = i + offset;
        if (j < 0 || j >= n * n || Math.abs((j % n) - x) > 1) continue;
        if (d[j] + by < d[i]) d[i] = d[j] + by;
      }
    }
  };
  pass(
    (k) => k,
    [
      [-1, 1],
      [-n, 1],
      [-n - 1, 4 / 3],
      [-n + 1, 4 / 3],
    ],
  );
  pass(
    (k) => n * n - 1 - k,
    [
      [1, 1],
      [n, 1],
      [n + 1, 4 / 3],
      [n - 1, 4 / 3],
    ],
  );
  return d;
}
