import { trackedOf } from '../assist/tracked';
import type { Line, Reference } from '../drawing/schema';
import { placesAlong, type CubicRun } from '../geometry/along';
import { splitCubic, type Cubic } from '../geometry/cubic';
import { distance } from '../geometry/point';
import type { Picture } from '../colour/picture';
import { SPACING } from './distance';
import { lineOf, measurePlaces, type MeasuredLine, type MeasuredRun } from './lineDistance';
import { placementOf, runsInPicture } from '../drawing/beneath';

/** So far beyond what moved a line is looked at too, px: where its ink runs there tells where it comes from. */
const LEAD = 40;

/**
 * Measures a line of which a part has moved: only those segments anew, and the others as `before` has them. The places
 * along a run are then spaced a little unevenly. Null for a line that moved as a whole, or has become another.
 */
export function measureMoved(
  line: Line,
  before: MeasuredLine,
  r: Reference,
  image: Picture,
  reach: number,
): MeasuredLine | null {
  const placement = placementOf(r, image);
  const runs = runsInPicture(line, placement.inPicture);
  if (runs.length !== before.runs.length) return null;
  const picture = trackedOf(image, r.target);
  const measured: MeasuredRun[] = [];
  for (const [i, run] of runs.entries()) {
    const was = before.runs[i];
    const part = movedPart(run, was);
    if (part === null) return null;
    if (part.count === 0) {
      measured.push(was);
      continue;
    }
    const { cubics, led } = withLead(run, part);
    const places = placesAlong({ cubics, closed: false }, SPACING);
    const { rows } = measurePlaces(picture, places, placement, reach, was.stroke ?? undefined);
    measured.push(spliced(run, was, part, { rows, segment: places.segment, led }));
  }
  return lineOf(line.id, measured);
}

/** Segments one after another, over a closed run's seam too. */
type Part = { readonly first: number; readonly count: number };

/** The segments that are not as they were; null when the run is another, or they are most of it. */
function movedPart(run: CubicRun, was: MeasuredRun): Part | null {
  const n = run.cubics.length;
  if (n !== was.cubics.length || run.closed !== was.closed) return null;
  const moved = run.cubics.map((c, i) => c.some((p, k) => p.x !== was.cubics[i][k].x || p.y !== was.cubics[i][k].y));
  if (!moved.includes(true)) return { first: 0, count: 0 };
  let [first, last] = [moved.indexOf(true), moved.lastIndexOf(true)];
  if (run.closed) {
    // What stays is the longest stretch that did not move; the part is the rest.
    let stays = { at: 0, count: 0 };
    for (let i = 0; i < n; i++) {
      let count = 0;
      while (count < n && !moved[(i + count) % n]) count++;
      if (count > stays.count) stays = { at: i, count };
    }
    first = (stays.at + stays.count) % n;
    last = first + n - stays.count - 1;
  }
  const count = last - first + 1;
  return count > 0.75 * n ? null : { first, count };
}

/** The cubics of a part, with a little of what comes before and after it; `led` of them come before. */
function withLead({ cubics, closed }: CubicRun, { first, count }: Part): { cubics: Cubic[]; led: number } {
  const n = cubics.length;
  const part = Array.from({ length: count }, (_, i) => cubics[(first + i) % n]);
  const share = (c: Cubic): number => {
    const polygon = distance(c[0], c[1]) + distance(c[1], c[2]) + distance(c[2], c[3]);
    return Math.min(1, LEAD / Math.max(1e-9, polygon));
  };
  const before = closed || first > 0 ? cubics[(first - 1 + n) % n] : null;
  const after = closed || first + count < n ? cubics[(first + count) % n] : null;
  return {
    cubics: [
      ...(before ? [splitCubic(before, 1 - share(before))[1]] : []),
      ...part,
      ...(after ? [splitCubic(after, share(after))[0]] : []),
    ],
    led: before ? 1 : 0,
  };
}

type Anew = { rows: Float32Array; segment: Int32Array; led: number };

/** A run's rows: of the part anew, of the rest as they were; how far along they lie is told afresh. */
function spliced(run: CubicRun, was: MeasuredRun, { first, count }: Part, anew: Anew): MeasuredRun {
  const n = run.cubics.length;
  const inPart = (s: number): boolean => (s - first + n) % n < count;
  const pieces = run.cubics.map((_, s) =>
    inPart(s)
      ? rowsOfSegment(anew.rows, anew.segment, ((s - first + n) % n) + anew.led)
      : rowsOfSegment(was.rows, was.segment, s),
  );
  const rows = new Float32Array(pieces.reduce((sum, p) => sum + p.length, 0));
  const segment = new Int32Array(rows.length / 4);
  let at = 0;
  pieces.forEach((piece, s) => {
    rows.set(piece, at);
    segment.fill(s, at / 4, (at + piece.length) / 4);
    at += piece.length;
  });
  for (let i = 0; i < rows.length; i += 4)
    rows[i + 2] = i === 0 ? 0 : rows[i - 2] + Math.hypot(rows[i] - rows[i - 4], rows[i + 1] - rows[i - 3]);
  return { ...run, rows, segment, stroke: was.stroke };
}

/** The rows of one segment; segments are in order. */
function rowsOfSegment(rows: Float32Array, segment: Int32Array, s: number): Float32Array {
  let from = 0;
  while (from < segment.length && segment[from] < s) from++;
  let to = from;
  while (to < segment.length && segment[to] === s) to++;
  return rows.subarray(4 * from, 4 * to);
}
