/**
 * Polynomials on 0…1 in Bernstein form, given by their coefficients. A polynomial lies within the range of its
 * coefficients (the convex-hull property), which is what makes root finding here safe: a piece whose coefficients
 * are all of one sign has no root and is left out with certainty.
 * Source: Farouki and Rajan 1988, "Algorithms for polynomials in Bernstein form".
 */

/** The value at `t`, by de Casteljau's construction. */
export function bernsteinAt(coefficients: readonly number[], t: number): number {
  const n = coefficients.length;
  const b = n <= scratch.length ? scratch : new Float64Array(n);
  for (let i = 0; i < n; i++) b[i] = coefficients[i];
  for (let k = n - 1; k > 0; k--) {
    for (let i = 0; i < k; i++) b[i] = b[i] * (1 - t) + b[i + 1] * t;
  }
  return b[0];
}

const scratch = new Float64Array(16);

/** The coefficients of the two halves on either side of 1/2. */
export function halveBernstein(coefficients: readonly number[]): [number[], number[]] {
  const n = coefficients.length;
  const b = [...coefficients];
  const left = new Array<number>(n);
  const right = new Array<number>(n);
  for (let k = n; k > 0; k--) {
    left[n - k] = b[0];
    right[k - 1] = b[k - 1];
    for (let i = 0; i < k - 1; i++) b[i] = (b[i] + b[i + 1]) / 2;
  }
  return [left, right];
}

/** The coefficients of the derivative: one fewer. */
export function differentiateBernstein(coefficients: readonly number[]): number[] {
  const n = coefficients.length - 1;
  const slope = new Array<number>(n);
  for (let i = 0; i < n; i++) slope[i] = n * (coefficients[i + 1] - coefficients[i]);
  return slope;
}

const binomials = new Map<number, number[]>();
function binomial(n: number): number[] {
  let row = binomials.get(n);
  if (!row) {
    row = [1];
    for (let k = 1; k <= n; k++) row.push((row[k - 1] * (n - k + 1)) / k);
    binomials.set(n, row);
  }
  return row;
}

/** The coefficients of the product of two polynomials. */
export function multiplyBernstein(f: readonly number[], g: readonly number[]): number[] {
  const m = f.length - 1;
  const n = g.length - 1;
  const [cm, cn, cmn] = [binomial(m), binomial(n), binomial(m + n)];
  const product = new Array<number>(m + n + 1).fill(0);
  for (let i = 0; i <= m; i++) {
    for (let j = 0; j <= n; j++) product[i + j] += cm[i] * cn[j] * f[i] * g[j];
  }
  for (let k = 0; k <= m + n; k++) product[k] /= cmn[k];
  return product;
}

const SMALLEST_INTERVAL = 2 ** -48;

/**
 * The places in 0…1 where a polynomial is zero, in rising order. Roots of even multiplicity are found as far as
 * rounding lets them be seen (where the value comes within `1e-14` of the largest coefficient) and may come back as several
 * that lie close together. The zero polynomial gives no roots.
 */
export function bernsteinRoots(coefficients: readonly number[]): number[] {
  const size = Math.max(...coefficients.map(Math.abs));
  if (!(size > 0)) return [];
  const roots: number[] = [];
  const flat = size * 1e-14;
  const visit = (b: readonly number[], from: number, to: number): void => {
    let low = Infinity;
    let high = -Infinity;
    let changes = 0;
    let sign = 0;
    for (const v of b) {
      if (v < low) low = v;
      if (v > high) high = v;
      const s = v > 0 ? 1 : v < 0 ? -1 : 0;
      if (s !== 0) {
        if (sign !== 0 && s !== sign) changes++;
        sign = s;
      }
    }
    if (low > flat || high < -flat) return;
    const vanishes = low >= -flat && high <= flat;
    if (vanishes || to - from < SMALLEST_INTERVAL) {
      roots.push((from + to) / 2);
      return;
    }
    if (changes === 1 && b[0] * b[b.length - 1] < 0) {
      roots.push(from + (to - from) * bracketedRoot(b));
      return;
    }
    const [left, right] = halveBernstein(b);
    const middle = (from + to) / 2;
    visit(left, from, middle);
    visit(right, middle, to);
  };
  visit(coefficients, 0, 1);
  return roots.filter((t, i) => i === 0 || t - roots[i - 1] > 1e-12);
}

/** The one root of a polynomial whose end values differ in sign: Newton's steps, kept inside a shrinking bracket. */
export function bracketedRoot(b: readonly number[]): number {
  const slope = differentiateBernstein(b);
  let low = 0;
  let high = 1;
  const rising = b[b.length - 1] > 0;
  let t = b[0] / (b[0] - b[b.length - 1]);
  for (let i = 0; i < 80; i++) {
    const value = bernsteinAt(b, t);
    if (value === 0) return t;
    if (value > 0 === rising) high = t;
    else low = t;
    const next = t - value / bernsteinAt(slope, t);
    const inside = next > low && next < high;
    const step = inside ? next : (low + high) / 2;
    if (Math.abs(step - t) < 1e-16 || high - low < 1e-16) return step;
    t = step;
  }
  return t;
}
