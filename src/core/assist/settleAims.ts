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
/** Over so much a corner's sides are taken for straight. */
const SIDE = 14;
/** What strays no further from its line is straight, px (the root of the mean square). */
const STRAIGHT = 0.25;
/** What is seen cuts a corner by so much of what is blind beside it, at most: a share, and more of it the sharper it is. */
const CUT = { blunt: 0.35, sharp: 0.9 };
/** It is drawn on over so much of which nothing is known. */
const MISSING = 24;

/**
 * The places a run's own are to come to: on the ink beneath; between ink, as far aside as what is next to it, fading
 * out. A corner comes to where its two sides meet when they are drawn on: the ink's own corner is rounded and thick.
 */
export function aimsFor(places: Places, path: InkPath, spline: Spline, reach: number): Aims {
  const offset = path.offset.slice();
  const step = stepOf(places);
  const keepOff = Math.ceil(path.blind / step);
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
  for (const c of corners) meetAt(aims, places, known, path, c, keepOff, Math.ceil(SIDE / step), reach);
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

/** How much of what its neighbour does a place does that lies so far away, px. */
const fade = (away: number): number => 1 / (1 + (away / CARRIED) ** 4);

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
  path: InkPath,
  corner: number,
  keepOff: number,
  side: number,
  reach: number,
): void {
  const lineOn = (sign: 1 | -1) => {
    const list: number[] = [];
    const missing = Math.ceil(MISSING / aims.step);
    for (let d = keepOff + 1; d <= keepOff + missing + side && list.length < side; d++) {
      const i = within(corner + sign * d, places);
      const isKnown = i >= 0 && !Number.isNaN(known[i]);
      if (isKnown) list.push(i);
      else if (i < 0 || list.length > 0 || d > keepOff + missing) break;
    }
    if (list.length < 4) return null;
    // A side that bends is taken for straight over less of it.
    for (let n = list.length; ; n = Math.max(4, Math.round(0.6 * n))) {
      const line = straightThrough(aims, list.slice(0, n));
      if (n === 4 || line.off < STRAIGHT) return line;
    }
  };
  const [a, b] = [lineOn(-1), lineOn(1)];
  if (!a || !b) {
    if (a || b) carryCorner(aims, places, known, corner, (a ?? b)!, a ? 1 : -1);
    return;
  }
  const turn = a.dx * b.dy - a.dy * b.dx;
  if (Math.abs(turn) < 0.2) return;
  const s = ((b.x - a.x) * b.dy - (b.y - a.y) * b.dx) / turn;
  const meeting = { x: a.x + s * a.dx, y: a.y + s * a.dy };
  if (Math.hypot(meeting.x - places.x[corner], meeting.y - places.y[corner]) > 1.6 * reach) return;
  const seen = path.offset[corner];
  const cut = Math.hypot(
    meeting.x - places.x[corner] - seen * places.nx[corner],
    meeting.y - places.y[corner] - seen * places.ny[corner],
  );
  // Further from what is seen than so sharp a corner can be: the sides bend before they meet.
  if (cut > path.blind * (CUT.blunt + CUT.sharp * Math.abs(turn))) {
    asSeen(aims, places, path, corner, keepOff);
    return;
  }
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

/**
 * A corner of which one side alone is known comes to lie on that, as near to where it was as can be; the other side, `to` which
 * nothing is known, is carried along with it.
 */
function carryCorner(
  aims: Aims,
  places: Places,
  known: Float64Array,
  corner: number,
  side: Straight,
  to: 1 | -1,
): void {
  const along = (places.x[corner] - side.x) * side.dx + (places.y[corner] - side.y) * side.dy;
  const by = { x: side.x + along * side.dx - places.x[corner], y: side.y + along * side.dy - places.y[corner] };
  for (let d = 0; d < places.n; d++) {
    const i = within(corner + to * d, places);
    if (i < 0 || !Number.isNaN(known[i])) break;
    const share = fade(d * aims.step);
    aims.x[i] = places.x[i] + by.x * share;
    aims.y[i] = places.y[i] + by.y * share;
  }
  for (let d = 1; ; d++) {
    const i = within(corner - to * d, places);
    if (i < 0 || d >= places.n || !Number.isNaN(known[i])) break;
    const across = (places.x[i] - side.x) * side.dx + (places.y[i] - side.y) * side.dy;
    aims.x[i] = side.x + across * side.dx;
    aims.y[i] = side.y + across * side.dy;
  }
}

/** About a corner whose sides bend what is seen is believed, though it is seen less sharply there. */
function asSeen(aims: Aims, places: Places, { offset }: InkPath, corner: number, keepOff: number): void {
  for (let d = -keepOff; d <= keepOff; d++) {
    const i = within(corner + d, places);
    if (i < 0 || Number.isNaN(offset[i])) continue;
    aims.x[i] = places.x[i] + offset[i] * places.nx[i];
    aims.y[i] = places.y[i] + offset[i] * places.ny[i];
  }
}

type Straight = { x: number; y: number; dx: number; dy: number; off: number };

/** The straight line that runs nearest to some aims: their middle, the long axis of their spread, and how far they stray from it. */
function straightThrough(aims: Aims, list: number[]): Straight {
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
  const least = (xx + yy - Math.hypot(xx - yy, 2 * xy)) / 2;
  return { x, y, dx: Math.cos(angle), dy: Math.sin(angle), off: Math.sqrt(Math.max(0, least) / list.length) };
}
