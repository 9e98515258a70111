import { assertPoint, type Point } from '../point';
import type { Cubic } from '../cubic';
import { blocksOf, type Blocks } from './blocks';
import { medianSpacing, suspectedCorners } from './corners';
import { cutsFor } from './pieces';
import { noiseOf, samplesOf, turnedTo, type Samples } from './samples';
import { merged, relaxWell, settle, smoothFalseCorners } from './settle';
import { controlsOf, pieceOf, project, segmentsOf, splineFrom, type Spline } from './spline';
import { standardFor, type Standard } from './standard';

export type FitOptions = {
  /** How far the result may run from the points, in their unit: 99.5 % lie within it, none beyond 1.5 times. */
  tolerance: number;
  /** A turn of more than so many degrees stays a corner; 60 by default. */
  cornerAngle?: number;
  /** Whether the last point is followed by the first. */
  closed?: boolean;
};

/**
 * Few cubics along the points of a stroke. Noise is smoothed, not chased; pieces join smoothly, except at corners.
 *
 * Corners are found first; between them the stroke is cut into as few pieces as free cubics can serve; then all nodes,
 * directions and handles are moved together to where the points lie nearest, smooth joints kept smooth (Gauss and
 * Newton's method on tangent distances: Wang, Pottmann and Liu 2006; the least-squares fit of a piece goes back to
 * Schneider 1990). A piece that still fails is cut in two; two that one can do for become one. Most of this is done on
 * the means of neighbouring points; in the end the points themselves are asked. Linear in the points.
 *
 * @throws RangeError without points, for points that are not finite, a tolerance that is not above 0, or a corner
 * angle outside 0…180.
 */
export function fitCurve(points: Point[], options: FitOptions): Cubic[] {
  const { tolerance, cornerAngle = 60, closed = false } = options;
  if (!Array.isArray(points) || points.length === 0) throw new RangeError('a curve needs at least one point');
  points.forEach((p, i) => assertPoint(p, `point ${i}`));
  if (!(tolerance > 0) || !Number.isFinite(tolerance)) throw new RangeError('the tolerance must be a number above 0');
  if (!(cornerAngle >= 0 && cornerAngle <= 180)) throw new RangeError('the corner angle must lie within 0 and 180');
  const s = samplesOf(points, closed);
  if (s.n < 2) {
    const p = { x: points[0].x, y: points[0].y };
    return [[p, p, p, p]];
  }
  const noise = noiseOf(s);
  const standard = standardFor(tolerance, noise);
  const corners = cornerAngle < 180 ? suspectedCorners(s, closed, cornerAngle, standard) : [];
  const samples = closed ? turnedTo(s, corners[0] ?? 0) : s;
  const bounds = closed ? [0, ...corners.slice(1).map((i) => i - corners[0]), s.n] : [0, ...corners, s.n - 1];
  const blocks = blocksOf(samples, bounds, medianSpacing(s), tolerance);
  const isReduced = blocks.samples.n < samples.n;
  const rough = isReduced ? roughStandard(blocks, samples, standard) : standard;
  const spline = chain(blocks.samples, blocks.bounds, closed, !closed || corners.length > 0, rough);
  relaxWell(spline, blocks.samples, rough);
  smoothFalseCorners(spline, blocks.samples, cornerAngle, rough);
  settle(spline, blocks.samples, rough);
  const fewer = merged(spline, blocks.samples, rough);
  if (smoothFalseCorners(fewer, blocks.samples, cornerAngle, rough)) settle(fewer, blocks.samples, rough);
  const whole = isReduced ? carriedOver(fewer, blocks, samples) : fewer;
  if (isReduced) settle(whole, samples, standard);
  return Array.from({ length: segmentsOf(whole) }, (_, k) => cubicOf(whole, k));
}

function cubicOf(sp: Spline, k: number): Cubic {
  const c = controlsOf(sp, k);
  const at = (i: number): Point => ({ x: c[2 * i], y: c[2 * i + 1] });
  return [at(0), at(1), at(2), at(3)];
}

/** The chain cut at `bounds`, and between them where one cubic no longer serves; not relaxed yet. */
function chain(s: Samples, bounds: number[], closed: boolean, startsAtCorner: boolean, standard: Standard): Spline {
  const cuts: number[] = [];
  const corner: boolean[] = [];
  const whole = closed ? pieceOf(s, 0, s.n) : s;
  bounds.slice(0, -1).forEach((from, k) => {
    const inner = cutsFor(whole, from, bounds[k + 1], standard);
    inner.slice(0, -1).forEach((cut, j) => {
      cuts.push(cut);
      corner.push(j === 0 && (k > 0 || startsAtCorner));
    });
  });
  cuts.push(bounds.at(-1)!);
  if (!closed) corner.push(true);
  return splineFrom(s, cuts, corner, closed);
}

/** The standard for blocks: their noise is the points' own, less what the means took of it, or what they show. */
function roughStandard(
  { samples: { n }, samples }: Blocks,
  s: Samples,
  { tolerance, noise, bias }: Standard,
): Standard {
  return standardFor(tolerance, Math.max(noise * Math.sqrt(n / s.n), noiseOf(samples)), bias);
}

/** The chain with the points themselves in place of the blocks that stood for them. */
function carriedOver(sp: Spline, blocks: Blocks, s: Samples): Spline {
  const n = blocks.samples.n;
  const at = (cut: number): number => blocks.starts[cut % n] + (cut >= n ? s.n : 0);
  const whole = {
    ...sp,
    cuts: sp.cuts.map((cut, k) => (k > 0 && !sp.closed && cut === n - 1 ? s.n - 1 : at(cut))),
    ts: new Float64Array(s.n),
  };
  for (let i = 0; i < n; i++) whole.ts.fill(sp.ts[i], blocks.starts[i], blocks.starts[i + 1]);
  project(whole, s, 3);
  return whole;
}
