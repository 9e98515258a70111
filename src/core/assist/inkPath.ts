import { stepOf, type Places } from '../geometry/along';
import { smoothed } from '../geometry/smoothed';
import { ledToEnds } from './pathEnds';
import { profilesAcross, STEP, strokeBeneath, type Profiles, type Stroke } from './profile';
import type { Tracked } from './tracked';

/**
 * Where the ink (or the edge) beneath a line runs: for each place how far across it lies, px to the right of the way;
 * NaN where there is none within reach. `half` is half the stroke's width, 0 for an edge; `level` how dark or steep it is.
 */
export type InkPath = Stroke & { readonly offset: Float64Array };

/** The widest stroke whose middle is found, as half its width, px. */
const WIDEST = 24;
/** A stroke's rims are looked for so many half widths from its supposed middle. */
const RIM_REACH = 1.9;
/** How much dearer it is to be off the line by the whole reach than in the middle of clear ink. */
const AWAY = 0.22;
/** What each step across costs more than going straight on. */
const BEND = 0.09;
const MOST_STEPS = 2;
/** At an end in another's ink the way is led straight on over so many half widths at most. */
const LED = 4;
/** Single rows jitter: their neighbours take that out. */
const EVEN = [6, 2, 1];
/** Having no ink, and going from ink to none. */
const NONE = 0.72;
const LEAVE = 3;

/**
 * Traces the ink along a line: of all ways that run beside it within reach, the one that keeps best to the middle of a
 * stroke as wide as the line's, without sudden bends (an active contour by dynamic programming: Amini, Weymouth and Jain
 * 1990; Geiger et al. 1995). So it passes straight through crossings, and does not go over to a neighbour. A stroke that
 * is known, as from the whole of a line of which this is a part, is not looked for, and less is looked at.
 */
export function inkPath(picture: Tracked, places: Places, reach: number, known?: Stroke): InkPath | null {
  if (picture.target === 'edge') return edgePath(picture, places, reach);
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
  return rows.some((k) => k >= 0) ? { offset: smoothed(offset, EVEN, places.closed), half, level: stroke.level } : null;
}

/** How well each offset of each place would do, 0…1; below 0 where there is nothing. */
type Scores = { readonly width: number; readonly values: Float32Array };

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

/** The edge along a line: the one whose dark side stays on the same side. */
function edgePath(picture: Tracked, places: Places, reach: number): InkPath | null {
  const profiles = profilesAcross(picture, places, reach + 1);
  const { n, width, values } = profiles;
  const cells = 2 * Math.floor(reach / STEP) + 1;
  const shift = (width - cells) / 2;
  const strongest = Array.from({ length: n }, (_, i) =>
    values.subarray(i * width, (i + 1) * width).reduce((m, v) => Math.max(m, Math.abs(v)), 0),
  ).sort((a, b) => a - b);
  const level = strongest[n >> 1];
  if (!(level >= picture.clear)) return null;
  let best: { rows: Int32Array; score: number; sign: number } | null = null;
  for (const sign of [1, -1]) {
    const scores = new Float32Array(n * cells);
    for (let i = 0; i < n; i++) {
      for (let c = 0; c < cells; c++) {
        const v = (sign * values[i * width + c + shift]) / level;
        scores[i * cells + c] = v < 0.25 ? -1 : Math.min(1, v);
      }
    }
    const rows = bestWay({ width: cells, values: scores }, n, places.closed);
    const score = rows.reduce((sum, k, i) => sum + (k < 0 ? 0 : scores[i * cells + k] - AWAY), 0);
    if (!best || score > best.score) best = { rows, score, sign };
  }
  const { rows, sign } = best!;
  if (!rows.some((k) => k >= 0)) return null;
  const offset = Float64Array.from(rows, (k, i) => {
    if (k < 0) return NaN;
    const [a, b, c] = [-1, 0, 1].map((d) => sign * values[i * width + k + shift + d]);
    const curve = a - 2 * b + c;
    const off = curve < 0 ? Math.max(-1, Math.min(1, (0.5 * (a - c)) / curve)) : 0;
    return (k + off - (cells - 1) / 2) * STEP;
  });
  return { offset: smoothed(offset, EVEN, places.closed), half: 0, level };
}

/** The cheapest way along the places, as a cell each; −1 where there is nothing (Viterbi 1967). Closed lines go round twice. */
function bestWay({ width, values }: Scores, n: number, closed: boolean): Int32Array {
  const laps = closed ? 2 : 1;
  const total = n * laps;
  const states = width + 1;
  const from = new Int16Array(total * states);
  let cost = new Float64Array(states);
  let next = new Float64Array(states);
  const middle = (width - 1) / 2;
  const aside = Float64Array.from({ length: width }, (_, c) => {
    const away = Math.abs(c - middle) / Math.max(1, middle);
    return AWAY * away * away + 0.03 * away;
  });
  for (let c = 0; c < width; c++) cost[c] = values[c] < 0 ? Infinity : 1 - values[c] + aside[c];
  cost[width] = NONE;
  for (let i = 1; i < total; i++) {
    let cheapest = Infinity;
    let cheapestAt = width;
    for (let c = 0; c < width; c++) {
      if (cost[c] >= cheapest) continue;
      cheapest = cost[c];
      cheapestAt = c;
    }
    const row = (i % n) * width;
    for (let c = 0; c < width; c++) {
      if (values[row + c] < 0) {
        next[c] = Infinity;
        from[i * states + c] = width;
        continue;
      }
      let best = cost[width] + LEAVE;
      let at = width;
      const last = Math.min(width - 1, c + MOST_STEPS);
      for (let k = Math.max(0, c - MOST_STEPS); k <= last; k++) {
        const v = cost[k] + BEND * (k - c) * (k - c);
        if (v >= best) continue;
        best = v;
        at = k;
      }
      next[c] = best + 1 - values[row + c] + aside[c];
      from[i * states + c] = at;
    }
    const stays = cost[width] <= cheapest + LEAVE;
    next[width] = (stays ? cost[width] : cheapest + LEAVE) + NONE;
    from[i * states + width] = stays ? width : cheapestAt;
    [cost, next] = [next, cost];
  }
  let at = 0;
  for (let c = 1; c < states; c++) if (cost[c] < cost[at]) at = c;
  const rows = new Int32Array(n);
  // Of two laps the second's beginning and the first's end know what comes before and after them.
  const first = closed ? n >> 1 : 0;
  for (let i = total - 1; i >= 0; i--) {
    if (i >= first && i < first + n) rows[i % n] = at === width ? -1 : at;
    at = from[i * states + at];
  }
  return rows;
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
