import { findLine } from '../drawing/find';
import { runFromCubics } from '../drawing/fromCubics';

import type { Drawing, Node } from '../drawing/schema';
import type { Cubic } from '../geometry/cubic';
import { dot, lengthOf, scale, unit, type Point } from '../geometry/point';
import { edit, type Edit } from '../change/edit';
import { replacedRun } from './join';
import { towards, type End } from '../drawing/end';
import { reshapeLines } from './lines';

/** Curves that leave a node at less than this angle to how the line came in run on smoothly (the cosine). */
const RUNS_ON = Math.cos((20 * Math.PI) / 180);

/** A line drawn on from an end by curves that begin there; closed with them if they come back to its other end. */
export function extendByCurves(d: Drawing, end: End, cubics: readonly Cubic[], closes: boolean, label: string): Edit {
  const line = findLine(d, end.line)?.line;
  const run = line?.runs[end.run];
  if (!line || !run || run.closed || cubics.length === 0) return edit(label);
  const before = towards(run, end);
  const [start, ...drawn] = runFromCubics(cubics, false).nodes;
  const nodes = [...before.slice(0, -1), leaving(before.at(-1)!, start.out), ...drawn];
  if (!closes || before.length < 2) return reshapeLines(d, new Map([[line.id, replacedRun(line, end, nodes)]]), label);
  const last = nodes.pop()!;
  const first = leaving({ ...nodes[0], in: last.in }, nodes[0].out);
  const ring = [first, ...nodes.slice(1)];
  return reshapeLines(d, new Map([[line.id, replacedRun(line, end, ring, true)]]), label);
}

/** A node that the line leaves by a handle: smooth where it runs on, along the way in. */
function leaving(node: Node, out: Point | null): Node {
  const [into, direction] = [node.in && unit(scale(node.in, -1)), out && unit(out)];
  if (!into || !direction || !out || dot(into, direction) < RUNS_ON) return { ...node, out, kind: 'corner' };
  return { ...node, out: scale(into, lengthOf(out)), kind: 'smooth' };
}
