import { assertPoint, type Point } from '../geometry/point';
import type { PlaneMap } from './warp';

/**
 * What a lens bends, by the division model with one parameter (Fitzgibbon 2001): a place at distance r from the picture's middle
 * belongs at r / (1 + k r²), r = 1 at the corners. Below 0 the picture bulges (straight lines bow outwards), above 0 it is
 * drawn in. Under it a straight line is seen as an arc of a circle.
 */

type Size = { width: number; height: number };

export const LEAST_BEND = -0.4;
export const MOST_BEND = 0.6;

const halfDiagonal = ({ width, height }: Size): number => Math.hypot(width, height) / 2;

/** Where a place of a bent picture belongs, both in px from its middle; `half` is half its diagonal. */
function straightened(x: number, y: number, k: number, half: number): Point {
  const by = 1 / (1 + (k * (x * x + y * y)) / (half * half));
  return { x: x * by, y: y * by };
}

/** The size of a picture with its lens's bend taken out: nothing is cut off, and its middle stays as large as it is. */
export function unbentSize({ width, height }: Size, k: number): Size {
  const [x, y, half] = [width / 2, height / 2, halfDiagonal({ width, height })];
  // Bulging, the corners come to lie furthest out; drawn in, the middles of the sides.
  return {
    width: 2 * straightened(x, k < 0 ? y : 0, k, half).x,
    height: 2 * straightened(k < 0 ? x : 0, y, k, half).y,
  };
}

/** For each place of the straightened picture where it is found in the bent one. */
export function lensMap(from: Size, to: Size, k: number): PlaneMap {
  const half = halfDiagonal(from);
  const [cx, cy, tx, ty] = [from.width / 2, from.height / 2, to.width / 2, to.height / 2];
  // Solved for the bent radius r: k u r² − r + u = 0, with u the straight one; written so that k = 0 needs no care.
  const stretch = (u2: number): number => {
    const root = 1 - 4 * k * u2;
    return root < 0 ? NaN : 2 / (1 + Math.sqrt(root));
  };
  return {
    place(x, y, out) {
      const [u, v] = [x - tx, y - ty];
      const s = stretch((u * u + v * v) / (half * half));
      out[0] = cx + u * s;
      out[1] = cy + v * s;
    },
    // Along the radius, where it is largest: dr/du = s / √(1 − 4 k u²) by the rule for implicit functions.
    spanAt(x, y) {
      const u2 = ((x - tx) ** 2 + (y - ty) ** 2) / (half * half);
      const s = stretch(u2);
      return Math.max(s, (s * s) / Math.max(0.05, 1 - k * s * s * u2));
    },
  };
}

/** A line tells how a lens bends only if a bend of so much more would bend it by so many px. */
const TELLING = 0.05;
const TOLD = 0.3;
/** Places further off than so many median residuals are not of the line. */
const OUTLIER = 3.5;
const TRIMMING = 6;
const GRID = 50;
const ROUNDS = 40;

/**
 * How a lens bent a picture, from places (px) along lines that should be straight: the parameter under which they are
 * straightest (least squares about each line's own direction, places that stray left out). Null where they cannot tell: all
 * too short, or through the middle. @throws RangeError for a line of fewer than three places, or one that is not finite.
 */
export function lensBend(lines: readonly (readonly Point[])[], size: Size): number | null {
  for (const line of lines) {
    if (line.length < 3) throw new RangeError('a line needs at least three places');
    line.forEach((p) => assertPoint(p, 'a place'));
  }
  // Least squares are drawn towards what strays: the straightest is looked for again without it, until it stays.
  let [k, kept] = [straightest(lines, size), lines];
  for (let round = 0; round < TRIMMING; round++) {
    kept = lines.map((line) => withoutStray(line, size, k)).filter((line) => line.length >= 3);
    k = straightest(kept, size);
  }
  const isTelling = kept.some((line) => {
    const [is, would] = [residuals(line, size, k), residuals(line, size, k + TELLING)];
    return rootMeanSquare(would.map((r, i) => r - is[i])) > TOLD;
  });
  return isTelling ? k : null;
}

function straightest(lines: readonly (readonly Point[])[], size: Size): number {
  const cost = (k: number): number =>
    lines.reduce((sum, line) => sum + residuals(line, size, k).reduce((s, r) => s + r * r, 0), 0);
  const step = (MOST_BEND - LEAST_BEND) / GRID;
  const costs = Array.from({ length: GRID + 1 }, (_, i) => cost(LEAST_BEND + i * step));
  const best = LEAST_BEND + costs.indexOf(Math.min(...costs)) * step;
  // Golden section (Kiefer 1953).
  const golden = (Math.sqrt(5) - 1) / 2;
  let [low, high] = [Math.max(LEAST_BEND, best - step), Math.min(MOST_BEND, best + step)];
  for (let i = 0; i < ROUNDS; i++) {
    const [a, b] = [high - golden * (high - low), low + golden * (high - low)];
    if (cost(a) < cost(b)) high = b;
    else low = a;
  }
  return (low + high) / 2;
}

/** A line without the places that stray: with the direction, too, of those that do not. */
function withoutStray(line: readonly Point[], size: Size, k: number): readonly Point[] {
  let kept = line;
  for (let round = 0; round < TRIMMING; round++) {
    const off = residuals(line, size, k, kept).map(Math.abs);
    const median = off.toSorted((a, b) => a - b)[off.length >> 1];
    kept = line.filter((_, i) => off[i] <= Math.max(0.5, OUTLIER * median));
  }
  return kept;
}

/**
 * How far a line's places lie from the straight line through them (or through some others) once the bend is taken out, in px of
 * the bent picture.
 */
function residuals(line: readonly Point[], size: Size, k: number, through = line): number[] {
  const half = halfDiagonal(size);
  const belonging = (p: Point): Point => straightened(p.x - size.width / 2, p.y - size.height / 2, k, half);
  const guides = through.map(belonging);
  const x = guides.reduce((sum, p) => sum + p.x, 0) / guides.length;
  const y = guides.reduce((sum, p) => sum + p.y, 0) / guides.length;
  let [xx, xy, yy] = [0, 0, 0];
  for (const p of guides) {
    xx += (p.x - x) ** 2;
    xy += (p.x - x) * (p.y - y);
    yy += (p.y - y) ** 2;
  }
  const angle = Math.atan2(2 * xy, xx - yy) / 2;
  const [nx, ny] = [-Math.sin(angle), Math.cos(angle)];
  // Else whatever makes all smaller would make all straighter.
  const scale = chord(through) / (chord(guides) || 1);
  return line.map(belonging).map((p) => ((p.x - x) * nx + (p.y - y) * ny) * scale);
}

const chord = (line: readonly Point[]): number => Math.hypot(line.at(-1)!.x - line[0].x, line.at(-1)!.y - line[0].y);

const rootMeanSquare = (values: readonly number[]): number =>
  Math.sqrt(values.reduce((s, v) => s + v * v, 0) / Math.max(1, values.length));
