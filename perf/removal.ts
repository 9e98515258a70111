import { refitAsOne, type Cubic, type Point } from '../src/core';
import { cubicsOf } from '../src/core/drawing/run';
import { distanceToChord } from '../src/core/geometry/chord';
import { evaluate } from '../src/core/geometry/cubic';
import { seeded } from '../src/core/seeded';
import { wanderingLine } from '../src/core/test/drawings';
import { summary } from './statistics';

const LINES = 300;
const SAMPLES = 40;

/**
 * A node removed with the shape kept, on seeded lines, against the best that any two handle lengths can reach: found by
 * brute force, on a grid that is drawn closer around its best five times.
 */
export function removal(): unknown {
  const random = seeded(77);
  const times: number[] = [];
  const ratios: number[] = [];
  for (let i = 0; i < LINES; i++) {
    const pair = cubicsOf({ ...wanderingLine('l', 2, random, 1000, 700, 240).runs[0], closed: false });
    const began = performance.now();
    const one = refitAsOne(...pair);
    times.push(performance.now() - began);
    const truth = pair.flatMap((c) => Array.from({ length: SAMPLES }, (_, k) => evaluate(c, (k + 0.5) / SAMPLES)));
    const best = bestOf(one, truth, pair);
    ratios.push(best > 1e-3 ? rms(truth, one) / best : 1);
  }
  return {
    lines: LINES,
    within1_1: ratios.filter((r) => r <= 1.1).length,
    worstToBest: Math.round(1000 * Math.max(...ratios)) / 1000,
    ms: summary(times),
  };
}

/** The smallest error of all cubics with these ends and directions. */
function bestOf(like: Cubic, truth: readonly Point[], pair: readonly Cubic[]): number {
  const [start, end] = [like[0], like[3]];
  const towards = directionOf(pair[0][0], pair[0][1]);
  const back = directionOf(pair[1][3], pair[1][2]);
  const size = 3 * Math.hypot(end.x - start.x, end.y - start.y) + 200;
  const at = (a: number, b: number): Cubic => [
    start,
    { x: start.x + a * towards.x, y: start.y + a * towards.y },
    { x: end.x + b * back.x, y: end.y + b * back.y },
    end,
  ];
  let best = { a: 0, b: 0, error: Infinity };
  let [from, step] = [{ a: 0, b: 0 }, size / 32];
  for (let round = 0; round < 6; round++) {
    const cells = round === 0 ? 33 : 9;
    for (let i = 0; i < cells; i++) {
      for (let k = 0; k < cells; k++) {
        const [a, b] = [Math.max(0, from.a + i * step), Math.max(0, from.b + k * step)];
        const error = rms(truth, at(a, b));
        if (error < best.error) best = { a, b, error };
      }
    }
    step /= 3;
    from = { a: best.a - 4 * step, b: best.b - 4 * step };
  }
  return best.error;
}

/** The root of the mean square distance of places from a cubic, walked in chords. */
function rms(places: readonly Point[], c: Cubic): number {
  const on = Array.from({ length: 61 }, (_, i) => evaluate(c, i / 60));
  let sum = 0;
  for (const p of places) {
    let least = Infinity;
    for (let i = 1; i < on.length; i++)
      least = Math.min(least, distanceToChord(p.x, p.y, on[i - 1].x, on[i - 1].y, on[i].x, on[i].y));
    sum += least * least;
  }
  return Math.sqrt(sum / places.length);
}

function directionOf(a: Point, b: Point): Point {
  const l = Math.hypot(b.x - a.x, b.y - a.y);
  return { x: (b.x - a.x) / l, y: (b.y - a.y) / l };
}
