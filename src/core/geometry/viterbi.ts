/** How well each of `width` offsets of each place would do, 0…1; below 0 where there is nothing. */
export type Scores = {
  readonly width: number;
  readonly values: Float32Array;
  /** How much dearer it is to be off the line by the whole reach than in the middle of what is clear. */
  readonly away?: number;
};

const AWAY = 0.22;
/** What each step across costs more than going straight on. */
const BEND = 0.09;
const MOST_STEPS = 2;
/** Having nothing, and going from something to nothing. */
const NONE = 0.72;
const LEAVE = 3;

/**
 * The cheapest way along some places, as an offset each; −1 where there is nothing (Viterbi 1967; an active contour by dynamic
 * programming: Amini, Weymouth and Jain 1990). Closed lines go round twice. `turns`: what going from one offset of the place
 * before to another of a place costs besides.
 */
export function bestWay(
  { width, values, away = AWAY }: Scores,
  n: number,
  closed: boolean,
  turns: ((i: number, before: number, at: number) => number) | null = null,
): Int32Array {
  const laps = closed ? 2 : 1;
  const total = n * laps;
  const states = width + 1;
  const from = new Int16Array(total * states);
  let cost = new Float64Array(states);
  let next = new Float64Array(states);
  const middle = (width - 1) / 2;
  const aside = Float64Array.from({ length: width }, (_, c) => {
    const off = Math.abs(c - middle) / Math.max(1, middle);
    return away * off * off + 0.03 * off;
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
        let v = cost[k] + BEND * (k - c) * (k - c);
        if (v >= best) continue;
        if (turns) v += turns(i % n, k, c);
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
