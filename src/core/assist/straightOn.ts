import { add, distance, dot, scale, subtract, unit, type Point } from '../geometry/point';
import { radiusAt } from './centreLine';
import type { Ink } from './inkMask';

/** Ink this much wider than the stroke is around there (half-widths, and px) is more than the stroke alone. */
const WIDER = 1.2;
const ROUGH = 0.5;
/** The stroke's own half-width: so much of it is narrower, of so many points to either side. */
const NARROWER = 0.3;
const AROUND = 70;
/** Looked at for so many points together. */
const COARSE = 12;
/** So many points to either side of such a place lean to the other stroke already. */
const LEAN = 5;
/** A hand that points at the end of a stroke is this sure, px. */
const AIM = 4;
/** The direction of a stroke is judged over so many points. */
const JUDGED = 18;
/** A stroke that turns by more than this over such a place has a corner there (the cosine). */
const TURNS = Math.cos((50 * Math.PI) / 180);

/**
 * A way along a stroke, its points about a px apart, led straight on where it crosses or touches another: there the middle
 * of the ink is that of both. Between the places where the ink is the stroke's own again, it runs as a cubic in their
 * directions (Hermite).
 */
export function straightOn(points: readonly Point[], ink: Ink, radius: Float32Array): Point[] {
  const n = points.length;
  const widths = smoothed(points.map((p) => radiusAt(p, ink, radius)));
  const every = Math.ceil(n / Math.ceil(n / COARSE));
  const usuals = Array.from({ length: Math.ceil(n / every) }, (_, k) => usual(widths, k * every + (every >> 1)));
  const isOwn = widths.map((w, k) => w <= WIDER * usuals[Math.floor(k / every)] + ROUGH);
  const result: Point[] = [];
  let i = 0;
  while (i < n) {
    if (isOwn[i]) {
      result.push(points[i++]);
      continue;
    }
    let j = i;
    while (j < n && !isOwn[j]) j++;
    const [a, b] = [Math.max(0, i - 1 - LEAN), Math.min(n - 1, j + LEAN)];
    let back = i > LEAN + 4 ? directionAt(points, a - JUDGED, a) : null;
    let ahead = j < n - LEAN - 4 ? directionAt(points, b, b + JUDGED) : null;
    // Wide at one end: from the other side it runs on in an arc to where the end is.
    const end = j === n && back ? onRay(points[a], back, points[b]) : points[b];
    const chord = unit(subtract(end, points[a]));
    if (chord && ahead && i === 0) back = mirrored(ahead, chord);
    if (chord && back && j === n) ahead = mirrored(back, chord);
    if (!back || !ahead || dot(back, ahead) < TURNS) {
      while (i < j) result.push(points[i++]);
      continue;
    }
    // Back to the place that the bridge sets out from.
    result.length = Math.min(result.length, a);
    result.push(
      ...(i === 0 ? [points[0]] : []),
      ...(i > 0 ? [points[a]] : []),
      ...onRim(bridge(points[a], back, end, ahead), usuals[Math.floor(a / every)], ink),
    );
    i = b;
    if (j === n) {
      result.push(end);
      i++;
    }
  }
  return result;
}

/** The place of a ray nearest to one that lies about on it: where a stroke ends in another, it has come straight. */
function onRay(from: Point, direction: Point, p: Point): Point {
  const foot = add(from, scale(direction, dot(subtract(p, from), direction)));
  return distance(foot, p) <= AIM ? foot : p;
}

/** The direction in which an arc over a chord ends that sets out in another, or the other way round. */
const mirrored = (direction: Point, chord: Point): Point =>
  subtract(scale(chord, 2 * dot(direction, chord)), direction);

function directionAt(points: readonly Point[], from: number, to: number): Point | null {
  const [a, b] = [points[Math.max(0, from)], points[Math.min(points.length - 1, to)]];
  return a && b ? unit(subtract(b, a)) : null;
}

/** Places between two, a px apart, along the cubic that leaves and comes in given directions. */
function bridge(a: Point, leaving: Point, b: Point, coming: Point): Point[] {
  const length = distance(a, b);
  const [p, q] = [add(a, scale(leaving, length / 3)), subtract(b, scale(coming, length / 3))];
  const count = Math.max(1, Math.round(length));
  return Array.from({ length: count - 1 }, (_, k) => {
    const t = (k + 1) / count;
    const s = 1 - t;
    const at = (x: 'x' | 'y'): number =>
      s * s * s * a[x] + 3 * s * s * t * p[x] + 3 * s * t * t * q[x] + t * t * t * b[x];
    return { x: at('x'), y: at('y') };
  });
}

/** A rim this near to where the stroke's own would be is taken for it, px. */
const RIM_REACH = 2.4;
const STEP = 0.5;

/**
 * Places of a bridge moved across so that the rim of the ink lies as far off as the stroke is wide, on the side where
 * that is its own rim: over a shallow crossing one side is free most of the way.
 */
function onRim(places: readonly Point[], half: number, ink: Ink): Point[] {
  if (places.length < 3) return [...places];
  const normals = places.map((_, i) => {
    const direction = unit(subtract(places[Math.min(places.length - 1, i + 1)], places[Math.max(0, i - 1)]));
    return direction ? { x: -direction.y, y: direction.x } : { x: 0, y: 0 };
  });
  const shifts = places.map((p, i) => {
    const offs = [1, -1].flatMap((side) => {
      const off = rimFrom(p, scale(normals[i], side), half + RIM_REACH, ink) - half;
      return Math.abs(off) < RIM_REACH ? [side * off] : [];
    });
    return offs.length === 0 ? 0 : offs.reduce((x, y) => x + y, 0) / offs.length;
  });
  return places.map((p, i) => {
    const near = shifts.slice(Math.max(0, i - LEAN), i + LEAN + 1);
    return add(p, scale(normals[i], near.reduce((x, y) => x + y, 0) / near.length));
  });
}

/** How far the ink goes on in a direction, as the distance field counts it: to the middle of the first pixel without. */
function rimFrom(p: Point, direction: Point, most: number, { mask, width, height }: Ink): number {
  for (let d = 0; d <= most + 1; d += STEP) {
    const [x, y] = [Math.floor(p.x + d * direction.x), Math.floor(p.y + d * direction.y)];
    if (x < 0 || y < 0 || x >= width || y >= height || !mask[y * width + x]) return d;
  }
  return Infinity;
}

/** The mean of each figure and the four to either side: pixels count in steps. */
const smoothed = (widths: readonly number[]): number[] =>
  widths.map((_, i) => {
    const near = widths.slice(Math.max(0, i - 4), i + 5);
    return near.reduce((a, b) => a + b, 0) / near.length;
  });

/** How wide a stroke is about one of its points, what is wide there for once left out. */
function usual(widths: readonly number[], at: number): number {
  const near = widths.slice(Math.max(0, at - AROUND), at + AROUND + 1).filter((w) => w > 0);
  near.sort((a, b) => a - b);
  return near[Math.floor(NARROWER * near.length)] ?? 1;
}
