import type { Cubic } from './cubic';
import type { Point } from './point';

/**
 * An arc of an upright ellipse as cubics of at most a quarter turn each, which lie within 0.03 % of its radius
 * (Goldapp 1991; the usual handle of 4/3 tan(a/4)). Angles in radians, clockwise as y points down; `sweep` may be
 * negative, and is at most a whole turn.
 */
export function arcCubics(middle: Point, rx: number, ry: number, start: number, sweep: number): Cubic[] {
  const count = Math.max(1, Math.ceil(Math.abs(sweep) / (Math.PI / 2) - 1e-9));
  const step = sweep / count;
  const k = (4 / 3) * Math.tan(step / 4);
  const at = (a: number): Point => ({ x: middle.x + rx * Math.cos(a), y: middle.y + ry * Math.sin(a) });
  return Array.from({ length: count }, (_, i): Cubic => {
    const [a, b] = [start + i * step, start + (i + 1) * step];
    const [p, q] = [at(a), at(b)];
    return [
      p,
      { x: p.x - k * rx * Math.sin(a), y: p.y + k * ry * Math.cos(a) },
      { x: q.x + k * rx * Math.sin(b), y: q.y - k * ry * Math.cos(b) },
      q,
    ];
  });
}
