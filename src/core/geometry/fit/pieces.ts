import { fitCusp, fitFree, improveFree, misfitOf, type Controls } from './freeCubic';
import type { Samples } from './samples';
import { holds, type Standard } from './standard';

const ROUNDS = 3;
const SHORT = 500;
/** A fit this many tolerances off is not going to be mended. */
const HOPELESS = 12;

/**
 * Where a stretch of a stroke is cut so that one free cubic serves each piece, with as few cuts as can be: each piece
 * is carried as far as it holds, once from either end, and the cuts are laid between the two (a shorter piece of what
 * holds holds as well, so no fewer pieces would do). Gives the cuts' indices with both ends.
 */
export function cutsFor(s: Samples, from: number, to: number, standard: Standard): number[] {
  const forth = carried(s, from, to, standard);
  if (forth.length === 2) return forth;
  const back = carried(backwards(s), s.n - 1 - to, s.n - 1 - from, standard)
    .map((i) => s.n - 1 - i)
    .reverse();
  if (back.length !== forth.length) return back.length < forth.length ? back : forth;
  return forth.map((i, k) => Math.round((i + back[k]) / 2));
}

/** The free cubic that serves the points `a` to `b`, whose parameters come in `ts`; null when none does. */
export function curveFor(s: Samples, a: number, b: number, ts: Float64Array, standard: Standard): Controls | null {
  return served(fitFree(s, a, b, ts, ROUNDS), s, a, b, ts, standard);
}

/** The free cubic that serves points which turn back on themselves at index `at`; null when none does. */
export function cuspFor(s: Samples, at: number, ts: Float64Array, standard: Standard): Controls | null {
  return served(fitCusp(s, at, ts, ROUNDS), s, 0, s.n - 1, ts, standard);
}

/** The cubic, made better where need be, if it holds the points `a` to `b`; null otherwise. */
function served(c: Controls, s: Samples, a: number, b: number, ts: Float64Array, standard: Standard): Controls | null {
  const { tolerance } = standard;
  const count = b - a + 1;
  const m = misfitOf(c, s, a, b, ts, tolerance);
  if (holds(m, count, standard)) return c;
  if (m.rms > HOPELESS * tolerance) return null;
  const better = improveFree(c, s, a, b, ts, 8, standard.noise ** 2 + standard.bias ** 2);
  return holds(misfitOf(better, s, a, b, ts, tolerance), count, standard) ? better : null;
}

const backwards = (s: Samples): Samples => ({ n: s.n, x: s.x.slice().reverse(), y: s.y.slice().reverse() });

function carried(s: Samples, from: number, to: number, standard: Standard): number[] {
  const ts = new Float64Array(to - from + 1);
  const fits = (a: number, b: number): boolean => {
    if (b - a < 4) return true;
    return curveFor(s, a, b, ts, standard) !== null;
  };
  const cuts = [from];
  let reach = 16;
  while (cuts.at(-1)! < to) {
    const a = cuts.at(-1)!;
    // A fit of part of a loop may not be found though that of the whole is: where it costs little, the rest is tried first.
    if (to - a <= SHORT && fits(a, to)) {
      cuts.push(to);
      break;
    }
    let good = Math.min(to, a + 4);
    let bad = to + 1;
    for (let b = Math.min(to, a + reach); good < to; b = Math.min(to, a + Math.ceil((b - a) * 1.6))) {
      if (!fits(a, b)) {
        bad = b;
        break;
      }
      good = b;
    }
    while (bad - good > Math.max(1, (good - a) >> 4)) {
      const middle = (good + bad) >> 1;
      if (fits(a, middle)) good = middle;
      else bad = middle;
    }
    // A rest too short for a curve of its own goes to the piece before.
    cuts.push(to - good < 4 ? to : good);
    reach = Math.max(8, Math.floor((good - a) * 0.8));
  }
  return cuts;
}
