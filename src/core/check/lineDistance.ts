import { inkPath } from '../assist/inkPath';
import { trackedOf } from '../assist/tracked';
import { holdsPlace, pageToShares, referenceBox, sharesToPage, shownPixels } from '../drawing/placement';
import { shownCubics } from '../drawing/rounding';
import { skeletonBox } from '../drawing/run';
import type { Drawing, Line, Reference } from '../drawing/schema';
import { placesAlong, type CubicRun } from '../geometry/along';
import { boxesMeet } from '../geometry/box';
import type { Cubic } from '../geometry/cubic';
import type { Point } from '../geometry/point';
import type { GrayImage } from '../raster/grayImage';
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

/** The picture that a line is measured against: the uppermost beneath it that is seen and lies under the work. */
export function referenceBeneath(d: Drawing, line: Pick<Line, 'runs'>): Reference | null {
  const box = skeletonBox(line);
  const middle = { x: (box.minX + box.maxX) / 2, y: (box.minY + box.maxY) / 2 };
  const under = d.references.filter((r) => r.visible && !r.beside).reverse();
  return under.find((r) => holdsPlace(r, middle)) ?? under.find((r) => boxesMeet(referenceBox(r), box)) ?? null;
}

/** Between the page and a reference's picture of `size` px. */
export function placementOf(r: Reference, size: { width: number; height: number }) {
  return {
    inPicture: (p: Point): Point => {
      const s = pageToShares(r, p);
      return { x: s.x * size.width, y: s.y * size.height };
    },
    onPage: (p: Point): Point => sharesToPage(r, { x: p.x / size.width, y: p.y / size.height }),
    /** Px of the corrected picture that one px of `size` stands for: figures are told in these. */
    px: shownPixels(r).width / size.width,
  };
}

/** The runs of a line in px of a picture; those of a single node are none. */
export function runsInPicture(line: Pick<Line, 'runs'>, inPicture: (p: Point) => Point): CubicRun[] {
  return line.runs.flatMap((run) => {
    const cubics = shownCubics(run).map((c) => c.map(inPicture) as Cubic);
    return cubics.length === 0 ? [] : [{ cubics, closed: run.closed }];
  });
}

/** Measures a line against a picture. `reach` in px of the corrected picture. */
export function measureLine(line: Line, r: Reference, image: GrayImage, reach: number): LineDistance {
  const { inPicture, onPage, px } = placementOf(r, image);
  const picture = trackedOf(image, r.target);
  const rows: number[] = [];
  const counts: number[] = [];
  let [before, worst, most] = [0, null as Point | null, -1];
  for (const run of runsInPicture(line, inPicture)) {
    const places = placesAlong(run, SPACING);
    const path = inkPath(picture, places, reach / px);
    const distances = path ? distancesTo(places, path.offset, reach / px) : null;
    const scale = r.width / image.width;
    for (let i = 0; i < places.n; i++) {
      const at = onPage({ x: places.x[i], y: places.y[i] });
      const d = distances ? distances[i] * px : NaN;
      rows.push(at.x, at.y, before + places.along[i] * scale, d);
      if (d > most) [most, worst] = [d, at];
    }
    counts.push(places.n);
    before += places.length * scale;
  }
  const list = Float32Array.from(rows);
  return { id: line.id, ...figuresOf([list]), worst, places: list, counts };
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
