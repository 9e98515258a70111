import { stepOf, type Places } from '../geometry/along';
import { smoothed } from '../geometry/smoothed';
import { ledToEnds } from './pathEnds';
import { profilesAcross, STEP, strokeBeneath, type Profiles, type Stroke } from './profile';
import { bestWay, type Scores } from '../geometry/viterbi';
import { edgePath } from '../edges/edgePath';
import type { Tracked } from './tracked';

/**
 * Where the ink (or the edge) beneath a line runs: for each place how far across it lies, px to the right of the way;
 * NaN where there is none within reach. `half` is half the stroke's width, 0 for an edge; `level` how dark or steep it is.
 */
export type InkPath = Stroke & {
  readonly offset: Float64Array;
  /** So far beside a corner, px, what is seen is not of one side alone. */
  readonly blind: number;
};

/** Ink is blind beyond half its width, edges as far as the colours around them are looked at. */
const BESIDE_INK = 2;
const BLIND = 5;

/** The widest stroke whose middle is found, as half its width, px. */
const WIDEST = 24;
/** A stroke's rims are looked for so many half widths from its supposed middle. */
const RIM_REACH = 1.9;
/** At an end in another's ink the way is led straight on over so many half widths at most. */
const LED = 4;
/** Single rows jitter: their neighbours take that out. */
const EVEN = [6, 2, 1];

/**
 * Traces the ink along a line: of all ways that run beside it within reach, the one that keeps best to the middle of a
 * stroke as wide as the line's, without sudden bends (an active contour by dynamic programming: Amini, Weymouth and Jain
 * 1990; Geiger et al. 1995). So it passes straight through crossings, and does not go over to a neighbour. A stroke that
 * is known, as from the whole of a line of which this is a part, is not looked for, and less is looked at.
 */
export function inkPath(picture: Tracked, places: Places, reach: number, known?: Stroke): InkPath | null {
  if (picture.target === 'edge') {
    const offset = edgePath(picture.lab, places, reach);
    return offset && { offset, half: 0, level: 1, blind: BLIND };
  }
  const beyond = known ? Math.min(WIDEST, RIM_REACH * known.half + 2) : WIDEST;
  const wide = profilesAcross(picture, places, reach + beyond + 2);
  const stroke = known ?? strokeBeneath(wide, picture.clear, reach);
  if (!stroke) return null;
  const half = Math.min(WIDEST, stroke.half);
  const scores = inkScores(wide, { ...stroke, half }, reach, picture.clear);
  const rows = bestWay(scores, places.n, places.closed);
  const sure = new Uint8Array(places.n);
  const offset = Float64Array.from(rows, (k, i) => {
    if (k < 0) return NaN;
    const middle = refined(wide, i, (k - (scores.width - 1) / 2) * STEP, half, stroke.level);
    if (middle.isOwn) sure[i] = 1;
    return middle.offset;
  });
  if (!places.closed) ledToEnds(offset, sure, Math.ceil((LED * half + 2) / stepOf(places)));
  return rows.some((k) => k >= 0)
    ? { offset: smoothed(offset, EVEN, places.closed), half, level: stroke.level, blind: half + BESIDE_INK }
    : null;
}

const FLANK = 0.3;

function inkScores({ n, width, values }: Profiles, { half, level }: Stroke, reach: number, clear: number): Scores {
  const most = Math.floor(reach / STEP);
  const cells = 2 * most + 1;
  const scores = new Float32Array(n * cells);
  const inside = half / STEP;
  const flank = Math.max(2, (0.7 * half) / STEP);
  // Sums from the row's beginning on, with room on both sides: there is nothing beyond a row's ends.
  const room = Math.ceil(inside + flank) + 2;
  const sums = new Float64Array(width + 1 + 2 * room);
  const first = room + (width - 1) / 2 - most + 0.5;
  // Where its flanks and rims lie in the sums, and how far beyond that cell.
  const bounds = [-inside - flank, -inside, inside, inside + flank].map((by) => first + by);
  const [l2, l1, r1, r2] = bounds.map(Math.floor);
  const [l2f, l1f, r1f, r2f] = bounds.map((b) => b - Math.floor(b));
  const least = Math.max(clear, 0.4 * level);
  const cap = 1.15 * level;
  for (let i = 0; i < n; i++) {
    let sum = 0;
    for (let k = 0; k < width; k++) {
      sum += Math.min(cap, values[i * width + k]);
      sums[room + k + 1] = sum;
    }
    sums.fill(sum, room + width + 1);
    for (let c = 0; c < cells; c++) {
      const outerLeft = sums[l2 + c] + (sums[l2 + c + 1] - sums[l2 + c]) * l2f;
      const innerLeft = sums[l1 + c] + (sums[l1 + c + 1] - sums[l1 + c]) * l1f;
      const innerRight = sums[r1 + c] + (sums[r1 + c + 1] - sums[r1 + c]) * r1f;
      const outerRight = sums[r2 + c] + (sums[r2 + c + 1] - sums[r2 + c]) * r2f;
      const within = (innerRight - innerLeft) / (2 * inside);
      const beside = (innerLeft - outerLeft + outerRight - innerRight) / (2 * flank);
      scores[i * cells + c] = within < least ? -1 : Math.max(0, (within - 2 * FLANK * beside) / level);
    }
  }
  return { width: cells, values: scores };
}

/** Where the middle of a stroke is, and whether the ink across is the stroke's alone. */
type Middle = { offset: number; isOwn: boolean };

/**
 * The middle of a stroke near an offset: midway between its rims, where these lie as far apart as the stroke is wide;
 * half a width from the one rim that is seen where the other is lost in a meeting; else the offset itself.
 */
function refined({ width, values }: Profiles, i: number, offset: number, half: number, level: number): Middle {
  const middle = (width - 1) / 2;
  const row = i * width;
  const top = Math.min(level, peakNear(values, row, width, middle + offset / STEP, half / STEP));
  const rim = 0.5 * top;
  const find = (sign: 1 | -1): number | null => {
    const most = (RIM_REACH * half + 1) / STEP;
    const start = Math.round(middle + offset / STEP);
    if (start < 1 || start >= width - 1 || values[row + start] < rim) return null;
    for (let d = 1; d <= most; d++) {
      const k = start + sign * d;
      if (k < 0 || k >= width) return null;
      const v = values[row + k];
      if (v >= rim) continue;
      const before = values[row + k - sign];
      return (k - sign + (sign * (before - rim)) / (before - v) - middle) * STEP;
    }
    return null;
  };
  const [left, right] = [find(-1), find(1)];
  if (left !== null && right !== null && Math.abs(right - left - 2 * half) < 0.35 * half + 0.5)
    return { offset: (left + right) / 2, isOwn: true };
  // The farther rim of a wide place may be another stroke's: the nearer to what is expected is believed.
  const guesses = [left === null ? null : left + half, right === null ? null : right - half].filter(
    (g): g is number => g !== null && Math.abs(g - offset) < 0.5 * half + 0.5,
  );
  if (guesses.length === 0) return { offset, isOwn: false };
  return { offset: guesses.reduce((a, b) => (Math.abs(b - offset) < Math.abs(a - offset) ? b : a)), isOwn: false };
}

function peakNear(values: Float32Array, row: number, width: number, at: number, half: number): number {
  let peak = 0;
  for (let k = Math.max(0, Math.floor(at - half)); k <= Math.min(width - 1, Math.ceil(at + half)); k++)
    peak = Math.max(peak, values[row + k]);
  return peak;
}
