import { findLine } from '../drawing/find';
import { reflowed, withHandle } from '../drawing/node';
import { cubicsOf } from '../drawing/run';
import type { Drawing, Node, Run } from '../drawing/schema';
import { bent, bentEvenly } from '../geometry/bend';
import type { Cubic } from '../geometry/cubic';
import { mix, samePoint, subtract, type Point } from '../geometry/point';
import { edit, type Edit } from '../change/edit';
import { reshapeLines } from './lines';

/** Names one segment: its line, which of the line's runs, and the node that it starts at. */
export type SegmentRef = { readonly line: string; readonly run: number; readonly segment: number };

/**
 * A segment bent so that its place at `t` runs through `to`; a straight one as well. Its neighbours turn with it where
 * they are smooth. `even`: it becomes its own mirror image about the middle of its chord.
 */
export function bendSegment(d: Drawing, ref: SegmentRef, t: number, to: Point, even = false): Edit {
  const line = findLine(d, ref.line)?.line;
  const run = line?.runs[ref.run];
  if (!line || !run) return edit('Bend segment');
  const next = bentRun(run, ref.segment, t, to, even);
  return reshapeLines(d, new Map([[line.id, line.runs.map((r, i) => (i === ref.run ? next : r))]]), 'Bend segment');
}

function bentRun(run: Run, segment: number, t: number, to: Point, even: boolean): Run {
  const end = (segment + 1) % run.nodes.length;
  const [a, b] = [run.nodes[segment], run.nodes[end]];
  const cubic = cubicsOf(run)[segment];
  const isStraight = !a.out && !b.in;
  const start: Cubic = isStraight
    ? [a.point, mix(a.point, b.point, 1 / 3), mix(a.point, b.point, 2 / 3), b.point]
    : cubic;
  const [, p, q] = even ? bentEvenly(start, to) : bent(start, t, to);
  const nodes = [...run.nodes];
  const drawn = (node: Node, side: 'in' | 'out', handle: Point): Node =>
    withHandle(node, side, samePoint(handle, { x: 0, y: 0 }) ? null : handle, node.kind === 'corner');
  nodes[segment] = drawn(nodes[segment], 'out', subtract(p, a.point));
  nodes[end] = drawn(nodes[end], 'in', subtract(q, b.point));
  return reflowed({ ...run, nodes });
}
