import type { Mark } from '../drawing/schema';

/** A stroke's half-widths at one place, and how fast they change there, by share of the length. */
export type Widths = { left: number; right: number; leftSlope: number; rightSlope: number };

/** The widths along a stroke, read at a share of its length; at a sharp mark from `before` or after it. */
export type WidthProfile = {
  readonly marks: readonly Mark[];
  at(share: number, before?: boolean): Widths;
};

type Side = { value: number[]; into: number[]; outOf: number[] };

/** Marks closer together than this, by share, count as one: the later. */
const TOGETHER = 1e-7;

/**
 * The widths that marks set, by monotone cubic interpolation: through every mark, never beyond two neighbours, without a
 * kink but at sharp marks (Steffen 1990, "A simple method for monotonic interpolation in one dimension"). Level before
 * the first mark and after the last; a closed stroke goes on across its seam instead.
 * @throws RangeError when there is no mark, or one that is not finite, is negative, lies outside 0…1 or does not rise.
 */
export function widthProfile(marks: readonly Mark[], closed = false): WidthProfile {
  assertMarks(marks);
  const own = marks.filter((m, i) => i === marks.length - 1 || marks[i + 1].at - m.at > TOGETHER);
  const knots = own.length > 1 ? (closed ? around(own) : levelled(own)) : own;
  const xs = knots.map((m) => m.at);
  const sharp = knots.map((m) => m.sharp === true);
  const sides = { left: sideOf(xs, knots, 'left', sharp), right: sideOf(xs, knots, 'right', sharp) };
  return {
    marks: own,
    at: (share, before = false) => {
      const k = gapOf(xs, share, before);
      const [left, leftSlope] = inGap(xs, sides.left, k, share);
      const [right, rightSlope] = inGap(xs, sides.right, k, share);
      return { left, right, leftSlope, rightSlope };
    },
  };
}

/** Level to both ends: a mark further out, so that the way to it begins without a kink. */
function levelled(marks: readonly Mark[]): Mark[] {
  const [first, last] = [marks[0], marks.at(-1)!];
  return [
    ...(first.at > TOGETHER ? [{ ...first, at: first.at - 1, sharp: false }] : []),
    ...marks,
    ...(last.at < 1 - TOGETHER ? [{ ...last, at: last.at + 1, sharp: false }] : []),
  ];
}

/** The marks of a closed stroke with their neighbours across the seam. */
function around(marks: readonly Mark[]): Mark[] {
  const [first, last] = [marks[0], marks.at(-1)!];
  const meets = first.at < TOGETHER && last.at > 1 - TOGETHER;
  // A stroke whose ends differ keeps its step at the seam.
  if (meets && (first.left !== last.left || first.right !== last.right)) return [...marks];
  const ring = meets ? marks.slice(0, -1) : marks;
  const shifted = (by: number): Mark[] => ring.map((m) => ({ ...m, at: m.at + by }));
  return [...shifted(-1).slice(-2), ...ring, ...shifted(1).slice(0, 2)];
}

function sideOf(xs: number[], marks: readonly Mark[], side: 'left' | 'right', sharp: boolean[]): Side {
  const value = marks.map((m) => m[side]);
  const secant = xs.slice(1).map((x, i) => (value[i + 1] - value[i]) / (x - xs[i]));
  const slope = value.map((_, i) => {
    const [a, b] = [secant[i - 1], secant[i]];
    if (a === undefined || b === undefined) return a ?? b ?? 0;
    const [h, k] = [xs[i] - xs[i - 1], xs[i + 1] - xs[i]];
    const middle = (a * k + b * h) / (h + k);
    return (Math.sign(a) + Math.sign(b)) * Math.min(Math.abs(a), Math.abs(b), 0.5 * Math.abs(middle));
  });
  return {
    value,
    into: slope.map((s, i) => (sharp[i] ? (secant[i - 1] ?? s) : s)),
    outOf: slope.map((s, i) => (sharp[i] ? (secant[i] ?? s) : s)),
  };
}

/** The number of the mark that a share lies behind. */
function gapOf(xs: number[], share: number, before: boolean): number {
  let [low, high] = [0, xs.length - 1];
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (before ? xs[middle] < share : xs[middle] <= share) low = middle;
    else high = middle - 1;
  }
  return low;
}

/** The value and slope of the cubic between two marks; level beyond them. */
function inGap(xs: number[], { value, into, outOf }: Side, k: number, x: number): [number, number] {
  if (x < xs[k] || k === xs.length - 1) return [value[k], 0];
  const h = xs[k + 1] - xs[k];
  const t = (x - xs[k]) / h;
  const [a, b, da, db] = [value[k], value[k + 1], outOf[k] * h, into[k + 1] * h];
  const c2 = 3 * (b - a) - 2 * da - db;
  const c3 = 2 * (a - b) + da + db;
  return [Math.max(0, a + t * (da + t * (c2 + t * c3))), (da + t * (2 * c2 + 3 * t * c3)) / h];
}

function assertMarks(marks: readonly Mark[]): void {
  if (!Array.isArray(marks) || marks.length === 0) throw new RangeError('a stroke needs at least one width');
  marks.forEach((m, i) => {
    if (!(m.left >= 0 && m.right >= 0 && m.left < Infinity && m.right < Infinity))
      throw new RangeError('half-widths must be finite and not negative');
    if (!(m.at >= 0 && m.at <= 1)) throw new RangeError('widths lie at 0 to 1 of the length');
    if (i > 0 && m.at < marks[i - 1].at) throw new RangeError('widths must rise along the length');
  });
}
