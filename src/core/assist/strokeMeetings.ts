/**
 * Where the ink across a stroke is not its own alone. What another adds always lies outwards, and as the line goes along a
 * rim leaps where paper between the two closes or opens: from a leap on, the rim is the other's until it has come back to
 * where it was; before a leap back, from where it left.
 */

/** A rim leaps where it moves by so much within so many places: px, and a share of how far off it is. */
const LEAP = { px: 0.9, share: 0.16, places: 2 };
/** A rim is back where it was within so much: px, a share. */
const BACK = { px: 0.45, share: 0.07 };
/** No meeting is longer than so many of both strokes' widths: they cross at some degrees at least. */
const LONGEST = 9;
/** A stroke that comes out of a meeting is no wider than so many times what went in. */
const ALIKE = 1.4;
/** Or than what it would have swelled to in the meantime, px for each px of it. */
const SWELL = 0.07;
const SLOPE_OVER = 16;
/** Another stroke shows by more than this many times the stroke's own, and 2 px. */
const MUCH = 1.6;
/** Where it never comes back, the stroke is its own again from where the rim last fell to no more than so many times that. */
const TWICE = 2.2;
/** How far ink is followed where it has no end, px. */
const WIDE = 30;
/** So many places to either side of a meeting lean to the other stroke already. */
const BEGINS = 2;
/** How far a rim is off before a leap: the middle of so many places. */
const BEFORE = 5;

/** For each place whether its rim is another stroke's. `found` are px from the stroke's middle, endless or NaN where none is seen. */
export function othersRims(found: Float64Array, closed: boolean, step: number): Uint8Array {
  const n = found.length;
  const rims = closed ? found : withoutCaps(found, step);
  const foreign = new Uint8Array(n);
  const place = (i: number): number => (closed ? ((i % n) + n) % n : i >= 0 && i < n ? i : -1);
  for (let i = 0; i < n; i++) if (!Number.isFinite(rims[i])) foreign[i] = 1;
  for (const way of [1, -1]) {
    for (let i = 0; i < n; i++) {
      const after = place(i + way * LEAP.places);
      if (after < 0) continue;
      const base = baseBefore(rims, i, way, place);
      if (!(base > 0) || !(rims[after] - base > Math.max(LEAP.px, LEAP.share * base))) continue;
      const sudden = rims[after] - rims[i] > Math.max(LEAP.px, LEAP.share * base) || !Number.isFinite(rims[after]);
      if (sudden) markMeeting(rims, foreign, i, way, base, step, place);
    }
  }
  return widened(foreign, BEGINS, place);
}

/** A round end's rims come nearer: within half a width of it they are as far off as there. */
function withoutCaps(found: Float64Array, step: number): Float64Array {
  const rims = found.slice();
  const sorted = found.filter(Number.isFinite).sort();
  const cap = Math.min(rims.length >> 2, Math.ceil((sorted[sorted.length >> 1] ?? 0) / step) + 2);
  for (const [end, inward] of [
    [0, 1],
    [rims.length - 1, -1],
  ]) {
    const full = rims[end + inward * cap];
    for (let k = 0; k < cap; k++) if (rims[end + inward * k] < full) rims[end + inward * k] = full;
  }
  return rims;
}

type Place = (i: number) => number;

/** How far the rim was off just before a place, the other way round. */
function baseBefore(rims: Float64Array, i: number, way: number, place: Place): number {
  const before: number[] = [];
  for (let k = 0; k < BEFORE; k++) {
    const at = place(i - way * k);
    if (at >= 0 && Number.isFinite(rims[at])) before.push(rims[at]);
  }
  before.sort((a, b) => a - b);
  return before[Math.floor((before.length - 1) / 3)] ?? NaN;
}

/** By how much a rim moves from place to place before a leap: the median over some places. */
function slopeBefore(rims: Float64Array, from: number, way: number, place: Place): number {
  const steps: number[] = [];
  for (let k = 1; k <= SLOPE_OVER; k++) {
    const [a, b] = [place(from - way * (k + 4)), place(from - way * k)];
    if (a >= 0 && b >= 0 && Number.isFinite(rims[a]) && Number.isFinite(rims[b])) steps.push((rims[b] - rims[a]) / 4);
  }
  steps.sort((a, b) => a - b);
  return steps.length < 4 ? 0 : steps[steps.length >> 1];
}

/** Marks what follows a leap, up to where the rim is back; a leap that is not much, and never comes back, is the stroke's own. */
function markMeeting(
  rims: Float64Array,
  foreign: Uint8Array,
  from: number,
  way: number,
  base: number,
  step: number,
  place: Place,
): void {
  const slope = slopeBefore(rims, from, way, place);
  let most = base;
  let end = 1;
  let lastFall: number | null = null;
  for (; end < rims.length; end++) {
    const at = place(from + way * end);
    if (at < 0) break;
    const off = rims[at];
    most = Math.max(most, off);
    if (end > LEAP.places && isBack(rims, from, way, end, base, slope, step, place)) break;
    if (end * step > LONGEST * (base + Math.min(most, 3 * base + WIDE))) {
      if (most < MUCH * base + 2) return;
      end = lastFall ?? end;
      break;
    }
    const fell = rims[place(from + way * (end - LEAP.places))] - off;
    if (end > LEAP.places && fell > MUCH * base && off <= TWICE * base) lastFall = end;
  }
  for (let d = 1; d < end; d++) foreign[place(from + way * d)] = 1;
}

/** Whether a rim is about where it was before it leapt, or has leapt back to about that. */
function isBack(
  rims: Float64Array,
  from: number,
  way: number,
  d: number,
  base: number,
  slope: number,
  step: number,
  place: Place,
): boolean {
  const off = rims[place(from + way * d)];
  const here = base * Math.max(0.9, Math.min(1.5, 1 + (slope * d) / base));
  if (off <= here + Math.max(BACK.px, BACK.share * here)) return true;
  // What lies between may have swelled or tapered.
  const leaps = rims[place(from + way * (d - LEAP.places))] - off > Math.max(LEAP.px, LEAP.share * off);
  const falls = rims[place(from + way * (d + 2))] < off - 1;
  return leaps && !falls && off <= Math.max(ALIKE * here, here + SWELL * d * step);
}

/** What is marked, and so many places to either side of it. */
function widened(marked: Uint8Array, by: number, place: Place): Uint8Array {
  const result = marked.slice();
  marked.forEach((is, i) => {
    if (!is) return;
    for (let d = -by; d <= by; d++) {
      const at = place(i + d);
      if (at >= 0) result[at] = 1;
    }
  });
  return result;
}
