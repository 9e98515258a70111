import type { Cubic } from '../geometry/cubic';
import type { Spline } from '../geometry/fit/spline';
import type { Point } from '../geometry/point';
import type { CubicRun, Places } from '../geometry/along';

/** Directions that differ by less than this at a joint, in radians, are one: the joint is smooth. */
const SMOOTH = 0.03;

/** A run as a chain whose nodes and handles can be moved: its cuts are the places where its segments begin. */
export function splineOf({ cubics, closed }: CubicRun, places: Places): Spline {
  const count = cubics.length;
  const nodes = closed ? count : count + 1;
  const cuts = Array.from({ length: count }, (_, k) => (k === 0 ? 0 : firstOf(places, k)));
  cuts.push(closed ? places.n : places.n - 1);
  const row = (): number[] => new Array<number>(nodes).fill(0);
  const sp: Spline = {
    closed,
    corner: new Array<boolean>(nodes).fill(false),
    x: row(),
    y: row(),
    wayIn: row(),
    wayOut: row(),
    lengthIn: row(),
    lengthOut: row(),
    cuts,
    ts: places.t.slice(),
  };
  for (let node = 0; node < nodes; node++) {
    const before = node > 0 ? cubics[node - 1] : closed ? cubics[count - 1] : null;
    const after = node < count ? cubics[node] : null;
    const at = after ? after[0] : before![3];
    [sp.x[node], sp.y[node]] = [at.x, at.y];
    const out = after && handleOf(after);
    const into = before && handleOf([before[3], before[2], before[1], before[0]]);
    sp.wayOut[node] = out?.angle ?? (into ? into.angle + Math.PI : 0);
    sp.wayIn[node] = into ? into.angle + Math.PI : sp.wayOut[node];
    sp.lengthOut[node] = out?.length ?? 0;
    sp.lengthIn[node] = into?.length ?? 0;
    const turn = sp.wayOut[node] - sp.wayIn[node];
    sp.corner[node] = !out || !into || Math.abs(Math.atan2(Math.sin(turn), Math.cos(turn))) > SMOOTH;
    if (!sp.corner[node]) sp.wayIn[node] = sp.wayOut[node];
  }
  return sp;
}

/** The first place on a segment; a segment too short for one takes the next. */
function firstOf({ n, segment }: Places, k: number): number {
  let [low, high] = [0, n];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (segment[middle] < k) low = middle + 1;
    else high = middle;
  }
  return Math.min(low, n - 1);
}

/** The direction in which a cubic leaves its start, and how long its handle is; a third of the way where it has none. */
function handleOf(c: Cubic): { angle: number; length: number } {
  const to = (p: Point): { angle: number; length: number } => ({
    angle: Math.atan2(p.y - c[0].y, p.x - c[0].x),
    length: Math.hypot(p.x - c[0].x, p.y - c[0].y),
  });
  const [first, second, last] = [to(c[1]), to(c[2]), to(c[3])];
  if (first.length > 1e-6) return first;
  return { angle: (second.length > 1e-6 ? second : last).angle, length: last.length / 3 };
}
