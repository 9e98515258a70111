import type { Cubic } from './cubic';
import type { Point } from './point';

/**
 * An arc of an upright ellipse as cubics of at most a quarter turn each, which lie within 0.03 % of its radius
 * (Goldapp 1991; the usual handle of 4/3 tan(a/4)). Angles in radians, clockwise as y points down; `sweep` may be
 * negative, and is at most a whole turn. As many cubics as keep within `tolerance`: the error grows with the sixth power
 * of the angle.
 */
export function arcCubics(
  middle: Point,
  rx: number,
  ry: number,
  start: number,
  sweep: number,
  tolerance = Infinity,
): Cubic[] {
  const widest = (Math.PI / 2) * Math.min(1, (tolerance / (2.8e-4 * Math.max(rx, ry, 1e-9))) ** (1 / 6));
  const count = Math.max(1, Math.ceil(Math.abs(sweep) / widest - 1e-9));
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
