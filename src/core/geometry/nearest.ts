import { bracketedRoot, differentiateBernstein, halveBernstein, multiplyBernstein } from './bernstein';
import { assertCubic, derivative, evaluate, secondDerivative, type Cubic } from './cubic';
import { assertPoint, distance, dot, subtract, type Point } from './point';

export type Nearest = { t: number; point: Point; distance: number };

const SMALLEST_INTERVAL = 2 ** -40;

/**
 * The point of a cubic nearest to `p`: the global minimum, the first of equals. The squared distance is a polynomial
 * of degree 6; its Bernstein coefficients bound it from below, so pieces that cannot hold the minimum are left out
 * with certainty, and the stationary places of the rest are isolated by the signs of its derivative.
 * Source: Schneider, "Solving the nearest-point-on-curve problem", Graphics Gems I, 1990, with the hull as bound.
 * @throws RangeError for a cubic or a point that is not finite.
 */
export function nearestOnCubic(c: Cubic, p: Point): Nearest {
  assertCubic(c);
  assertPoint(p, 'the point');
  const x = [c[0].x - p.x, c[1].x - p.x, c[2].x - p.x, c[3].x - p.x];
  const y = [c[0].y - p.y, c[1].y - p.y, c[2].y - p.y, c[3].y - p.y];
  const squared = multiplyBernstein(x, x);
  const yy = multiplyBernstein(y, y);
  for (let i = 0; i < squared.length; i++) squared[i] += yy[i];
  const noise = 1e-13 * largest(squared);

  let best: Nearest = { t: 0, point: c[0], distance: distance(c[0], p) };
  const consider = (t: number): void => {
    const q = evaluate(c, t);
    const d = distance(q, p);
    if (d < best.distance) best = { t, point: q, distance: d };
  };
  consider(1);
  for (let i = 1; i < 8; i++) consider(i / 8);

  const visit = (f: readonly number[], from: number, to: number): void => {
    if (isAbove(f, best.distance * best.distance + noise)) return;
    const slope = differentiateBernstein(f);
    const steepest = largest(slope);
    const width = to - from;
    if (steepest <= noise || width < SMALLEST_INTERVAL) {
      consider((from + to) / 2);
      return;
    }
    const zero = 1e-15 * steepest;
    const changes = signChanges(slope, zero);
    if (changes === 0) return;
    // Where the curve stands still at an end, the slope there is nothing but rounding, and its sign says nothing.
    const endsAreClear = Math.abs(slope[0]) > zero && Math.abs(slope[5]) > zero;
    if (changes === 1 && endsAreClear && slope[0] * slope[5] < 0) {
      // A single stationary place; a falling slope makes it a maximum, whose neighbours are seen elsewhere.
      if (slope[0] < 0) consider(from + width * bracketedRoot(slope));
      return;
    }
    const [left, right] = halveBernstein(f);
    const middle = (from + to) / 2;
    consider(middle);
    visit(left, from, middle);
    visit(right, middle, to);
  };
  visit(squared, 0, 1);
  return polished(c, p, best);
}

function isAbove(values: readonly number[], bound: number): boolean {
  for (const v of values) if (!(v > bound)) return false;
  return true;
}

/** The largest of some figures without their signs. */
function largest(values: readonly number[]): number {
  let most = 0;
  for (const v of values) if (v > most || -v > most) most = Math.abs(v);
  return most;
}

function signChanges(values: readonly number[], zero: number): number {
  let changes = 0;
  let sign = 0;
  for (const v of values) {
    const s = v > zero ? 1 : v < -zero ? -1 : 0;
    if (s !== 0) {
      if (sign !== 0 && s !== sign) changes++;
      sign = s;
    }
  }
  return changes;
}

/** Newton's steps on the curve itself, whose rounding is smaller than that of the polynomial of degree 6. */
function polished(c: Cubic, p: Point, found: Nearest): Nearest {
  let best = found;
  for (let i = 0; i < 4; i++) {
    const offset = subtract(best.point, p);
    const speed = derivative(c, best.t);
    const curve = dot(speed, speed) + dot(offset, secondDerivative(c, best.t));
    if (!(curve > 0)) break;
    const t = Math.min(1, Math.max(0, best.t - dot(offset, speed) / curve));
    const q = evaluate(c, t);
    const d = distance(q, p);
    if (!(d < best.distance)) break;
    best = { t, point: q, distance: d };
  }
  return best;
}
