import { assertReach } from './tracked';
import { evaluate, splitAt, type Cubic } from '../geometry/cubic';
import { controlsOf, segmentsOf, type Spline } from '../geometry/fit/spline';
import { relax } from '../geometry/fit/relax';
import type { Samples } from '../geometry/fit/samples';
import { add, distance, subtract, type Point } from '../geometry/point';
import { assertPicture, type Picture } from '../colour/picture';
import { assertRun, placesAlong, type CubicRun, type Places } from '../geometry/along';
import { inkEnd } from './inkEnd';
import { inkPath } from './inkPath';
import { aimsFor, type Aims } from './settleAims';
import { splineOf } from './settleSpline';
import { trackedOf, type Target } from './tracked';

export type SettleOptions = { reach: number; target: Target };

/** What is shorter than so many reaches only has its place from the ink, not its shape. */
const SHORT = 2;
const ROUNDS = 24;
const NOISE = 0.25;
/** Nodes keep their places along the line: what they are drawn to is known well. */
const PIN = 0.5;

/**
 * A run moved onto the ink (or the edge) within `reach` px: the ink beneath is traced, then all nodes, directions and
 * handles are moved together to where they lie nearest to it. As many segments as before; smooth joints stay smooth,
 * corners corners, straight segments straight. Ends stay where they are unless their ink is within reach; what has no
 * ink beneath keeps its place, and what lies between is carried along.
 * @throws RangeError for a bad run or picture, a reach that is not above 0, or an unknown target.
 */
export function settle(run: CubicRun, image: Picture, options: SettleOptions): CubicRun {
  assertRun(run);
  assertPicture(image);
  assertReach(options);
  const picture = trackedOf(image, options.target);
  const places = placesAlong(run, spacingFor(run));
  const path = inkPath(picture, places, options.reach);
  if (!path) return run;
  const spline = splineOf(run, places);
  const aims = aimsFor(places, path, spline, options.reach);
  const isShort = places.length < SHORT * options.reach;
  const moved = isShort ? [shifted(run, places, aims)] : fits(run, places, spline, aims);
  const cubics = nearest(aims, [...moved, run.cubics]);
  if (cubics === run.cubics) return run;
  if (!run.closed && picture.target === 'ink') {
    const ends = [0, 1].map((end) => inkEnd(picture, aims, end === 0, path, options.reach));
    // No end goes further than the ink was looked for.
    const isNear = (c: Cubic, k: 0 | 3, was: Cubic): boolean => distance(c[k], was[k]) <= options.reach;
    const first = ends[0] === null ? null : carriedTo(cubics[0], ends[0], true);
    if (first && isNear(first, 0, run.cubics[0])) cubics[0] = first;
    const last = ends[1] === null ? null : carriedTo(cubics.at(-1)!, ends[1], false);
    if (last && isNear(last, 3, run.cubics.at(-1)!)) cubics[cubics.length - 1] = last;
  }
  return { cubics, closed: run.closed };
}

/** Places lie near enough to each other for the shortest segment to have a few. */
function spacingFor({ cubics }: CubicRun): number {
  const shortest = Math.min(...cubics.map((c) => distance(c[0], c[1]) + distance(c[1], c[2]) + distance(c[2], c[3])));
  return Math.min(2, Math.max(0.4, shortest / 8));
}

/** The run fitted from where it is, and from where its nodes are to be: bends that fold from one do not from the other. */
function fits(run: CubicRun, places: Places, spline: Spline, aims: Aims): Cubic[][] {
  const carried = carriedAlong(run, spline, aims);
  const from = { ...splineOf({ cubics: carried, closed: run.closed }, places), corner: [...spline.corner] };
  return [fitted(spline, aims, run), fitted(from, aims, run), carried];
}

function fitted(spline: Spline, { x, y, n }: Aims, run: CubicRun): Cubic[] {
  const samples: Samples = { n, x, y };
  for (let spell = 0; spell < 3; spell++) if (!relax(spline, samples, ROUNDS, NOISE, undefined, PIN)) break;
  return Array.from({ length: segmentsOf(spline) }, (_, k) => {
    const c = controlsOf(spline, k);
    const [a, b, d, e] = [0, 2, 4, 6].map((i): Point => ({ x: c[i], y: c[i + 1] }));
    return isStraight(run.cubics[k]) ? [a, a, e, e] : [a, b, d, e];
  });
}

const isStraight = (c: Cubic): boolean => distance(c[0], c[1]) < 1e-9 && distance(c[2], c[3]) < 1e-9;

/** The run with each node at its aim and its handles as they were: right for what is too short or too bent to be fitted. */
function carriedAlong({ cubics, closed }: CubicRun, { cuts }: Spline, aims: Aims): Cubic[] {
  const at = (k: number): Point => {
    const i = closed && k === cubics.length ? 0 : Math.min(cuts[k], aims.n - 1);
    return { x: aims.x[i], y: aims.y[i] };
  };
  return cubics.map((c, k): Cubic => {
    const [p, q] = [at(k), at(k + 1)];
    const [by, to] = [subtract(p, c[0]), subtract(q, c[3])];
    return [p, add(c[1], by), add(c[2], to), q];
  });
}

/** The run moved as a whole by the mean of what its places ask for. */
function shifted({ cubics }: CubicRun, places: Places, aims: Aims): Cubic[] {
  const mean = (to: Float64Array, from: Float64Array): number =>
    to.reduce((sum, v, i) => sum + v - from[i], 0) / aims.n;
  const by = { x: mean(aims.x, places.x), y: mean(aims.y, places.y) };
  return cubics.map((c) => c.map((p) => add(p, by)) as Cubic);
}

/** Of some runs the one that lies nearest to the aims, all along. */
function nearest(aims: Aims, runs: Cubic[][]): Cubic[] {
  return runs
    .filter((cubics) => cubics.every((c) => c.every((p) => Number.isFinite(p.x) && Number.isFinite(p.y))))
    .map((cubics) => ({ cubics, misfit: misfitOf(cubics, aims) }))
    .reduce((a, b) => (b.misfit < a.misfit ? b : a)).cubics;
}

/** How far a run strays from the aims, and they from it: root mean square, the furthest counted in a little. */
function misfitOf(cubics: Cubic[], aims: Aims): number {
  const there = placesAlong({ cubics, closed: aims.closed }, aims.step);
  return Math.max(strayOf(there, aims), strayOf(aims, there));
}

type Row = { n: number; x: Float64Array; y: Float64Array };

function strayOf(a: Row, b: Row): number {
  const window = Math.ceil(0.06 * b.n) + 12;
  let [most, sum] = [0, 0];
  for (let i = 0; i < a.n; i++) {
    const near = Math.round((i / a.n) * b.n);
    let best = Infinity;
    for (let j = near - window; j <= near + window; j++) {
      const k = (j + 2 * b.n) % b.n;
      best = Math.min(best, Math.hypot(a.x[i] - b.x[k], a.y[i] - b.y[k]));
    }
    most = Math.max(most, best);
    sum += best * best;
  }
  return Math.sqrt(sum / a.n) + 0.15 * most;
}

/** A cubic cut short, or carried on, by a length along it at one end. */
function carriedTo(c: Cubic, by: number, atStart: boolean): Cubic {
  if (atStart) return carriedTo([c[3], c[2], c[1], c[0]], by, false).reverse() as Cubic;
  if (isStraight(c)) {
    const l = distance(c[0], c[3]) || 1;
    const end = { x: c[3].x + ((c[3].x - c[0].x) * by) / l, y: c[3].y + ((c[3].y - c[0].y) * by) / l };
    return [c[0], c[0], end, end];
  }
  let [t, walked, last] = [1, 0, c[3]];
  const step = 0.004 * Math.sign(by);
  while (walked < Math.abs(by) && t > 0.3 && t < 1.6) {
    const p = evaluate(c, t + step);
    walked += distance(p, last);
    last = p;
    t += step;
  }
  return splitAt(c, t)[0];
}
