import { assertReach } from '../assist/tracked';
import quickselect from 'quickselect';
import { assertRun, placesAlong, stepOf, type CubicRun, type Places } from '../geometry/along';
import { distanceToChord } from '../geometry/chord';
import { inkPath } from '../assist/inkPath';
import { trackedOf, type Target } from '../assist/tracked';
import { assertPicture, type Picture } from '../colour/picture';

export type DistanceOptions = { reach: number; target: Target };

/** How far a run lies from the ink; all lengths in px of the picture. Figures are 0 where no ink is beneath it at all. */
export type Distance = {
  mean: number;
  p95: number;
  max: number;
  /** Along the run: `at` is the share of its length, `distance` null where no ink lies within reach. */
  samples: { at: number; distance: number | null }[];
};

/** How far apart a run is measured, px. */
export const SPACING = 2;

/**
 * How far a run lies from the middle of the ink beneath it (or from the edge), all along it. What has no ink within reach
 * is left out of the figures. Where strokes cross, the stroke that the run follows is traced straight on.
 * @throws RangeError for a bad run or picture, a reach that is not above 0, or an unknown target.
 */
export function distanceFromInk(run: CubicRun, image: Picture, options: DistanceOptions): Distance {
  assertRun(run);
  assertPicture(image);
  assertReach(options);
  const places = placesAlong(run, SPACING);
  const path = inkPath(trackedOf(image, options.target), places, options.reach);
  const distances = path ? distancesTo(places, path.offset, options.reach) : new Float64Array(places.n).fill(NaN);
  return figuresOf(places, distances);
}

/** The distance of each place from the traced way itself, which may run askew to the line; NaN where it has none. */
export function distancesTo(places: Places, offset: Float64Array, reach: number): Float64Array {
  const { n, closed } = places;
  const window = Math.min(n - 1, Math.ceil(reach / stepOf(places)));
  const px = Float64Array.from(offset, (o, i) => places.x[i] + o * places.nx[i]);
  const py = Float64Array.from(offset, (o, i) => places.y[i] + o * places.ny[i]);
  return offset.map((o, i) => {
    if (Number.isNaN(o)) return NaN;
    let best = Math.abs(o);
    if (best < 0.2) return best;
    for (let d = -window; d < window; d++) {
      const [a, b] = closed ? [(i + d + n) % n, (i + d + 1 + n) % n] : [i + d, i + d + 1];
      if (a < 0 || b >= n || Number.isNaN(offset[a]) || Number.isNaN(offset[b])) continue;
      best = Math.min(best, distanceToChord(places.x[i], places.y[i], px[a], py[a], px[b], py[b]));
    }
    return best;
  });
}

function figuresOf(places: Places, distances: Float64Array): Distance {
  const { mean, p95, max } = summaryOf(distances.filter((d) => !Number.isNaN(d)));
  const total = places.length || 1;
  const samples = Array.from(distances, (d, i) => ({
    at: Math.min(1, places.along[i] / total),
    distance: Number.isNaN(d) ? null : d,
  }));
  return { mean, p95, max, samples };
}

/** Mean, 95th percentile and largest of some distances, whose order is changed; 0 each where there is none. */
export function summaryOf(known: Float64Array | Float32Array): { mean: number; p95: number; max: number } {
  const n = known.length;
  if (n === 0) return { mean: 0, p95: 0, max: 0 };
  let [sum, max] = [0, 0];
  for (const d of known) {
    sum += d;
    if (d > max) max = d;
  }
  const k = Math.min(n - 1, Math.floor(0.95 * n));
  // Its types know arrays only; it works on whatever is indexed.
  quickselect(known as unknown as number[], k);
  return { mean: sum / n, p95: known[k], max };
}
