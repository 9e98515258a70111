import type { Point } from '../geometry/point';
import type { Ink } from './inkMask';

/** How far along a stroke its direction is judged, in points to either side. */
const AHEAD = 4;

/**
 * Moves each point of a stroke across it to the middle of its ink: the centre of gravity of the ink along the normal,
 * within its own width. How dark the ink is counts only at its rim, for inside it tells of the paper's tooth. Points
 * where the ink is wider than the stroke (crossings) stay. The tooth's own waves are smoothed away.
 */
export function centred(points: readonly Point[], closed: boolean, ink: Ink, radius: Float32Array): Point[] {
  return smoothedAlong(moved(points, closed, ink, radius), closed);
}

/** Weights of a short kernel over the points before and after. */
const BELL = [0.26, 0.21, 0.11, 0.05];

function smoothedAlong(points: readonly Point[], closed: boolean): Point[] {
  const n = points.length;
  return points.map((p, i) => {
    // Towards an end the kernel shortens, so that the end stays where it is; around a corner too.
    const reach = Math.min(BELL.length - 1, closed ? Math.floor(n / 2) - 1 : Math.min(i, n - 1 - i));
    let [x, y, sum] = [BELL[0] * p.x, BELL[0] * p.y, BELL[0]];
    for (let k = 1; k <= reach; k++) {
      const [a, b] = [points[(i - k + n) % n], points[(i + k) % n]];
      x += BELL[k] * (a.x + b.x);
      y += BELL[k] * (a.y + b.y);
      sum += 2 * BELL[k];
    }
    return { x: x / sum, y: y / sum };
  });
}

function moved(points: readonly Point[], closed: boolean, ink: Ink, radius: Float32Array): Point[] {
  const n = points.length;
  const at = (i: number): Point => points[closed ? (i + n) % n : Math.max(0, Math.min(n - 1, i))];
  const typical = medianRadius(points, ink, radius);
  return points.map((p, i) => {
    const [a, b] = [at(i - AHEAD), at(i + AHEAD)];
    const length = Math.hypot(b.x - a.x, b.y - a.y);
    const own = radiusAt(p, ink, radius);
    if (length < 1e-9 || own > 1.6 * typical + 1 || own === 0) return p;
    const [nx, ny] = [-(b.y - a.y) / length, (b.x - a.x) / length];
    // The skeleton zigzags by half a pixel: the place is first taken from its neighbours.
    const middle = { x: (p.x + at(i - 1).x + at(i + 1).x) / 3, y: (p.y + at(i - 1).y + at(i + 1).y) / 3 };
    const reach = own + 1.5;
    let [sum, weighted] = [0, 0];
    for (let d = -reach; d <= reach; d += 0.5) {
      const v = darkAt(ink, middle.x + d * nx, middle.y + d * ny);
      sum += v;
      weighted += v * d;
    }
    if (sum <= 0) return middle;
    const shift = Math.max(-own, Math.min(own, weighted / sum));
    return { x: middle.x + shift * nx, y: middle.y + shift * ny };
  });
}

/** The mean width of the ink along a stroke, in px. */
export function meanWidth(points: readonly Point[], ink: Ink, radius: Float32Array): number {
  const typical = medianRadius(points, ink, radius);
  const own = points.map((p) => radiusAt(p, ink, radius)).filter((r) => r > 0 && r < 1.6 * typical + 1);
  if (own.length === 0) return Math.max(1, 2 * typical - 1);
  return Math.max(1, (2 * own.reduce((a, b) => a + b, 0)) / own.length - 1);
}

/** How far the ink's rim is from a place, px; 0 outside of the picture. */
export const radiusAt = (p: Point, { width, height }: Ink, radius: Float32Array): number => {
  const [x, y] = [Math.floor(p.x), Math.floor(p.y)];
  return x < 0 || y < 0 || x >= width || y >= height ? 0 : radius[y * width + x];
};

function medianRadius(points: readonly Point[], ink: Ink, radius: Float32Array): number {
  const all = points.map((p) => radiusAt(p, ink, radius)).filter((r) => r > 0);
  all.sort((a, b) => a - b);
  return all[all.length >> 1] ?? 1;
}

/** The darkness between four pixels, where there is ink. */
function darkAt({ width, height, dark, mask, rim }: Ink, x: number, y: number): number {
  const [px, py] = [x - 0.5, y - 0.5];
  const [l, t] = [Math.floor(px), Math.floor(py)];
  if (l < 0 || t < 0 || l + 1 >= width || t + 1 >= height) return 0;
  const i = t * width + l;
  const [fx, fy] = [px - l, py - t];
  const value = (j: number): number => (mask[j] ? Math.min(dark[j], rim) : 0);
  return (
    (value(i) * (1 - fx) + value(i + 1) * fx) * (1 - fy) +
    (value(i + width) * (1 - fx) + value(i + width + 1) * fx) * fy
  );
}
