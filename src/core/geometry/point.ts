/** A place, or an offset between two places, in page units (CSS px, 96 to the inch; y points down). */
export type Point = { x: number; y: number };

/** An axis-aligned box in page units. */
export type Box = { minX: number; minY: number; maxX: number; maxY: number };

export const point = (x: number, y: number): Point => ({ x, y });
export const add = (a: Point, b: Point): Point => ({ x: a.x + b.x, y: a.y + b.y });
export const subtract = (a: Point, b: Point): Point => ({ x: a.x - b.x, y: a.y - b.y });
export const scale = (a: Point, k: number): Point => ({ x: a.x * k, y: a.y * k });
export const dot = (a: Point, b: Point): number => a.x * b.x + a.y * b.y;
export const cross = (a: Point, b: Point): number => a.x * b.y - a.y * b.x;
// As `Math.hypot` without its care for figures beyond 1e150, which takes it many times as long.
export const lengthOf = (a: Point): number => Math.sqrt(a.x * a.x + a.y * a.y);
export const distance = (a: Point, b: Point): number =>
  Math.sqrt((a.x - b.x) * (a.x - b.x) + (a.y - b.y) * (a.y - b.y));
export const samePoint = (a: Point, b: Point): boolean => a.x === b.x && a.y === b.y;

/** The point a share `t` of the way from `a` to `b`. Exact at both ends. */
export const mix = (a: Point, b: Point, t: number): Point => ({
  x: a.x * (1 - t) + b.x * t,
  y: a.y * (1 - t) + b.y * t,
});

/** The vector of length 1 along `a`, or null for a vector too short to have a direction. */
export function unit(a: Point): Point | null {
  const l = lengthOf(a);
  return l > 1e-12 ? { x: a.x / l, y: a.y / l } : null;
}

/**
 * Turns an offset to the nearest multiple of `step` degrees, its length kept.
 * The zero offset comes back as it is.
 */
export function snapDirection(offset: Point, step: number): Point {
  const l = lengthOf(offset);
  if (l === 0) return offset;
  const unitAngle = (step * Math.PI) / 180;
  const angle = Math.round(Math.atan2(offset.y, offset.x) / unitAngle) * unitAngle;
  return { x: l * Math.cos(angle), y: l * Math.sin(angle) };
}

/** @throws RangeError naming `what` when a coordinate is not a finite number. */
export function assertPoint(p: Point, what: string): void {
  if (!Number.isFinite(p?.x) || !Number.isFinite(p?.y)) {
    throw new RangeError(`${what} must have finite coordinates`);
  }
}
