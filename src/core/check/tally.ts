import type { DistanceFigures } from './lineDistance';

/** Distances counted in steps, so that those of very many lines are summed up without looking at each again. */
export type Tally = {
  /** All places, and those that have ink. */
  readonly places: number;
  readonly known: number;
  readonly sum: number;
  readonly max: number;
  /** How many distances lie in each step. */
  readonly steps: Uint32Array;
};

/** Distances are told apart in steps of so many px. */
const STEP = 0.02;

const tallies = new WeakMap<Float32Array, Tally>();

/** The tally of a line's places: four figures each, the distance last (NaN: no ink). Counted once. */
export function tallyOf(places: Float32Array): Tally {
  let tally = tallies.get(places);
  if (!tally) tallies.set(places, (tally = counted(places)));
  return tally;
}

function counted(places: Float32Array): Tally {
  let [known, sum, max] = [0, 0, 0];
  for (let i = 3; i < places.length; i += 4) {
    const d = places[i];
    if (Number.isNaN(d)) continue;
    known++;
    sum += d;
    if (d > max) max = d;
  }
  const steps = new Uint32Array(known === 0 ? 0 : Math.floor(max / STEP) + 1);
  for (let i = 3; i < places.length; i += 4) if (!Number.isNaN(places[i])) steps[Math.floor(places[i] / STEP)]++;
  return { places: places.length / 4, known, sum, max, steps };
}

/** The figures of several lines together: each place of each counts alike. The 95th percentile is true to a step. */
export function figuresOfAll(tallies: readonly Tally[]): DistanceFigures {
  const steps = new Uint32Array(tallies.reduce((n, t) => Math.max(n, t.steps.length), 0));
  let [places, known, sum, max] = [0, 0, 0, 0];
  for (const t of tallies) {
    places += t.places;
    known += t.known;
    sum += t.sum;
    max = Math.max(max, t.max);
    for (let i = 0; i < t.steps.length; i++) steps[i] += t.steps[i];
  }
  if (known === 0) return { mean: 0, p95: 0, max: 0, inked: 0 };
  const wanted = Math.min(known - 1, Math.floor(0.95 * known));
  let [at, seen] = [0, steps[0]];
  while (seen <= wanted) seen += steps[++at];
  return { mean: sum / known, p95: Math.min(max, (at + 0.5) * STEP), max, inked: known / places };
}
