import { assertPoint, type Point } from '../point';
import type { Cubic } from '../cubic';
import { suspectedCorners } from './corners';
import { cutsFor } from './pieces';
import { relax } from './relax';
import { noiseOf, samplesOf, turnedTo, type Samples } from './samples';
import {
  bulges,
  controlsOf,
  joinWays,
  misfitAt,
  pieceOf,
  segmentsOf,
  splineFrom,
  splitSegment,
  type Spline,
} from './spline';
import { holds, standardFor, type Standard } from './standard';

export type FitOptions = {
  /** How far the result may run from the points, in their unit: 99.5 % lie within it, none beyond 1.5 times. */
  tolerance: number;
  /** A turn of more than so many degrees stays a corner; 60 by default. */
  cornerAngle?: number;
  /** Whether the last point is followed by the first. */
  closed?: boolean;
};

const RELAX_ROUNDS = 9;
const MOST_SPELLS = 4;
const MOST_SPLITS = 16;
const FEWEST_TO_CUT = 8;

/**
 * Few cubics along the points of a stroke. Noise is smoothed, not chased; pieces join smoothly, except at corners.
 *
 * Corners are found first; between them the stroke is cut into as few pieces as free cubics can serve; then all nodes,
 * directions and handles are moved together to where the points lie nearest, smooth joints kept smooth (Gauss and
 * Newton's method on tangent distances: Wang, Pottmann and Liu 2006; the least-squares fit of a piece goes back to
 * Schneider 1990). A piece that still fails is cut in two.
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
  const standard = standardFor(tolerance, noiseOf(s));
  const { spline, samples } = begin(s, closed, cornerAngle, standard);
  settle(spline, samples, cornerAngle, standard);
  return Array.from({ length: segmentsOf(spline) }, (_, k) => cubicOf(spline, k));
}

function cubicOf(sp: Spline, k: number): Cubic {
  const c = controlsOf(sp, k);
  const at = (i: number): Point => ({ x: c[2 * i], y: c[2 * i + 1] });
  return [at(0), at(1), at(2), at(3)];
}

/** The chain before it is relaxed: cut at corners, and between them where one cubic no longer serves. */
function begin(
  s: Samples,
  closed: boolean,
  cornerAngle: number,
  standard: Standard,
): { spline: Spline; samples: Samples } {
  const corners = cornerAngle < 180 ? suspectedCorners(s, closed, cornerAngle, standard) : [];
  if (!closed) return { spline: chain(s, [0, ...corners, s.n - 1], false, true, standard), samples: s };
  const samples = turnedTo(s, corners[0] ?? 0);
  const bounds = corners.length > 0 ? corners.map((i) => i - corners[0]) : [0];
  return { spline: chain(samples, [...bounds, s.n], true, corners.length > 0, standard), samples };
}

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

/** Relaxes the chain until each segment holds, cutting those that do not. */
function settle(sp: Spline, s: Samples, cornerAngle: number, standard: Standard): void {
  relaxWell(sp, s, standard);
  if (smoothFalseCorners(sp, cornerAngle)) relaxWell(sp, s, standard);
  for (let round = 0; round < MOST_SPLITS; round++) {
    const failing = Array.from({ length: segmentsOf(sp) }, (_, k) => excessOf(sp, s, k, standard));
    // Of neighbours that fail, the worse is cut: that may be all the other wants.
    const worst = failing.flatMap((excess, k) => {
      const beside = [failing[k - 1] ?? 0, failing[k + 1] ?? 0];
      return excess > 0 && excess >= Math.max(...beside) ? [k] : [];
    });
    if (worst.length === 0) return;
    for (const k of worst.reverse()) splitSegment(sp, s, k);
    relaxWell(sp, s, standard);
  }
}

/** Relaxes as long as something is wanting and each spell of rounds still gains. */
function relaxWell(sp: Spline, s: Samples, standard: Standard): void {
  for (let spell = 0; spell < MOST_SPELLS; spell++) {
    const gains = relax(sp, s, RELAX_ROUNDS);
    if (!gains) return;
    const isWell = Array.from({ length: segmentsOf(sp) }, (_, k) => excessOf(sp, s, k, standard)).every((e) => e === 0);
    if (isWell) return;
  }
}

/** By how much a segment fails its points; 0 when it serves them, or has too few to be cut. */
function excessOf(sp: Spline, s: Samples, k: number, standard: Standard): number {
  const count = sp.cuts[k + 1] - sp.cuts[k];
  if (count < FEWEST_TO_CUT) return 0;
  const misfit = misfitAt(sp, s, k, standard.tolerance);
  if (bulges(sp, s, k, standard.tolerance)) return Infinity;
  return holds(misfit, count, standard) ? 0 : misfit.rms;
}

/** Corners that turn out to turn by less than was asked are made smooth. Gives whether there were any. */
function smoothFalseCorners(sp: Spline, cornerAngle: number): boolean {
  let any = false;
  sp.corner.forEach((isCorner, node) => {
    if (!isCorner || (!sp.closed && (node === 0 || node === sp.x.length - 1))) return;
    const turn = Math.abs(sp.wayOut[node] - sp.wayIn[node]) % (2 * Math.PI);
    if (Math.min(turn, 2 * Math.PI - turn) >= (0.92 * cornerAngle * Math.PI) / 180) return;
    sp.corner[node] = false;
    joinWays(sp, node);
    any = true;
  });
  return any;
}
