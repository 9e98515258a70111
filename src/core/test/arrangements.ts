import type { CubicRun } from '../geometry/along';
import { reversed, splitCubic, straightCubic, type Cubic } from '../geometry/cubic';
import { intersectCubics } from '../geometry/intersection';
import { mix, type Point } from '../geometry/point';
import { seeded } from '../seeded';

/** Side of the square that made-up arrangements lie in, px. */
export const SIDE = 64;
const KAPPA = 0.5522847498307936;

export const open = (...points: Point[]): CubicRun => ({
  closed: false,
  cubics: points.slice(1).map((p, i) => straightCubic(points[i], p)),
});
export const closed = (...points: Point[]): CubicRun => ({
  closed: true,
  cubics: points.map((p, i) => straightCubic(p, points[(i + 1) % points.length])),
});
export function circle(x: number, y: number, r: number): CubicRun {
  const [k, p] = [KAPPA * r, (dx: number, dy: number): Point => ({ x: x + dx, y: y + dy })];
  return {
    closed: true,
    cubics: [
      [p(r, 0), p(r, k), p(k, r), p(0, r)],
      [p(0, r), p(-k, r), p(-r, k), p(-r, 0)],
      [p(-r, 0), p(-r, -k), p(-k, -r), p(0, -r)],
      [p(0, -r), p(k, -r), p(r, -k), p(r, 0)],
    ],
  };
}

const within = (v: number): number => Math.min(SIDE - 2, Math.max(2, v));

/**
 * A made-up arrangement of each kind that hands draw: lines that cross, wind and cross themselves, closed ones, joints,
 * hubs, lines that run together or touch in passing, and ends that stop short.
 */
export function madeUpArrangement(seed: number): CubicRun[] {
  const random = seeded(7_000 + seed);
  const at = (margin = 4): Point => ({
    x: margin + (SIDE - 2 * margin) * random(),
    y: margin + (SIDE - 2 * margin) * random(),
  });
  const winding = (n: number): CubicRun => {
    const cubics: Cubic[] = [];
    let from = at();
    for (let i = 0; i < n; i++) {
      const to = at();
      const before = cubics.at(-1);
      const out = before ? { x: within(2 * from.x - before[2].x), y: within(2 * from.y - before[2].y) } : at();
      cubics.push([from, out, at(), to]);
      from = to;
    }
    return { closed: false, cubics };
  };
  const runs: CubicRun[] = [];
  const frame = closed({ x: 4, y: 4 }, { x: 60, y: 4 }, { x: 60, y: 60 }, { x: 4, y: 60 });
  const kinds: (() => void)[] = [
    () => runs.push(winding(1 + Math.floor(3 * random()))),
    () => runs.push(circle(32 + 12 * (random() - 0.5), 32 + 12 * (random() - 0.5), 6 + 16 * random())),
    () => runs.push(open(at(), at(), at())),
    // A hub: spokes that end in one place.
    () => {
      const hub = at(20);
      for (let i = 0; i < 5; i++) runs.push(open(hub, at()));
    },
    // Run together with a part of another, the other way.
    () => {
      const [c] = runs[0]?.cubics ?? winding(1).cubics;
      runs.push({ closed: false, cubics: [reversed(splitCubic(c, 0.3 + 0.4 * random())[0])] });
    },
    // The same line twice.
    () => runs.push({ ...(runs[0] ?? winding(2)) }),
    // Touching in passing: a circle between two straight lines.
    () => {
      const [x, r] = [14 + 36 * random(), 5 + 5 * random()];
      runs.push(circle(x, 32, r), open({ x: 2, y: 32 - r }, { x: 62, y: 32 - r }));
      runs.push(open({ x: 2, y: 32 + r }, { x: 62, y: 32 + r }));
    },
    // A line that ends on another.
    () => {
      const other = runs[0]?.cubics[0];
      if (other) runs.push(open(splitCubic(other, 0.2 + 0.6 * random())[0][3], at()));
    },
    // A line that is crossed and one that stops short of it.
    () => {
      const [a, b] = [at(10), at(10)];
      runs.push(open(a, b));
      const [far, on] = [at(6), mix(a, b, 0.3 + 0.4 * random())];
      if (intersectCubics(straightCubic(a, b), straightCubic(far, mix(far, on, 0.8))).length === 0)
        runs.push(open(far, mix(far, on, 0.9 + 0.08 * random())));
    },
    () => runs.push(frame),
  ];
  const count = 3 + Math.floor(5 * random());
  if (random() < 0.6) runs.push(frame);
  for (let i = 0; i < count; i++) kinds[Math.floor(kinds.length * random())]();
  return runs;
}
