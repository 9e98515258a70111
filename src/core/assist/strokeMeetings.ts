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

/** The rim so many places on from where one stands, or back; NaN where there is none, or the line has ended. */
type Walk = (d: number) => number;

/** For each place whether its rim is another stroke's. `found` are px from the stroke's middle, endless or NaN where none is seen. */
export function othersRims(found: Float64Array, closed: boolean, step: number): Uint8Array {
  const n = found.length;
  const rims = closed ? found : withoutCaps(found, step);
  const place = (i: number): number => (closed ? ((i % n) + n) % n : i);
  const foreign = Uint8Array.from(rims, (r) => (Number.isFinite(r) ? 0 : 1));
  for (const way of [1, -1]) {
    for (let i = 0; i < n; i++) {
      const walk: Walk = (d) => rims[place(i + way * d)] ?? NaN;
      const base = baseBefore(walk);
      const leap = Math.max(LEAP.px, LEAP.share * base);
      const after = walk(LEAP.places);
      if (!(base > 0 && after - base > leap) || after - walk(0) <= leap) continue;
      const end = endOfMeeting(walk, base, step, n);
      for (let d = 1; d < end; d++) foreign[place(i + way * d)] = 1;
    }
  }
  return foreign.map((_, i) => {
    for (let d = -BEGINS; d <= BEGINS; d++) if (foreign[place(i + d)]) return 1;
    return 0;
  });
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

/** How far the rim was off just before. */
function baseBefore(walk: Walk): number {
  const before = Array.from({ length: BEFORE }, (_, k) => walk(-k)).filter(Number.isFinite);
  before.sort((a, b) => a - b);
  return before[Math.floor((before.length - 1) / 3)] ?? NaN;
}

/** By how much the rim moved from place to place before: the median over some places. */
function slopeBefore(walk: Walk): number {
  const steps = Array.from({ length: SLOPE_OVER }, (_, k) => (walk(-k - 1) - walk(-k - 5)) / 4).filter(Number.isFinite);
  steps.sort((a, b) => a - b);
  return steps.length < 4 ? 0 : steps[steps.length >> 1];
}

/**
 * After how many places a rim that has leapt is back, or the line ends; 0 where the leap is not much and never comes back:
 * that is the stroke's own.
 */
function endOfMeeting(walk: Walk, base: number, step: number, n: number): number {
  const slope = slopeBefore(walk);
  let most = base;
  let lastFall: number | null = null;
  for (let d = 1; d < n; d++) {
    const off = walk(d);
    if (Number.isNaN(off)) return d;
    most = Math.max(most, off);
    // As wide as it would have become until here.
    const here = base * Math.max(0.9, Math.min(1.5, 1 + (slope * d) / base));
    if (d > LEAP.places && isBack(walk, d, here, step)) return d;
    if (d * step > LONGEST * (base + Math.min(most, 3 * base + WIDE)))
      return most < MUCH * base + 2 ? 0 : (lastFall ?? d);
    if (d > LEAP.places && walk(d - LEAP.places) - off > MUCH * base && off <= TWICE * base) lastFall = d;
  }
  return n;
}

/** Whether a rim is about `here`, or has leapt back to about that: what lies between may have swelled or tapered. */
function isBack(walk: Walk, d: number, here: number, step: number): boolean {
  const off = walk(d);
  if (off <= here + Math.max(BACK.px, BACK.share * here)) return true;
  const leaps = walk(d - LEAP.places) - off > Math.max(LEAP.px, LEAP.share * off);
  const falls = walk(d + 2) < off - 1;
  return leaps && !falls && off <= Math.max(ALIKE * here, here + SWELL * d * step);
}
