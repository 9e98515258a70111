import { arcLengthOf } from '../geometry/arcLength';
import type { CubicRun } from '../geometry/along';
import { derivative, evaluate, straightCubic, type Cubic } from '../geometry/cubic';
import { add, scale, unit, type Point } from '../geometry/point';
import { spineOf } from './spine';
import { fitTrack, withoutRepeats, type Waypoint } from './fitTrack';

/** The hand strays once to and fro in about so many page units. */
const WAVE = 34;
const OCTAVES = 2;

/**
 * A run as an unsteady hand draws it: off to both sides by up to `amount` page units, in waves whose phases are random;
 * its ends and corners stay. Made of its own length, so that it is the same at every size; few cubics, near to it by
 * `tolerance`.
 */
export function wobbled(run: CubicRun, amount: number, random: () => number, tolerance: number): CubicRun {
  const shares = arcLengthOf(run.cubics).length / WAVE;
  const count = Math.max(2, Math.ceil(4 * shares));
  const spine = spineOf(run.cubics, {
    step: 0.16,
    corner: 0.05,
    shares: Array.from({ length: count + 1 }, (_, i) => i / count),
    dense: 4,
    tolerance,
  });
  const cubics = spine.stretches.flatMap(({ places }): Cubic[] => {
    const [from, to] = [places[0].travelled, places.at(-1)!.travelled];
    const length = to - from;
    if (length === 0) return [];
    const waves = Array.from({ length: OCTAVES }, (_, k) => ({
      // Whole half-waves: nothing at both ends.
      turns: (Math.PI * Math.max(1, Math.round((length / WAVE) * 2 ** k * (0.8 + 0.5 * random())))) / length,
      size: (amount * (random() < 0.5 ? -1 : 1)) / (1.6 * (k + 1)),
    }));
    const track = places.map(({ p, along, travelled }): Waypoint => {
      const s = travelled - from;
      const off = waves.reduce((sum, w) => sum + w.size * Math.sin(w.turns * s), 0);
      const slope = waves.reduce((sum, w) => sum + w.size * w.turns * Math.cos(w.turns * s), 0);
      const to1 = Math.hypot(1, slope);
      return {
        x: p.x + along.y * off,
        y: p.y - along.x * off,
        dx: (along.x + along.y * slope) / to1,
        dy: (along.y - along.x * slope) / to1,
      };
    });
    return fitTrack(withoutRepeats(track), tolerance);
  });
  return cubics.length > 0 ? { ...run, cubics } : run;
}

/** An open run whose ends run on straight, each by at least a third of `amount`; and how far each of them does. */
export function overrun(
  run: CubicRun,
  amount: number,
  random: () => number,
): { run: CubicRun; before: number; after: number } {
  const [first, last] = [run.cubics[0], run.cubics.at(-1)!];
  const [out, on] = [directionAt(first, 0), directionAt(last, 1)];
  if (run.closed || !out || !on) return { run, before: 0, after: 0 };
  const [before, after] = [1, 2].map(() => amount * (1 / 3 + (2 / 3) * random()));
  const start = add(first[0], scale(out, -before));
  const end = add(last[3], scale(on, after));
  const cubics = [straightCubic(start, first[0]), ...run.cubics, straightCubic(last[3], end)];
  return { run: { ...run, cubics }, before, after };
}

/** The direction at an end, from close by where the curve stands still there. */
function directionAt(c: Cubic, t: 0 | 1): Point | null {
  const d = unit(derivative(c, t));
  if (d) return d;
  const near = evaluate(c, t === 0 ? 0.01 : 0.99);
  return t === 0 ? unit({ x: near.x - c[0].x, y: near.y - c[0].y }) : unit({ x: c[3].x - near.x, y: c[3].y - near.y });
}
