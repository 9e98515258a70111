import type { Misfit } from './freeCubic';

/** What a curve must hold to stand for its points. Lengths are those of the points. */
export type Standard = {
  /** No more than 0.5 % of the points may lie further. */
  readonly tolerance: number;
  /** How far the points themselves lie about their course (standard deviation across it). */
  readonly noise: number;
  /** How far the curve may run from that course, root mean square. */
  readonly bias: number;
};

/**
 * The standard for points with a known noise. What the noise leaves of the tolerance may be used up by the shape: three
 * deviations of noise and the curve's own distance must both fit within it, unless `bias` is given.
 */
export function standardFor(
  tolerance: number,
  noise: number,
  bias = Math.max(0.09 * tolerance, 0.45 * (tolerance - 3 * noise)),
): Standard {
  return { tolerance, noise: Math.min(noise, tolerance), bias };
}

/** Whether `count` points that lie to a curve as `m` says are well served by it. */
export function holds(m: Misfit, count: number, { tolerance, noise, bias }: Standard): boolean {
  // The mean of n squared normal variates strays by the square root of 2/n; three of that are let pass.
  const stray = 1 + 3 * Math.sqrt(2 / count);
  if (m.rms * m.rms > noise * noise * stray + bias * bias) return false;
  const strays = noise > 0.2 * tolerance ? 1 : 0;
  return m.max <= 1.5 * tolerance && m.over <= 0.004 * count + strays;
}
