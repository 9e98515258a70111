import { labDistance, type Lab } from './oklab';

/** Steps to the median, and to the middle of what lies about it. */
const ROUNDS = { median: 24, middle: 6 };
const STILL = 1e-5;
/** What lies further from the middle than so many times the usual distance does not count; nor less, nor more than these. */
const REACH = { times: 4, least: 0.03, most: 0.2 };

/**
 * The colour that is typical of many: their median in space (Weiszfeld 1937), then the middle of what lies about that, the
 * less counted the further off (Tukey's biweight, 1974). Up to nearly half of them may be something else. OKLab.
 * @throws RangeError where there are none.
 */
export function typicalColour(labs: readonly Lab[]): Lab {
  if (labs.length === 0) throw new RangeError('of no pixels no colour is typical');
  let at: Lab = [0, 1, 2].map((i) => medianOf(labs.map((l) => l[i]))) as unknown as Lab;
  for (let k = 0; k < ROUNDS.median; k++) {
    const before = at;
    at = weighted(labs, (l) => 1 / Math.max(1e-4, labDistance(l, before)));
    if (labDistance(at, before) < STILL) break;
  }
  const usual = medianOf(labs.map((l) => labDistance(l, at)));
  const reach = Math.min(REACH.most, Math.max(REACH.least, REACH.times * usual));
  for (let k = 0; k < ROUNDS.middle; k++) {
    const before = at;
    at = weighted(labs, (l) => Math.max(0, 1 - (labDistance(l, before) / reach) ** 2) ** 2, before);
    if (labDistance(at, before) < STILL) break;
  }
  return at;
}

function weighted(labs: readonly Lab[], weight: (l: Lab) => number, none: Lab = [0, 0, 0]): Lab {
  let [sum, l, a, b] = [0, 0, 0, 0];
  for (const lab of labs) {
    const w = weight(lab);
    sum += w;
    l += w * lab[0];
    a += w * lab[1];
    b += w * lab[2];
  }
  return sum > 0 ? [l / sum, a / sum, b / sum] : none;
}

export function medianOf(values: readonly number[]): number {
  const sorted = Float64Array.from(values).sort();
  const n = sorted.length;
  return n % 2 === 1 ? sorted[n >> 1] : (sorted[n / 2 - 1] + sorted[n / 2]) / 2;
}
