import { seeded } from '@/core/seeded';
import { nearestOnCubic, type Cubic, type Point } from '..';
import { hullBox } from '../geometry/bounds';
import { distanceToBox } from '../geometry/box';
import { evaluate } from '../geometry/cubic';

/** A stroke as a hand would draw it along known cubics: the truth, and the points with their jitter. */
export type Stroke = { kind: string; cubics: Cubic[]; corners: Point[]; points: Point[] };

export const strokeKinds = ['smooth', 'S', 'loop', 'cusp', 'corners', 'long'] as const;

const gaussian = (random: () => number): number =>
  Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());

/** A stroke of a kind: points `spacing` px apart along its curves, each off by a normal variate of `sigma` px both ways. */
export function stroke(kind: string, seed: number, spacing = 2, sigma = 0.6): Stroke {
  const random = seeded(seed * 7919 + 13);
  const { cubics, corners } = truth(kind, random);
  const points = walk(cubics, spacing).map((p) => ({
    x: p.x + sigma * gaussian(random),
    y: p.y + sigma * gaussian(random),
  }));
  return { kind, cubics, corners, points };
}

function truth(kind: string, random: () => number): { cubics: Cubic[]; corners: Point[] } {
  const between = (a: number, b: number): number => a + (b - a) * random();
  const at = { x: between(100, 300), y: between(100, 300) };
  const heading = between(0, 2 * Math.PI);
  if (kind === 'loop') return { cubics: [loop(at, heading, between(120, 260), between(1.3, 1.9))], corners: [] };
  if (kind === 'cusp') return { cubics: [loop(at, heading, between(120, 260), 1)], corners: [] };
  const count = kind === 'long' ? 30 + Math.floor(between(0, 25)) : 2 + Math.floor(between(0, 5));
  const cubics: Cubic[] = [];
  const corners: Point[] = [];
  let [p, angle] = [at, heading];
  for (let i = 0; i < count; i++) {
    const length = between(80, 220);
    const bend = kind === 'S' ? (random() < 0.5 ? -1 : 1) * between(0.5, 1.0) : between(-0.9, 0.9);
    const end = kind === 'S' ? angle + between(-0.3, 0.3) : angle + 2 * bend;
    const chord = kind === 'S' ? angle + bend : angle + bend;
    const q = { x: p.x + length * Math.cos(chord), y: p.y + length * Math.sin(chord) };
    const [a, b] = [length * between(0.28, 0.42), length * between(0.28, 0.42)];
    cubics.push([
      p,
      { x: p.x + a * Math.cos(angle), y: p.y + a * Math.sin(angle) },
      { x: q.x - b * Math.cos(end), y: q.y - b * Math.sin(end) },
      q,
    ]);
    [p, angle] = [q, end];
    if (kind === 'corners' && i < count - 1) {
      angle += (random() < 0.5 ? -1 : 1) * between(1.25, 2.4);
      corners.push(p);
    }
  }
  return { cubics, corners };
}

/** A cubic whose handles cross over: a loop for a reach above 1, a cusp at 1. */
function loop(at: Point, heading: number, size: number, reach: number): Cubic {
  const local: [number, number][] = [
    [0, 0],
    [reach, 1],
    [1 - reach, 1],
    [1, 0],
  ];
  return local.map(([x, y]) => ({
    x: at.x + size * (x * Math.cos(heading) - y * Math.sin(heading)),
    y: at.y + size * (x * Math.sin(heading) + y * Math.cos(heading)),
  })) as Cubic;
}

/** Points along cubics at even steps of arc length, both ends included. */
export function walk(cubics: readonly Cubic[], spacing: number): Point[] {
  const points: Point[] = [cubics[0][0]];
  let left = spacing;
  let last = cubics[0][0];
  for (const c of cubics) {
    for (let i = 1; i <= 2_000; i++) {
      const p = evaluate(c, i / 2_000);
      left -= Math.hypot(p.x - last.x, p.y - last.y);
      last = p;
      if (left <= 0) {
        points.push(p);
        left += spacing;
      }
    }
  }
  return points;
}

/** How far a place lies from the nearest of some curves. */
export function distanceToCurves(cubics: readonly Cubic[], p: Point): number {
  let best = Infinity;
  for (const c of cubics) {
    if (distanceToBox(hullBox(c), p) < best) best = Math.min(best, nearestOnCubic(c, p).distance);
  }
  return best;
}
