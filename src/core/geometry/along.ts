import { evaluate, type Cubic } from './cubic';
import type { Point } from './point';

/** A run as the core takes it from outside: cubics, each beginning where the one before ends. */
export type CubicRun = { cubics: Cubic[]; closed: boolean };

/**
 * Places along a run at even steps: their coordinates, the unit normal to the right of the way (in a picture whose y
 * points down), how far along they lie, and on which segment, at which parameter. A closed run's last place is one step
 * before its first.
 */
export type Places = {
  readonly n: number;
  readonly x: Float64Array;
  readonly y: Float64Array;
  readonly nx: Float64Array;
  readonly ny: Float64Array;
  readonly along: Float64Array;
  readonly segment: Int32Array;
  readonly t: Float64Array;
  readonly length: number;
  readonly closed: boolean;
};

/** How far apart the places of a run are along it. */
export const stepOf = ({ n, length, closed }: Places): number => length / Math.max(1, closed ? n : n - 1) || 1;

/** @throws RangeError for a run without cubics, or with places that are not finite. */
export function assertRun(run: CubicRun): void {
  if (!Array.isArray(run?.cubics) || run.cubics.length === 0) throw new RangeError('a run needs at least one cubic');
  for (const c of run.cubics) {
    if (c?.length !== 4 || !c.every((p) => Number.isFinite(p?.x) && Number.isFinite(p?.y)))
      throw new RangeError('a cubic needs four points with finite coordinates');
  }
}

/** How finely a cubic is walked: a step for so many px of its control polygon. */
const WALK = 1.5;

/** The places of a run about `spacing` apart; at least two, however short it is. */
export function placesAlong({ cubics, closed }: CubicRun, spacing: number): Places {
  const walk = walkOf(cubics);
  const steps = Math.max(1, Math.round(walk.length / spacing));
  const n = closed ? Math.max(3, steps) : steps + 1;
  const step = walk.length / (closed ? n : steps);
  const places: Places = {
    n,
    x: new Float64Array(n),
    y: new Float64Array(n),
    nx: new Float64Array(n),
    ny: new Float64Array(n),
    along: new Float64Array(n),
    segment: new Int32Array(n),
    t: new Float64Array(n),
    length: walk.length,
    closed,
  };
  let j = 0;
  for (let i = 0; i < n; i++) {
    const want = Math.min(walk.length, i * step);
    while (j < walk.n - 2 && walk.along[j + 1] < want) j++;
    const gap = walk.along[j + 1] - walk.along[j];
    const f = gap > 0 ? Math.min(1, (want - walk.along[j]) / gap) : 0;
    const segment = walk.segment[j + 1];
    const from = walk.segment[j] === segment ? walk.t[j] : 0;
    const t = from + (walk.t[j + 1] - from) * f;
    const p = evaluate(cubics[segment], t);
    [places.x[i], places.y[i]] = [p.x, p.y];
    [places.along[i], places.segment[i], places.t[i]] = [want, segment, t];
  }
  if (!closed) endExactly(places, cubics);
  normalsOf(places);
  return places;
}

/** The last place of an open run is its end, to the last digit. */
function endExactly({ n, x, y, segment, t }: Places, cubics: readonly Cubic[]): void {
  const end = cubics.at(-1)![3];
  [x[n - 1], y[n - 1], segment[n - 1], t[n - 1]] = [end.x, end.y, cubics.length - 1, 1];
}

type Walk = { n: number; along: Float64Array; segment: Int32Array; t: Float64Array; length: number };

function walkOf(cubics: readonly Cubic[]): Walk {
  const counts = cubics.map((c) => Math.min(4_000, Math.max(8, Math.ceil(polygon(c) / WALK))));
  const n = counts.reduce((a, b) => a + b, 1);
  const [along, segment, t] = [new Float64Array(n), new Int32Array(n), new Float64Array(n)];
  let [k, last, length] = [1, cubics[0][0], 0];
  cubics.forEach((c, s) => {
    for (let i = 1; i <= counts[s]; i++, k++) {
      const p = evaluate(c, i / counts[s]);
      length += Math.hypot(p.x - last.x, p.y - last.y);
      last = p;
      [along[k], segment[k], t[k]] = [length, s, i / counts[s]];
    }
  });
  return { n, along, segment, t, length };
}

const polygon = (c: Cubic): number =>
  [0, 1, 2].reduce((sum, i) => sum + Math.hypot(c[i + 1].x - c[i].x, c[i + 1].y - c[i].y), 0);

/** Normals from the places before and after: at a corner the mean of its two sides. */
function normalsOf({ n, x, y, nx, ny, closed }: Places): void {
  for (let i = 0; i < n; i++) {
    const a = closed ? (i - 1 + n) % n : Math.max(0, i - 1);
    const b = closed ? (i + 1) % n : Math.min(n - 1, i + 1);
    const [dx, dy] = [x[b] - x[a], y[b] - y[a]];
    const l = Math.hypot(dx, dy);
    if (l > 0) [nx[i], ny[i]] = [-dy / l, dx / l];
    else if (i > 0) [nx[i], ny[i]] = [nx[i - 1], ny[i - 1]];
    else [nx[i], ny[i]] = [0, 1];
  }
}

export const placeAt = (p: Places, i: number, off = 0): Point => ({
  x: p.x[i] + off * p.nx[i],
  y: p.y[i] + off * p.ny[i],
});
