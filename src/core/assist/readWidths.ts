import { darknessOf, inkIn, medianDarkness } from './inkMask';
import { inkPath, type InkPath } from './inkPath';
import { profilesAcross, STEP, strokeBeneath, type Profiles } from './profile';
import { trackedInkOf, type TrackedInk } from './tracked';
import { assertReach } from './tracked';
import type { Mark } from '../drawing/schema';
import { assertRun, placesAlong, stepOf, type CubicRun, type Places } from '../geometry/along';
import { smoothed } from '../geometry/smoothed';
import { assertGrayImage, type GrayImage } from '../raster/grayImage';
import { softWidths } from './softStroke';
import { othersRims } from './strokeMeetings';
import { rimsOf } from './strokeRims';
import { thinnedMarks } from '../ink/thinMarks';

/** How far apart a stroke is measured, px. */
const SPACING = 2;
/** The widest stroke that is read, as half its width, px. */
const WIDEST = 24;
/** Marks are thinned out to as few as tell the widths so well, px. */
const THINNING = 0.12;
/** A stroke ends across where less than this share of its full darkness is left. */
const FADED = 0.1;
/** Strokes of less than so many px to each side are thin: what blurs them leaves no full ink in their middle. */
const THIN = 2;
/** Up to so many px to each side that is made good for. */
const SOFT = 4;
/** The stroke's middle is so many steps from where it was supposed, at most; each costs so much of full ink. */
const [ASIDE, AWAY] = [6, 0.06];
/** Between this stroke and the next it gets lighter by so much of it, and darker again. */
const RISE = 0.25;
/** What is wider than its neighbours by this much (a share, and px) is a meeting with another stroke. */
const MEETING = { share: 1.35, px: 1 };
const AROUND = 12;
const BEGINS = 2;
const BELL = [0.24, 0.2, 0.12, 0.06];

/**
 * The widths of the ink beneath a run, as half-widths to both sides of it, left of the direction of travel first; px of the
 * picture; `at` is 0…1 of its length. Across the ink its darkness is summed up and told in full ink: a stroke's width is
 * its sum, whatever blurred it (its equivalent width, as of a spectral line); how dark a thin one's full ink would be is
 * told from the shape of its profiles (`softWidths`). Where strokes meet the width goes over
 * from one side to the other. No marks where no ink lies within `reach` px.
 * @throws RangeError for a bad run or picture, or a reach that is not above 0.
 */
export function readWidths(run: CubicRun, image: GrayImage, options: { reach: number }): Mark[] {
  assertRun(run);
  assertGrayImage(image);
  assertReach(options);
  const places = placesAlong(run, SPACING);
  const path = strokePath(trackedInkOf(image), places, options.reach);
  if (!path) return [];
  const raw = unsmoothed(image);
  const profiles = profilesAcross(raw.tracked, places, options.reach + WIDEST + 2);
  const full = fullDarkness(profiles, path.offset, path.half);
  const sums = Array.from(path.offset, (o, i) =>
    Number.isNaN(o) ? null : acrossStroke(profiles, i, o, full, raw.grain),
  );
  const alone = aloneAt(profiles, path.offset, full, raw.grain, places.closed, stepOf(places));
  // Of a stroke that is nowhere alone all there is to go by is the whole.
  if (sums.some((s, i) => s && alone[i]))
    sums.forEach((_, i) => {
      if (!alone[i]) sums[i] = null;
    });
  const ink = path.half < SOFT ? inkOfThin(profiles, path.offset, path.half, raw.grain, sums) : null;
  const read = sums.map((s) => s && sidesOf(s, ink ?? full - raw.grain));
  withoutMeetings(read, places.closed);
  const sides = (['left', 'right'] as const).map((side) =>
    smoothed(
      filled(
        read.map((r) => r && Math.max(0, r[side])),
        places.closed,
      ),
      BELL,
      places.closed,
    ),
  );
  const total = places.length || 1;
  const marks = Array.from(places.along, (along, i): Mark => {
    const [left, right] = [sides[0][i], sides[1][i]];
    return { at: Math.min(1, along / total), left, right };
  });
  if (!places.closed) evenEnds(marks, total);
  // A closed run ends as it begins.
  if (places.closed) marks.push({ ...marks[0], at: 1 });
  return thinnedMarks(marks, THINNING);
}

/** So much of a line without a stroke of its width: it lies under a wider one for the most part. */
const LOST = 0.25;
/** Then at least so much of it is seen. */
const SEEN = 0.12;

/** The ink's way beneath a run; where it lies under wider strokes for long, by the little of it that is seen. */
function strokePath(picture: TrackedInk, places: Places, reach: number): InkPath | null {
  const path = inkPath(picture, places, reach);
  const lost = (p: InkPath): number => p.offset.reduce((count, o) => count + (Number.isNaN(o) ? 1 : 0), 0);
  if (!path || lost(path) < LOST * places.n) return path;
  const thin = strokeBeneath(profilesAcross(picture, places, reach + WIDEST + 2), picture.clear, reach, SEEN);
  const other = thin && inkPath(picture, places, reach, thin);
  return other && lost(other) < lost(path) ? other : path;
}

/** Looks through a picture ahead of the first line that is read from it: seconds for a large one. */
export function prepareWidths(image: GrayImage): void {
  trackedInkOf(image);
  unsmoothed(image);
}

/** Where the ink across a stroke is its own alone, by both its rims. */
function aloneAt(
  profiles: Profiles,
  offset: Float64Array,
  full: number,
  grain: number,
  closed: boolean,
  step: number,
): Uint8Array {
  const whole = rimsOf(profiles, offset, full, grain);
  const across = whole.left.map((l, i) => l + whole.right[i]);
  const wide = othersRims(across, closed, step);
  const middles = offset.map((o, i) => (Number.isFinite(across[i]) ? o + (whole.right[i] - whole.left[i]) / 2 : o));
  const straight = steadied(middles, wide, closed);
  const { left, right } = rimsOf(profiles, straight, full, grain);
  const [others, besides] = [othersRims(left, closed, step), othersRims(right, closed, step)];
  return wide.map((is, i) => (is || others[i] || besides[i] ? 0 : 1));
}

/** A stroke's middle as it is, but where another's ink is mixed in: there it goes over from one side to the other. */
function steadied(offset: Float64Array, mixed: Uint8Array, closed: boolean): Float64Array {
  const known = Array.from(offset, (o, i) => (mixed[i] || Number.isNaN(o) ? null : o));
  if (known.every((o) => o === null)) return offset;
  const even = filled(known, closed);
  return offset.map((o, i) => (Number.isNaN(o) ? o : even[i]));
}

type Sides = { left: number; right: number };

const known = new WeakMap<GrayImage, { tracked: TrackedInk; grain: number }>();

/** How much darker than its paper each pixel is, without smoothing, and how dark the bare paper is at the median. */
function unsmoothed(image: GrayImage): { tracked: TrackedInk; grain: number } {
  let found = known.get(image);
  if (!found) {
    const { width, height } = image;
    const values = darknessOf(image, image);
    const grain = medianDarkness(values, inkIn(image).mask, 0);
    known.set(image, (found = { tracked: { target: 'ink', width, height, values, clear: 0 }, grain }));
  }
  return found;
}

/** How dark this stroke is where it is wholly ink: the mean about its middle, and of all places the upper quarter's end. */
function fullDarkness({ n, width, values }: Profiles, offset: Float64Array, half: number): number {
  const middle = (width - 1) / 2;
  // A thin stroke is wholly ink in its middle at most.
  const inner = half < THIN ? 0 : Math.round(half / 2 / STEP);
  const means: number[] = [];
  for (let i = 0; i < n; i++) {
    if (Number.isNaN(offset[i])) continue;
    let at = Math.max(1, Math.min(width - 2, Math.round(middle + offset[i] / STEP)));
    if (inner === 0)
      at = [at - 1, at, at + 1].reduce((a, b) => (values[i * width + b] > values[i * width + a] ? b : a));
    const [from, to] = [Math.max(0, at - inner), Math.min(width - 1, at + inner)];
    let sum = 0;
    for (let k = from; k <= to; k++) sum += values[i * width + k];
    means.push(sum / (to - from + 1));
  }
  means.sort((a, b) => a - b);
  return Math.max(1, means[Math.floor(0.75 * (means.length - 1))]);
}

/** How much darker than paper a thin stroke would be where it is wholly ink, were it not blurred; null where that is not told. */
function inkOfThin(
  profiles: Profiles,
  offset: Float64Array,
  half: number,
  grain: number,
  sums: readonly (Sum | null)[],
): number | null {
  const inks = [...softWidths(profiles, offset, half, grain)].flatMap(([place, width]) => {
    const s = sums[place];
    return s && width > 0 ? [s.sum / width] : [];
  });
  inks.sort((a, b) => a - b);
  return inks.length > 0 ? inks[Math.floor(0.6 * (inks.length - 1))] : null;
}

/** A stroke's darkness at one place, summed up across it (times px), and its middle: px to the right of the line. */
type Sum = { readonly sum: number; readonly centre: number };

/** As far from the line as full ink of the same sum and middle would reach. */
function sidesOf({ sum, centre }: Sum, ink: number): Sides {
  const half = sum / ink / 2;
  return { left: half - centre, right: half + centre };
}

function acrossStroke({ width, values }: Profiles, i: number, offset: number, full: number, grain: number): Sum | null {
  const middle = (width - 1) / 2;
  const row = i * width;
  const near = Math.max(1, Math.min(width - 2, Math.round(middle + offset / STEP)));
  // Where the stroke is much thinner than on the whole, its supposed middle can lie beside it.
  let start = near;
  const merit = (k: number): number => values[row + k] - AWAY * full * Math.abs(k - near);
  for (let k = Math.max(1, near - ASIDE); k <= Math.min(width - 2, near + ASIDE); k++)
    if (merit(k) > merit(start)) start = k;
  const edge = (sign: 1 | -1): number => {
    let [lowest, at] = [values[row + start], start];
    for (let k = start + sign; k >= 0 && k < width; k += sign) {
      const v = values[row + k];
      if (v < lowest) [lowest, at] = [v, k];
      if (v < FADED * full + grain) return k;
      if (lowest < 0.6 * full && v > lowest + RISE * full) return at;
    }
    return sign > 0 ? width - 1 : 0;
  };
  const [from, to] = [edge(-1), edge(1)];
  let [sum, moment] = [0, 0];
  for (let k = from; k <= to; k++) {
    const v = Math.max(0, values[row + k] - grain);
    sum += v;
    moment += v * (k - middle) * STEP;
  }
  return sum > 0 ? { sum: sum * STEP, centre: moment / sum } : null;
}

/** A stroke's round ends are not its widths: nearer to them than half its width it is as wide as there. */
function evenEnds(marks: Mark[], total: number): void {
  const isClear = (m: Mark, away: number): boolean => away * total >= (m.left + m.right) / 2;
  const [first, last] = [marks.findIndex((m) => isClear(m, m.at)), marks.findLastIndex((m) => isClear(m, 1 - m.at))];
  if (first < 0 || last < first) return;
  marks.forEach((m, i) => {
    const from = i < first ? marks[first] : i > last ? marks[last] : m;
    marks[i] = { at: m.at, left: from.left, right: from.right };
  });
}

/** Takes out what is far wider than what lies around it, and where that begins. */
function withoutMeetings(read: (Sides | null)[], closed: boolean): void {
  const n = read.length;
  const widths = read.map((r) => (r ? r.left + r.right : NaN));
  widths.forEach((w, i) => {
    const near: number[] = [];
    for (let d = -AROUND; d <= AROUND; d++) {
      const k = closed ? (i + d + n) % n : i + d;
      if (k >= 0 && k < n && !Number.isNaN(widths[k])) near.push(widths[k]);
    }
    near.sort((a, b) => a - b);
    if (!(w > MEETING.share * near[near.length >> 1] + MEETING.px)) return;
    for (let d = -BEGINS; d <= BEGINS; d++) {
      const k = closed ? (i + d + n) % n : i + d;
      if (k >= 0 && k < n) read[k] = null;
    }
  });
}

/** What is not known goes over from one neighbour that is to the next; 0 throughout where nothing is. */
function filled(list: readonly (number | null)[], closed: boolean): Float64Array {
  const n = list.length;
  const nearest = (i: number, sign: 1 | -1): { value: number; away: number } | null => {
    for (let d = 0; d < n; d++) {
      const k = closed ? (i + sign * d + n * n) % n : i + sign * d;
      if (k < 0 || k >= n) return null;
      const value = list[k];
      if (value !== null) return { value, away: d };
    }
    return null;
  };
  return Float64Array.from(list, (v, i) => {
    if (v !== null) return v;
    const [a, b] = [nearest(i, -1), nearest(i, 1)];
    if (!a || !b) return (a ?? b)?.value ?? 0;
    return a.value + ((b.value - a.value) * a.away) / (a.away + b.away);
  });
}
