import type { Spline } from '../geometry/fit/spline';
import { stepOf, type Places } from '../geometry/along';
import type { InkPath } from './inkPath';

/** Where each place of a run is to come to lie. */
export type Aims = {
  readonly n: number;
  readonly x: Float64Array;
  readonly y: Float64Array;
  readonly closed: boolean;
  /** How far apart they are along the run, px. */
  readonly step: number;
};

/** What lies between ink is carried along over so much of the run, px; further in it keeps its place. */
const CARRIED = 60;
/** From this far on beside a corner, in px beyond half the stroke's width, the ink tells of one side only. */
const CLEAR_OF_CORNER = 2;
/** Over so much a corner's sides are taken for straight. */
const SIDE = 14;

/**
 * The places a run's own are to come to: on the ink beneath; between ink, as far aside as what is next to it, fading
 * out. A corner comes to where its two sides meet when they are drawn on: the ink's own corner is rounded and thick.
 */
export function aimsFor(places: Places, path: InkPath, spline: Spline, reach: number): Aims {
  const offset = path.offset.slice();
  const step = stepOf(places);
  const keepOff = Math.ceil((path.half + CLEAR_OF_CORNER) / step);
  const corners = cornerPlaces(spline, places);
  for (const c of corners) {
    for (let d = -keepOff; d <= keepOff; d++) {
      const i = within(c + d, places);
      if (i >= 0) offset[i] = NaN;
    }
  }
  // A run that is all corners keeps what the ink says at them.
  const known = offset.some((o) => !Number.isNaN(o)) ? offset : path.offset.slice();
  const filled = bridged(known, places, step);
  const x = Float64Array.from(filled, (o, i) => places.x[i] + o * places.nx[i]);
  const y = Float64Array.from(filled, (o, i) => places.y[i] + o * places.ny[i]);
  const aims = { n: places.n, x, y, closed: places.closed, step };
  for (const c of corners) meetAt(aims, places, known, c, keepOff, Math.ceil(SIDE / step), reach);
  return aims;
}

/** The places at which the run has its inner corners. */
const cornerPlaces = (sp: Spline, places: Places): number[] =>
  sp.corner.flatMap((is, node) => {
    const isEnd = !sp.closed && (node === 0 || node === sp.x.length - 1);
    return is && !isEnd ? [Math.min(sp.cuts[node], places.n - 1)] : [];
  });

const within = (i: number, { n, closed }: Places): number => (closed ? ((i % n) + n) % n : i >= 0 && i < n ? i : -1);

/** The nearest known offset one way, and how far away it is, px. */
type Neighbour = { value: number; away: number };

const movedOn = (n: Neighbour | null, by: number): Neighbour | null => n && { value: n.value, away: n.away + by };

/** Offsets for all places: what is not known goes over from one neighbour to the other, and fades where they are far. */
function bridged(offset: Float64Array, places: Places, step: number): Float64Array {
  const { n } = places;
  const reachOf = (from: number, sign: 1 | -1): Neighbour | null => {
    for (let d = 1; d < n; d++) {
      const i = within(from + sign * d, places);
      if (i < 0) return null;
      if (!Number.isNaN(offset[i])) return { value: offset[i], away: d * step };
    }
    return null;
  };
  const fade = (away: number): number => 1 / (1 + (away / CARRIED) ** 4);
  const result = offset.slice();
  let before: Neighbour | null = null;
  let after: Neighbour | null = null;
  for (let i = 0; i < n; i++) {
    if (!Number.isNaN(offset[i])) continue;
    const isFirst = i === 0 || !Number.isNaN(offset[i - 1]);
    before = isFirst ? reachOf(i, -1) : movedOn(before, step);
    after = isFirst ? reachOf(i, 1) : movedOn(after, -step);
    const [a, b]: (Neighbour | null)[] = [before, after];
    if (a && b) {
      const share = a.away / (a.away + b.away);
      result[i] = a.value * (1 - share) * fade(a.away) + b.value * share * fade(b.away);
    } else if (a) result[i] = a.value * fade(a.away);
    else if (b) result[i] = b.value * fade(b.away);
    else result[i] = 0;
  }
  return result;
}

/** Moves the aims about a corner to the meeting of the straight lines that its two sides make. */
function meetAt(
  aims: Aims,
  places: Places,
  known: Float64Array,
  corner: number,
  keepOff: number,
  side: number,
  reach: number,
): void {
  const lineOn = (sign: 1 | -1) => {
    const list: number[] = [];
    for (let d = keepOff + 1; d <= keepOff + side; d++) {
      const i = within(corner + sign * d, places);
      if (i < 0 || Number.isNaN(known[i])) break;
      list.push(i);
    }
    return list.length >= 4 ? straightThrough(aims, list) : null;
  };
  const [a, b] = [lineOn(-1), lineOn(1)];
  if (!a || !b) return;
  const turn = a.dx * b.dy - a.dy * b.dx;
  if (Math.abs(turn) < 0.2) return;
  const s = ((b.x - a.x) * b.dy - (b.y - a.y) * b.dx) / turn;
  const meeting = { x: a.x + s * a.dx, y: a.y + s * a.dy };
  if (Math.hypot(meeting.x - places.x[corner], meeting.y - places.y[corner]) > 1.6 * reach) return;
  for (const sign of [-1, 1] as const) {
    const from = within(corner + sign * (keepOff + 1), places);
    if (from < 0) continue;
    for (let d = 0; d <= keepOff; d++) {
      const i = within(corner + sign * d, places);
      const share = d / (keepOff + 1);
      aims.x[i] = meeting.x + (aims.x[from] - meeting.x) * share;
      aims.y[i] = meeting.y + (aims.y[from] - meeting.y) * share;
    }
  }
}

/** The straight line that runs nearest to some aims: their middle and its direction, the long axis of their spread. */
function straightThrough(aims: Aims, list: number[]): { x: number; y: number; dx: number; dy: number } {
  const mean = (of: Float64Array): number => list.reduce((sum, i) => sum + of[i], 0) / list.length;
  const [x, y] = [mean(aims.x), mean(aims.y)];
  let [xx, xy, yy] = [0, 0, 0];
  for (const i of list) {
    const [dx, dy] = [aims.x[i] - x, aims.y[i] - y];
    xx += dx * dx;
    xy += dx * dy;
    yy += dy * dy;
  }
  const angle = 0.5 * Math.atan2(2 * xy, xx - yy);
  return { x, y, dx: Math.cos(angle), dy: Math.sin(angle) };
}
