import type { Point } from '../geometry/point';

/** A loop no longer than this, px, was made by chance, where a way was led to and fro. */
const LONGEST = 90;

/** A way by places close to each other without the small loops in it: cut off where it crosses itself. */
export function withoutLoops(points: readonly Point[]): Point[] {
  const kept: Point[] = [];
  for (const p of points) {
    const last = kept.at(-1);
    if (last) {
      let length = Math.hypot(p.x - last.x, p.y - last.y);
      for (let k = kept.length - 2; k > 0 && length < LONGEST; k--) {
        const [a, b] = [kept[k - 1], kept[k]];
        length += Math.hypot(kept[k + 1].x - b.x, kept[k + 1].y - b.y);
        const at = crossing(a, b, last, p);
        if (!at) continue;
        kept.length = k;
        kept.push(at);
        break;
      }
    }
    kept.push(p);
  }
  return kept;
}

/** Where two straight stretches cross; null where they do not. */
function crossing(a: Point, b: Point, c: Point, d: Point): Point | null {
  const [ux, uy, vx, vy] = [b.x - a.x, b.y - a.y, d.x - c.x, d.y - c.y];
  const turn = ux * vy - uy * vx;
  if (Math.abs(turn) < 1e-9) return null;
  const s = ((c.x - a.x) * vy - (c.y - a.y) * vx) / turn;
  const t = ((c.x - a.x) * uy - (c.y - a.y) * ux) / turn;
  return s >= 0 && s <= 1 && t >= 0 && t <= 1 ? { x: a.x + s * ux, y: a.y + s * uy } : null;
}
