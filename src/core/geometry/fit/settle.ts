import { cuspFor, curveFor } from './pieces';
import { relax } from './relax';
import type { Samples } from './samples';
import {
  bulges,
  copyOf,
  joinWays,
  leadAlong,
  misfitAt,
  pieceOf,
  removeNode,
  segmentsOf,
  splitSegment,
  turnAcross,
  type Spline,
} from './spline';
import { holds, type Standard } from './standard';

const RELAX_ROUNDS = 9;
const MOST_SPELLS = 4;
const MOST_SPLITS = 16;
const FEWEST_TO_CUT = 8;
/** A change in a chain is felt so many segments away, no further. */
const NEIGHBOURS = 2;
/** A corner that turns by more than this, in radians, may be a cusp. */
const CUSP = 2.3;

const all = (sp: Spline): boolean[] => new Array<boolean>(segmentsOf(sp)).fill(true);

/** The segments near `these`, themselves included. */
function around(sp: Spline, these: readonly number[]): boolean[] {
  const count = segmentsOf(sp);
  const near = new Array<boolean>(count).fill(false);
  for (const k of these) {
    for (let j = k - NEIGHBOURS; j <= k + NEIGHBOURS; j++) {
      if (sp.closed) near[((j % count) + count) % count] = true;
      else if (j >= 0 && j < count) near[j] = true;
    }
  }
  return near;
}

/** Relaxes the `active` segments as long as something there is wanting and each spell of rounds still gains. */
export function relaxWell(sp: Spline, s: Samples, standard: Standard, active = all(sp)): void {
  for (let spell = 0; spell < MOST_SPELLS; spell++) {
    const gains = relax(sp, s, RELAX_ROUNDS, Math.max(standard.noise, 0.05 * standard.tolerance), active);
    if (!gains) return;
    const failing = active.flatMap((is, k) => (is && excessOf(sp, s, k, standard) > 0 ? [k] : []));
    if (failing.length === 0) return;
    active = around(sp, failing);
  }
}

/** Cuts segments among `suspects` that do not hold, and relaxes what is around, until all do. */
export function settle(sp: Spline, s: Samples, standard: Standard, suspects = all(sp)): void {
  for (let round = 0; round < MOST_SPLITS; round++) {
    const excess = suspects.map((is, k) => (is ? excessOf(sp, s, k, standard) : 0));
    // Of neighbours that fail, the worse is cut: that may be all the other wants.
    const worst = excess.flatMap((e, k) => (e > 0 && e >= Math.max(excess[k - 1] ?? 0, excess[k + 1] ?? 0) ? [k] : []));
    if (worst.length === 0) return;
    for (const k of [...worst].reverse()) splitSegment(sp, s, k);
    suspects = around(
      sp,
      worst.flatMap((k, before) => [k + before, k + before + 1]),
    );
    relaxWell(sp, s, standard, suspects);
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

/**
 * The chain without the nodes between segments that one cubic can serve together; the same one if there are none. A
 * corner that turns back on itself may be the cusp of one cubic.
 */
export function merged(sp: Spline, s: Samples, standard: Standard, suspects = all(sp)): Spline {
  const ts = new Float64Array(s.n + 1);
  const curveAcross = (node: number) => {
    const [from, to] = [sp.cuts[node - 1], Math.min(sp.cuts[node + 1], sp.closed ? Infinity : s.n - 1)];
    const piece = pieceOf(s, from, to);
    if (!sp.corner[node]) return curveFor(piece, 0, piece.n - 1, ts, standard);
    return turnAt(sp, node) < CUSP ? null : cuspFor(piece, sp.cuts[node] - from, ts, standard);
  };
  const fewer = copyOf(sp);
  const changed: number[] = [];
  // From the end, so that no removal shifts a node that is still to come; never two in a row.
  for (let node = segmentsOf(sp) - 1; node >= 1; node--) {
    if (!suspects[node - 1] && !suspects[node]) continue;
    const controls = curveAcross(node);
    if (!controls) continue;
    removeNode(fewer, s, node, controls, ts);
    for (let i = 0; i < changed.length; i++) changed[i]--;
    changed.push(node - 1);
    node--;
  }
  if (changed.length === 0) return sp;
  const near = around(fewer, changed);
  relaxWell(fewer, s, standard, near);
  settle(fewer, s, standard, near);
  return segmentsOf(fewer) < segmentsOf(sp) ? merged(fewer, s, standard, all(fewer)) : sp;
}

/** By how much a chain turns at a node, in radians. */
function turnAt(sp: Spline, node: number): number {
  const turn = Math.abs(sp.wayOut[node] - sp.wayIn[node]) % (2 * Math.PI);
  return Math.min(turn, 2 * Math.PI - turn);
}

/**
 * Corners that turn out to turn by less than `cornerAngle` degrees are made smooth. A turn that is gone a few tolerances
 * away from the node is none either: a short handle that points astray. Gives whether there were any.
 */
export function smoothFalseCorners(sp: Spline, s: Samples, cornerAngle: number, standard: Standard): boolean {
  const least = (0.92 * cornerAngle * Math.PI) / 180;
  const reach = Math.max(3 * standard.tolerance, 8 * standard.noise);
  const smoothed = sp.corner.flatMap((isCorner, node) => {
    if (!isCorner || (!sp.closed && (node === 0 || node === sp.x.length - 1))) return [];
    const isFalse = turnAt(sp, node) < least;
    const across = isFalse ? null : turnAcross(sp, node, reach);
    return isFalse || (across && across.turn < least) ? [{ node, across }] : [];
  });
  for (const { node, across } of smoothed) {
    sp.corner[node] = false;
    if (across) leadAlong(sp, node, across.heading);
    else joinWays(sp, node);
  }
  if (smoothed.length > 0) {
    const active = around(
      sp,
      smoothed.map(({ node }) => node),
    );
    relaxWell(sp, s, standard, active);
  }
  return smoothed.length > 0;
}
