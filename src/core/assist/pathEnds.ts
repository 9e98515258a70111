/** So many places one after another must be the stroke's own before its way is judged by them. */
const SURE = 3;
/** The way is judged over so many places. */
const JUDGED = 16;
/** No way runs more askew to its line than this, px across for each place along. */
const ASKEW = 0.6;

/**
 * Leads a stroke's way straight on to its open ends, where these lie in the ink of another: the last places' rims are that
 * one's, and tell nothing. `sure` says where the ink across is as wide as the stroke; no more than `most` places are led.
 */
export function ledToEnds(offset: Float64Array, sure: Uint8Array, most: number): void {
  const n = offset.length;
  for (const [end, inward] of [
    [0, 1],
    [n - 1, -1],
  ]) {
    const at = (k: number): number => end + inward * k;
    const isSure = (k: number): boolean => k < n && sure[at(k)] === 1;
    let first = 0;
    while (first <= most && !Array.from({ length: SURE }, (_, d) => isSure(first + d)).every(Boolean)) first++;
    if (first === 0 || first > most) continue;
    const slope = slopeOf(offset, sure, at, first);
    for (let k = 0; k < first; k++) {
      if (!Number.isNaN(offset[at(k)])) offset[at(k)] = offset[at(first + 1)] + slope * (k - first - 1);
    }
  }
}

/** How the way goes on from a place inwards, by least squares over the places that are sure; level where they are few. */
function slopeOf(offset: Float64Array, sure: Uint8Array, at: (k: number) => number, first: number): number {
  const list: [number, number][] = [];
  for (let k = first; k < first + JUDGED && at(k) >= 0 && at(k) < offset.length; k++)
    if (sure[at(k)]) list.push([k, offset[at(k)]]);
  const n = list.length;
  if (n < SURE + 2) return 0;
  const [mk, mo] = [0, 1].map((i) => list.reduce((sum, p) => sum + p[i], 0) / n);
  const over = list.reduce((sum, [k]) => sum + (k - mk) ** 2, 0);
  const slope = list.reduce((sum, [k, o]) => sum + (k - mk) * (o - mo), 0) / over;
  return Math.max(-ASKEW, Math.min(ASKEW, slope));
}
