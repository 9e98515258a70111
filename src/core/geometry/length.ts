import { bernsteinRoots, differentiateBernstein, multiplyBernstein } from './bernstein';
import { assertCubic, derivative, polygonLength, splitAt, type Cubic } from './cubic';
import { lengthOf } from './point';

const ORDER = 16;
const { nodes, weights } = gaussLegendre(ORDER);

/**
 * The arc length of a cubic, in its own units, within `tolerance` of the truth relative to the length (default
 * 1e-6; the method's own error is kept far below it). Gauss–Legendre quadrature of the speed, halved until two
 * halves agree with the whole; where they do not at once, the interval is first cut where the speed is least, so that
 * cusps and hairpins fall on a joint and cost no accuracy.
 * @throws RangeError for a cubic that is not finite or a tolerance that is not positive.
 */
export function cubicLength(c: Cubic, tolerance = 1e-6): number {
  assertCubic(c);
  if (!(tolerance > 0)) throw new RangeError('the tolerance must be a positive number');
  const longest = polygonLength(c);
  if (longest === 0) return 0;
  const allowed = Math.max(tolerance * 1e-3, 1e-14) * longest;
  const dx = differentiateBernstein(c.map((p) => p.x));
  const dy = differentiateBernstein(c.map((p) => p.y));
  const along = (from: number, to: number): number => quadrature(dx, dy, from, to);
  const [whole, left, right] = [along(0, 1), along(0, 0.5), along(0.5, 1)];
  if (Math.abs(left + right - whole) <= allowed) return left + right;
  const joints = [0, ...slowestPlaces(dx, dy).filter((t) => t > 0 && t < 1), 1];
  let total = 0;
  for (let i = 1; i < joints.length; i++) {
    const [from, to] = [joints[i - 1], joints[i]];
    total += adaptive(along, from, to, along(from, to), allowed, 0);
  }
  return total;
}

/** The parameter up to which a cubic is so long; `whole` is its length. */
export function parameterAt(c: Cubic, length: number, whole: number): number {
  if (length >= whole) return 1;
  let [low, high] = [0, 1];
  // Newton's steps on the length, kept within a bracket that halves where they would leave it.
  let t = Math.max(0, length) / Math.max(1e-12, whole);
  for (let i = 0; i < 40 && high - low > 1e-13; i++) {
    const off = cubicLength(splitAt(c, t)[0], 1e-7) - length;
    if (off === 0) return t;
    if (off < 0) low = t;
    else high = t;
    const next = t - off / lengthOf(derivative(c, t));
    const inside = next > low && next < high;
    if (inside && Math.abs(next - t) < 1e-13) return next;
    t = inside ? next : (low + high) / 2;
  }
  return (low + high) / 2;
}

/** Where the speed of a cubic is stationary: the roots of the derivative of its square. */
function slowestPlaces(dx: number[], dy: number[]): number[] {
  const xx = multiplyBernstein(dx, dx);
  const yy = multiplyBernstein(dy, dy);
  return bernsteinRoots(differentiateBernstein(xx.map((v, i) => v + yy[i])));
}

type Along = (from: number, to: number) => number;

function adaptive(along: Along, from: number, to: number, whole: number, allowed: number, depth: number): number {
  const middle = (from + to) / 2;
  const left = along(from, middle);
  const right = along(middle, to);
  if (Math.abs(left + right - whole) <= allowed || depth >= 40) return left + right;
  return (
    adaptive(along, from, middle, left, allowed / 2, depth + 1) +
    adaptive(along, middle, to, right, allowed / 2, depth + 1)
  );
}

/** The speed summed up, from the Bernstein coefficients of the derivative. */
function quadrature(dx: readonly number[], dy: readonly number[], from: number, to: number): number {
  const half = (to - from) / 2;
  const middle = (to + from) / 2;
  let sum = 0;
  for (let i = 0; i < ORDER; i++) {
    const t = middle + half * nodes[i];
    const [a, b, d] = [(1 - t) * (1 - t), 2 * t * (1 - t), t * t];
    const x = a * dx[0] + b * dx[1] + d * dx[2];
    const y = a * dy[0] + b * dy[1] + d * dy[2];
    sum += weights[i] * Math.sqrt(x * x + y * y);
  }
  return sum * half;
}

/** The nodes and weights of the Gauss–Legendre rule on −1…1: Newton's steps on the Legendre polynomial. */
export function gaussLegendre(order: number): { nodes: number[]; weights: number[] } {
  const rule = { nodes: [] as number[], weights: [] as number[] };
  for (let i = 0; i < order; i++) {
    let x = Math.cos((Math.PI * (i + 0.75)) / (order + 0.5));
    let slope = 1;
    for (let step = 0; step < 20; step++) {
      let [before, value] = [1, x];
      for (let k = 2; k <= order; k++) {
        [before, value] = [value, ((2 * k - 1) * x * value - (k - 1) * before) / k];
      }
      slope = (order * (x * value - before)) / (x * x - 1);
      const change = value / slope;
      x -= change;
      if (Math.abs(change) < 1e-16) break;
    }
    rule.nodes.push(x);
    rule.weights.push(2 / ((1 - x * x) * slope * slope));
  }
  return rule;
}
