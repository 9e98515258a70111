import { findLine } from '../drawing/find';
import type { Drawing, Line, Node, Run } from '../drawing/schema';
import { neighbours } from '../drawing/node';
import { add, distance, dot, scale, subtract, unit, type Point } from '../geometry/point';
import { counted, edit, type Edit } from '../change/edit';
import { reshapeLines } from './lines';
import type { NodeRef } from '../drawing/nodeRef';

/** Whether a node is a corner between two straight segments, which can be rounded off. */
export function canRound(run: Run, index: number): boolean {
  const node = run.nodes[index];
  const [before, after] = neighbours(run, index);
  return node.kind === 'corner' && !node.in && !node.out && !!before && !!after && !before.out && !after.in;
}

/** The corners of lines that can be rounded off. */
export const roundable = (lines: readonly Line[]): NodeRef[] =>
  lines.flatMap((line) =>
    line.runs.flatMap((run, r) =>
      run.nodes.flatMap((_, node) => (canRound(run, node) ? [{ line: line.id, run: r, node }] : [])),
    ),
  );

/** Corners rounded off by an arc of a radius in page units; 0 makes them sharp. Other nodes are left alone. */
export function roundCorners(d: Drawing, refs: readonly NodeRef[], radius: number): Edit {
  const runsById = new Map<string, Run[]>();
  for (const id of new Set(refs.map((r) => r.line))) {
    const line = findLine(d, id)?.line;
    if (!line) continue;
    const own = refs.filter((r) => r.line === id);
    const runs = line.runs.map((run, r) => {
      const chosen = own.filter((ref) => ref.run === r && ref.node < run.nodes.length && canRound(run, ref.node));
      if (chosen.length === 0) return run;
      const at = new Set(chosen.map((c) => c.node));
      return { ...run, nodes: run.nodes.map((n, i) => (at.has(i) ? withRadius(n, radius) : n)) };
    });
    runsById.set(id, runs);
  }
  return runsById.size === 0
    ? edit('Round corners')
    : reshapeLines(d, runsById, counted(radius > 0 ? 'Round' : 'Sharpen', refs.length, 'corner'));
}

function withRadius(node: Node, radius: number): Node {
  const { radius: _, ...plain } = node;
  return radius > 0 ? { ...plain, radius: Math.min(radius, 100_000) } : plain;
}

/** From a corner straight inwards, halving it; null at a corner that cannot be rounded, or that does not turn. */
export function inwardAt(run: Run, index: number): { direction: Point; slope: number } | null {
  if (!canRound(run, index)) return null;
  const { point } = run.nodes[index];
  const [before, after] = neighbours(run, index);
  const [a, b] = [unit(subtract(before!.point, point)), unit(subtract(after!.point, point))];
  const direction = a && b && unit(add(a, b));
  if (!a || !b || !direction) return null;
  const half = Math.acos(Math.min(1, Math.max(-1, dot(a, b)))) / 2;
  return half < 1e-3 || half > Math.PI / 2 - 1e-3 ? null : { direction, slope: 1 / Math.sin(half) };
}

/** Where the middle of a corner's arc lies for a radius. */
export function arcMiddle(run: Run, index: number, radius: number): Point | null {
  const inward = inwardAt(run, index);
  return inward && add(run.nodes[index].point, scale(inward.direction, radius * inward.slope));
}

/** The radius for which the middle of a corner's arc is nearest to a place. */
export function radiusAt(run: Run, index: number, p: Point): number {
  const inward = inwardAt(run, index);
  if (!inward) return 0;
  const along = dot(subtract(p, run.nodes[index].point), inward.direction);
  const [before, after] = neighbours(run, index);
  const { point } = run.nodes[index];
  const half = Math.asin(1 / inward.slope);
  const most = Math.min(distance(before!.point, point), distance(after!.point, point)) * Math.tan(half);
  return Math.min(most, Math.max(0, along / inward.slope));
}
