import { excessOf, WILD } from '../../check/lineNotes';
import { neighbours, reflowed } from '../../drawing/node';
import { cubicsOf, withNodeAt } from '../../drawing/run';
import type { Node, Run } from '../../drawing/schema';
import { distance, lengthOf, scale, type Point } from '../../geometry/point';

/** A handle that is shortened becomes this share of the way to the next node. */
const SHORT = 0.4;

/** A run with the handles of a node that are too long for the way to the next node shortened. */
export function shortenedAt(run: Run, at: number): Run {
  const [before, after] = neighbours(run, at);
  const node = run.nodes[at];
  const short = (handle: Point | null, other: Node | undefined): Point | null => {
    if (!handle || !other || excessOf(node, handle, other) <= 1) return handle;
    return scale(handle, (SHORT * distance(node.point, other.point)) / lengthOf(handle));
  };
  const next: Node = {
    ...node,
    in: short(node.in, before),
    out: short(node.out, after),
    kind: node.kind === 'even' || node.kind === 'flowing' ? 'smooth' : node.kind,
  };
  return reflowed({ ...run, nodes: run.nodes.map((n, i) => (i === at ? next : n)) });
}

/** A run with a node more in each segment in which a node's handle is too long: as long a way, its handles half as long. */
export function dividedAt(run: Run, at: number): Run | null {
  const [before, after] = neighbours(run, at);
  const node = run.nodes[at];
  const count = cubicsOf(run).length;
  let next = run;
  if (excessOf(node, node.out, after) > WILD) next = withNodeAt(next, at, 0.5);
  if (excessOf(node, node.in, before) > WILD) next = withNodeAt(next, at === 0 ? next.nodes.length - 1 : at - 1, 0.5);
  const isTame = next.nodes.every((n, i) => {
    const [a, b] = neighbours(next, i);
    return Math.max(excessOf(n, n.in, a), excessOf(n, n.out, b)) <= WILD;
  });
  return isTame && cubicsOf(next).length > count ? next : null;
}
