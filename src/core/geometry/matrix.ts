import type { Point } from './point';

/** An affine map, as in SVG: x' = a x + c y + e, y' = b x + d y + f. */
export type Matrix = { a: number; b: number; c: number; d: number; e: number; f: number };

export const identity: Matrix = { a: 1, b: 0, c: 0, d: 1, e: 0, f: 0 };
export const moving = (by: Point): Matrix => ({ ...identity, e: by.x, f: by.y });

/** First `n`, then `m`. */
export const times = (m: Matrix, n: Matrix): Matrix => ({
  a: m.a * n.a + m.c * n.b,
  b: m.b * n.a + m.d * n.b,
  c: m.a * n.c + m.c * n.d,
  d: m.b * n.c + m.d * n.d,
  e: m.a * n.e + m.c * n.f + m.e,
  f: m.b * n.e + m.d * n.f + m.f,
});

/** The map about a place that stays where it is. */
const about = (at: Point, m: Matrix): Matrix => times(moving(at), times(m, moving({ x: -at.x, y: -at.y })));

export const scalingAbout = (at: Point, x: number, y: number): Matrix => about(at, { ...identity, a: x, d: y });

/** A turn in degrees, clockwise as y points down. */
export function turningAbout(at: Point, degrees: number): Matrix {
  const a = (degrees * Math.PI) / 180;
  return about(at, { a: Math.cos(a), b: Math.sin(a), c: -Math.sin(a), d: Math.cos(a), e: 0, f: 0 });
}

/** A slant: upright lines lean by `x` degrees, level ones by `y`. */
export const skewingAbout = (at: Point, x: number, y: number): Matrix =>
  about(at, { ...identity, b: Math.tan((y * Math.PI) / 180), c: Math.tan((x * Math.PI) / 180) });

export const mapPoint = (m: Matrix, p: Point): Point => ({
  x: m.a * p.x + m.c * p.y + m.e,
  y: m.b * p.x + m.d * p.y + m.f,
});
export const mapOffset = (m: Matrix, p: Point): Point => ({ x: m.a * p.x + m.c * p.y, y: m.b * p.x + m.d * p.y });

/** How much lengths grow on the whole: the root of how much areas do. */
export const growthOf = (m: Matrix): number => Math.sqrt(Math.abs(m.a * m.d - m.b * m.c));

/** The map that takes back one that flattens nothing. */
export function inverseOf({ a, b, c, d, e, f }: Matrix): Matrix {
  const k = a * d - b * c;
  return { a: d / k, b: -b / k, c: -c / k, d: a / k, e: (c * f - d * e) / k, f: (b * e - a * f) / k };
}

/** How much more a map stretches one way than another: its larger singular value by its smaller. */
export function anisotropyOf({ a, b, c, d }: Matrix): number {
  const [e, f, g, h] = [(a + d) / 2, (a - d) / 2, (b + c) / 2, (b - c) / 2];
  const [q, r] = [Math.hypot(e, h), Math.hypot(f, g)];
  return Math.abs(q - r) < 1e-12 ? Infinity : (q + r) / Math.abs(q - r);
}
