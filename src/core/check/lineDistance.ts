import { inkPath, type InkPath } from '../assist/inkPath';
import type { Stroke } from '../assist/profile';
import { trackedOf, type Tracked } from '../assist/tracked';
import { placementOf, runsInPicture, Placement } from '../drawing/beneath';
import type { Line, Reference } from '../drawing/schema';
import { placesAlong, type Places } from '../geometry/along';
import type { Cubic } from '../geometry/cubic';
import type { Point } from '../geometry/point';
import type { Picture } from '../colour/picture';
import { distancesTo, SPACING, summaryOf } from './distance';

/** How a line of a drawing lies to the ink beneath it. Figures are px of the reference; what has no ink is left out. */
export type LineDistance = {
  readonly id: string;
  readonly mean: number;
  readonly p95: number;
  readonly max: number;
  /** The share of its length that has ink beneath, 0…1; at 0 the line is invented. */
  readonly inked: number;
  /** Where it is furthest, page units; null for an invented line. */
  readonly worst: Point | null;
  /** Places along it, four figures each: x, y (page units), how far along (page units), the distance (NaN: none). */
  readonly places: Float32Array;
  /** How many places each run has. */
  readonly counts: readonly number[];
};

export type DistanceFigures = Pick<LineDistance, 'mean' | 'p95' | 'max' | 'inked'>;

/** A run as it was measured: its places in page units, four figures each, with how far along the run they lie. */
export type MeasuredRun = {
  /** Its cubics in px of the picture. */
  readonly cubics: readonly Cubic[];
  readonly closed: boolean;
  readonly rows: Float32Array;
  /** On which segment each place lies. */
  readonly segment: Int32Array;
  /** The stroke beneath; null where there is none. */
  readonly stroke: Stroke | null;
};

/** A line as it was measured, with what is needed to measure it again when a part of it moves. */
export type MeasuredLine = { readonly distance: LineDistance; readonly runs: readonly MeasuredRun[] };

/** Measures a line against a picture. `reach` in px of the corrected picture. */
export function measureLine(line: Line, r: Reference, image: Picture, reach: number): MeasuredLine {
  const placement = placementOf(r, image);
  const picture = trackedOf(image, r.target);
  const runs = runsInPicture(line, placement.inPicture).map((run): MeasuredRun => {
    const places = placesAlong(run, SPACING);
    const measured = measurePlaces(picture, places, placement, reach);
    return { ...run, ...measured, segment: places.segment };
  });
  return lineOf(line.id, runs);
}

/** The rows of places, and the stroke beneath them; one that is known from the whole of the line is not looked for. */
export function measurePlaces(
  picture: Tracked,
  places: Places,
  { onPage, px, unit }: Placement,
  reach: number,
  known?: Stroke,
): { rows: Float32Array; stroke: Stroke | null } {
  const path = inkPath(picture, places, reach / px, known);
  const distances = path ? distancesTo(places, path.offset, reach / px) : null;
  if (path && distances) measureStrayed(picture, places, path, distances, reach / px);
  const rows = new Float32Array(4 * places.n);
  for (let i = 0; i < places.n; i++) {
    const at = onPage({ x: places.x[i], y: places.y[i] });
    rows[4 * i] = at.x;
    rows[4 * i + 1] = at.y;
    rows[4 * i + 2] = places.along[i] * unit;
    rows[4 * i + 3] = distances ? distances[i] * px : NaN;
  }
  return { rows, stroke: path && { half: path.half, level: path.level } };
}

/** A part that has left its ink is followed so many times as far as the ink was looked for. */
const STRAYED = 3;
/** There the ink is the one that was left, if it goes on from it within so much, px. */
const GOES_ON = 1.5;

/** The distances of parts that run further off than was looked for, but beside ink that they have come from. */
function measureStrayed(picture: Tracked, places: Places, path: InkPath, distances: Float64Array, reach: number): void {
  const { n } = places;
  const isLost = (i: number): boolean => Number.isNaN(path.offset[i]);
  if (!path.offset.some(Number.isNaN)) return;
  const far = inkPath(picture, places, STRAYED * reach, path);
  if (!far) return;
  const strayed = distancesTo(places, far.offset, STRAYED * reach);
  for (const way of [1, -1]) {
    for (let k = 0; k < n; k++) {
      const i = way > 0 ? k : n - 1 - k;
      const from = i - way;
      if (from < 0 || from >= n || !isLost(i) || isLost(from)) continue;
      if (!(Math.abs(far.offset[from] - path.offset[from]) < GOES_ON)) continue;
      for (let j = i; j >= 0 && j < n && isLost(j) && !Number.isNaN(strayed[j]); j += way)
        if (!(distances[j] <= strayed[j])) distances[j] = strayed[j];
    }
  }
}

/** Measured runs as a line. */
export function lineOf(id: string, runs: readonly MeasuredRun[]): MeasuredLine {
  const places = new Float32Array(runs.reduce((n, r) => n + r.rows.length, 0));
  let [first, before, worst] = [0, 0, -1];
  for (const { rows, closed } of runs) {
    places.set(rows, first);
    for (let i = first; i < first + rows.length; i += 4) {
      places[i + 2] += before;
      if (places[i + 3] > (worst < 0 ? -1 : places[worst + 3])) worst = i;
    }
    const n = rows.length / 4;
    const last = rows[rows.length - 2];
    before += closed && n > 1 ? last + last / (n - 1) : last;
    first += rows.length;
  }
  const distance: LineDistance = {
    id,
    ...figuresOf([places]),
    worst: worst < 0 ? null : { x: places[worst], y: places[worst + 1] },
    places,
    counts: runs.map((r) => r.rows.length / 4),
  };
  return { distance, runs };
}

/** The figures of several lines together: each place of each counts alike. */
export const together = (lines: readonly LineDistance[]): DistanceFigures => figuresOf(lines.map((l) => l.places));

function figuresOf(lists: readonly Float32Array[]): DistanceFigures {
  const total = lists.reduce((n, l) => n + l.length / 4, 0);
  const known = new Float32Array(total);
  let n = 0;
  for (const places of lists)
    for (let i = 3; i < places.length; i += 4) if (!Number.isNaN(places[i])) known[n++] = places[i];
  return { ...summaryOf(known.subarray(0, n)), inked: total > 0 ? n / total : 0 };
}
