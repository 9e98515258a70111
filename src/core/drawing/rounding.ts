import { arcCubics } from '../geometry/arc';
import type { Cubic } from '../geometry/cubic';
import { add, cross, distance, dot, scale, subtract, unit, type Point } from '../geometry/point';
import { neighbours } from './node';
import { cubicsOf, segmentCount } from './run';
import type { Node, Run } from './schema';

/** A corner's arc: how much of the straight sides it takes, and the cubics along it. */
type Rounding = { cut: number; cubics: Cubic[] };

/**
 * The arc that rounds off a corner between two straight sides; null where there is none. It takes at most half of a
 * side that is shared with another corner that is rounded, and the whole of one that is not.
 */
export function roundingOf(run: Run, index: number): Rounding | null {
  const node = run.nodes[index];
  const [before, after] = neighbours(run, index);
  if (!node.radius || node.kind !== 'corner' || node.in || node.out || !before || !after) return null;
  if (before.out || after.in) return null;
  const back = unit(subtract(before.point, node.point));
  const ahead = unit(subtract(after.point, node.point));
  if (!back || !ahead) return null;
  const turn = Math.atan2(Math.abs(cross(back, ahead)), dot(back, ahead));
  if (turn < 1e-3 || turn > Math.PI - 1e-3) return null;
  const share = (other: Node): number => (other.radius ? 0.5 : 1);
  const most = Math.min(
    distance(before.point, node.point) * share(before),
    distance(after.point, node.point) * share(after),
  );
  const cut = Math.min(node.radius / Math.tan(turn / 2), most);
  const radius = cut * Math.tan(turn / 2);
  const from = add(node.point, scale(back, cut));
  const to = add(node.point, scale(ahead, cut));
  const inward = unit(add(back, ahead))!;
  const middle = add(node.point, scale(inward, radius / Math.sin(turn / 2)));
  return { cut, cubics: arcBetween(middle, from, to) };
}

function arcBetween(middle: Point, from: Point, to: Point): Cubic[] {
  const a = Math.atan2(from.y - middle.y, from.x - middle.x);
  const b = Math.atan2(to.y - middle.y, to.x - middle.x);
  const sweep = Math.atan2(Math.sin(b - a), Math.cos(b - a));
  const cubics = arcCubics(middle, distance(middle, from), distance(middle, from), a, sweep);
  cubics[0][0] = from;
  cubics.at(-1)![3] = to;
  return cubics;
}

const shown = new WeakMap<Run, Cubic[]>();

/** The segments of a run as they are drawn: rounded corners in place of sharp ones. Worked out once for each run. */
export function shownCubics(run: Run): Cubic[] {
  if (!run.nodes.some((n) => n.radius)) return cubicsOf(run);
  let list = shown.get(run);
  if (!list) {
    list = withRoundings(run);
    shown.set(run, list);
  }
  return list;
}

function withRoundings(run: Run): Cubic[] {
  const roundings = run.nodes.map((_, i) => roundingOf(run, i));
  const plain = cubicsOf(run);
  const result: Cubic[] = [];
  const count = segmentCount(run);
  for (let i = 0; i < count; i++) {
    const next = (i + 1) % run.nodes.length;
    const start = roundings[i]?.cubics.at(-1)![3];
    const end = roundings[next]?.cubics[0][0];
    const [a, b, c, d] = plain[i];
    const [p, q] = [start ?? a, end ?? d];
    // A side that two arcs have used up is gone.
    if (!(start || end) || distance(p, q) > 1e-9) result.push(start || end ? [p, p, q, q] : [a, b, c, d]);
    const arc = roundings[next];
    if (arc) result.push(...arc.cubics);
  }
  return result;
}
