import { findLine } from '../drawing/find';
import { reflowed, withHandle, withKind, type Side } from '../drawing/node';
import { cubicsOf, segmentCount, withNodeAt } from '../drawing/run';
import type { Drawing, Line, Node, NodeKind, Run } from '../drawing/schema';
import { refitAsOne } from '../geometry/refit';
import { add, samePoint, subtract, type Point } from '../geometry/point';
import { counted, edit, type Edit } from './edit';
import { reshapeLines } from './lineEdits';

/** Names one node: its line, which of the line's runs, and its place in the run. */
export type NodeRef = { readonly line: string; readonly run: number; readonly node: number };

export const nodeKey = (r: NodeRef): string => `${r.line}:${r.run}:${r.node}`;
export function nodeOfKey(key: string): NodeRef {
  const [line, run, node] = key.split(':');
  return { line, run: Number(run), node: Number(node) };
}

export const nodeAt = (d: Drawing, ref: NodeRef): Node | undefined =>
  findLine(d, ref.line)?.line.runs[ref.run]?.nodes[ref.node];

/** The runs of every line that holds one of `refs`, each run with chosen nodes rewritten by `rewrite`. */
function rewriteRuns(
  d: Drawing,
  refs: readonly NodeRef[],
  rewrite: (run: Run, chosen: number[]) => Run | null,
): Map<string, Run[]> {
  const result = new Map<string, Run[]>();
  for (const id of new Set(refs.map((r) => r.line))) {
    const line = findLine(d, id)?.line;
    if (!line) continue;
    const own = refs.filter((r) => r.line === id);
    const runs = line.runs.flatMap((run, r) => {
      const chosen = own.filter((ref) => ref.run === r && ref.node < run.nodes.length).map((ref) => ref.node);
      return chosen.length > 0 ? (rewrite(run, chosen) ?? []) : run;
    });
    result.set(id, runs);
  }
  return result;
}

const mapNodes = (run: Run, chosen: number[], f: (n: Node) => Node): Run =>
  reflowed({ ...run, nodes: run.nodes.map((n, i) => (chosen.includes(i) ? f(n) : n)) });

/** Nodes moved by an offset, their handles with them. */
export function moveNodes(d: Drawing, refs: readonly NodeRef[], by: Point): Edit {
  const runs = rewriteRuns(d, refs, (run, chosen) => mapNodes(run, chosen, (n) => ({ ...n, point: add(n.point, by) })));
  return reshapeLines(d, runs, counted('Move', refs.length, 'node'));
}

/** One handle drawn to an offset from its node; see `withHandle` for what the other does. */
export function turnHandle(d: Drawing, ref: NodeRef, side: Side, offset: Point | null, independent = false): Edit {
  const runs = rewriteRuns(d, [ref], (run, chosen) =>
    mapNodes(run, chosen, (n) => withHandle(n, side, offset, independent)),
  );
  return reshapeLines(d, runs, offset ? 'Turn handle' : 'Drop handle');
}

export function changeKind(d: Drawing, refs: readonly NodeRef[], kind: NodeKind): Edit {
  const runs = rewriteRuns(d, refs, (run, chosen) => chosen.reduce((r, i) => withKind(r, i, kind), run));
  return reshapeLines(d, runs, `Make ${kind}`);
}

/**
 * Nodes taken away. The neighbours' handles are fitted anew so that the shape stays as near as it can; an end that
 * goes shortens the line. A run left with one node goes too.
 */
export function removeNodes(d: Drawing, refs: readonly NodeRef[]): Edit {
  const runs = rewriteRuns(d, refs, (run, chosen) => {
    const rest = [...chosen].sort((a, b) => b - a).reduce<Run>(withoutNode, run);
    return rest.nodes.length < 2 ? null : reflowed(rest);
  });
  return reshapeLines(d, runs, counted('Remove', refs.length, 'node'));
}

function withoutNode(run: Run, i: number): Run {
  const n = run.nodes.length;
  const nodes = [...run.nodes];
  const isInside = run.closed ? n > 2 : i > 0 && i < n - 1;
  if (isInside) {
    const list = cubicsOf(run);
    const [before, after] = [(i - 1 + n) % n, (i + 1) % n];
    const [first, second] = [list[(i - 1 + list.length) % list.length], list[i % list.length]];
    const isStraight = [nodes[before].out, nodes[i].in, nodes[i].out, nodes[after].in].every((h) => h === null);
    if (!isStraight) {
      const one = refitAsOne(first, second);
      nodes[before] = { ...nodes[before], out: handleTo(nodes[before].point, one[1]) };
      nodes[after] = { ...nodes[after], in: handleTo(nodes[after].point, one[2]) };
    }
  }
  nodes.splice(i, 1);
  if (!run.closed && nodes.length > 0) {
    if (i === 0) nodes[0] = { ...nodes[0], in: null };
    if (i === n - 1) nodes[nodes.length - 1] = { ...nodes[nodes.length - 1], out: null };
  }
  return { ...run, nodes };
}

const handleTo = (from: Point, to: Point): Point | null => (samePoint(from, to) ? null : subtract(to, from));

/** A node put on a segment; the curve stays as it was. Its reference is the segment's start plus one. */
export function addNode(d: Drawing, line: Line, run: number, segment: number, t: number): Edit {
  if (segment >= segmentCount(line.runs[run])) return edit('Add node');
  const runs = line.runs.map((r, i) => (i === run ? withNodeAt(r, segment, t) : r));
  return reshapeLines(d, new Map([[line.id, runs]]), 'Add node');
}

/** A line drawn on: a node more at the end of its run. */
export function extendLine(d: Drawing, line: Line, run: number, node: Node): Edit {
  const runs = line.runs.map((r, i) => (i === run ? reflowed({ ...r, nodes: [...r.nodes, node] }) : r));
  return reshapeLines(d, new Map([[line.id, runs]]), 'Add node');
}
