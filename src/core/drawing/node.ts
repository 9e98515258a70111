import { add, cross, distance, dot, lengthOf, scale, subtract, unit, type Point } from '../geometry/point';
import type { Node, NodeKind, Run } from './schema';

export type Side = 'in' | 'out';
export const otherSide = (side: Side): Side => (side === 'in' ? 'out' : 'in');

/**
 * A node whose handle on one side was drawn to `offset` (null drops it). The other handle follows as the node's kind
 * asks: in one line for smooth, in one line and as long for even. `independent` lets the other be, which makes the
 * node a corner. A flowing node that is drawn by hand becomes smooth.
 */
export function withHandle(node: Node, side: Side, offset: Point | null, independent = false): Node {
  const far = otherSide(side);
  if (independent || offset === null || node.kind === 'corner') {
    return { ...node, [side]: offset, kind: 'corner' };
  }
  const direction = unit(offset);
  if (!direction) return { ...node, [side]: offset };
  const kind = node.kind === 'flowing' ? 'smooth' : node.kind;
  const length = kind === 'even' ? lengthOf(offset) : node[far] ? lengthOf(node[far]) : 0;
  const opposite = length > 0 ? scale(direction, -length) : node[far];
  return { ...node, kind, [side]: offset, [far]: opposite };
}

/**
 * A node as a line that comes from `from` runs into it: one that reads smooth or even, and has no way in yet, gets one in
 * line with its way out, as long as that but no longer than half the way.
 */
export function arriving(node: Node, from: Point): Node {
  if (node.in || !node.out || node.kind === 'corner' || node.kind === 'flowing') return node;
  const along = unit(node.out);
  const most = distance(from, node.point) / 2;
  if (!along || most === 0) return node;
  const length = lengthOf(node.out);
  return { ...node, in: scale(along, node.kind === 'even' ? -length : -Math.min(length, most)) };
}

/** How far handles of one line may lie off it (the sine of the angle). */
const IN_LINE = 0.02;

/** A node within a line, by what its handles do: one that reads smooth or even while the line turns in it is a corner. */
export function cornerIfBent(node: Node): Node {
  if (node.kind === 'corner' || node.kind === 'flowing' || (!node.in && !node.out)) return node;
  const { in: into, out } = node;
  const isSmooth =
    into && out && dot(into, out) < 0 && Math.abs(cross(into, out)) < IN_LINE * lengthOf(into) * lengthOf(out);
  return isSmooth ? node : { ...node, kind: 'corner' };
}

/**
 * The run with one node turned into another kind. Smooth and even take the direction between the two handles they
 * had, or that of the neighbours where they had none; a corner keeps its handles; flowing takes them from the
 * neighbours.
 */
export function withKind(run: Run, index: number, kind: NodeKind): Run {
  const node = run.nodes[index];
  if (kind === 'corner' || kind === 'flowing') return replaced(run, index, { ...node, kind });
  const [before, after] = neighbours(run, index);
  const flow = flowingHandles(node.point, before?.point, after?.point);
  const towards = handleDirection(node) ?? (flow.out && unit(flow.out)) ?? (flow.in && unit(scale(flow.in, -1)));
  if (!towards) return replaced(run, index, { ...node, kind });
  const lengthIn = lengthOf(node.in ?? flow.in ?? { x: 0, y: 0 });
  const lengthOut = lengthOf(node.out ?? flow.out ?? { x: 0, y: 0 });
  const [a, b] = kind === 'even' ? [(lengthIn + lengthOut) / 2, (lengthIn + lengthOut) / 2] : [lengthIn, lengthOut];
  return replaced(run, index, {
    ...node,
    kind,
    in: before ? scale(towards, -a) : null,
    out: after ? scale(towards, b) : null,
  });
}

/** The common direction of a node's handles, from in to out; null without handles or when they face each other. */
function handleDirection(node: Node): Point | null {
  const forward = node.out && unit(node.out);
  const backward = node.in && unit(scale(node.in, -1));
  if (forward && backward) return unit(add(forward, backward)) ?? forward;
  return forward ?? backward;
}

const replaced = (run: Run, index: number, node: Node): Run =>
  reflowed({ ...run, nodes: run.nodes.map((n, i) => (i === index ? node : n)) });

export function neighbours(run: Run, index: number): [Node | undefined, Node | undefined] {
  const n = run.nodes.length;
  const wrap = run.closed && n > 1;
  return [
    index > 0 ? run.nodes[index - 1] : wrap ? run.nodes[n - 1] : undefined,
    index < n - 1 ? run.nodes[index + 1] : wrap ? run.nodes[0] : undefined,
  ];
}

/**
 * Handles that let a curve flow through a point: along the line between the neighbours, weighted by how near each is,
 * a third of the way to each (a Catmull–Rom spline with chord-length spacing; Catmull and Rom 1974, Lee 1989). An end
 * has none.
 */
export function flowingHandles(at: Point, before?: Point, after?: Point): { in: Point | null; out: Point | null } {
  if (!before || !after) return { in: null, out: null };
  const [back, ahead] = [subtract(at, before), subtract(after, at)];
  const [l, m] = [lengthOf(back), lengthOf(ahead)];
  if (l === 0 || m === 0) return { in: null, out: null };
  const tangent = unit(add(scale(back, m / l), scale(ahead, l / m)));
  if (!tangent || dot(tangent, tangent) === 0) return { in: null, out: null };
  return { in: scale(tangent, -l / 3), out: scale(tangent, m / 3) };
}

/** The run with the handles of its flowing nodes set anew from their neighbours; the same run if it has none. */
export function reflowed(run: Run): Run {
  if (!run.nodes.some((n) => n.kind === 'flowing')) return run;
  const nodes = run.nodes.map((n, i) => {
    if (n.kind !== 'flowing') return n;
    const [before, after] = neighbours(run, i);
    return { ...n, ...flowingHandles(n.point, before?.point, after?.point) };
  });
  return { ...run, nodes };
}
