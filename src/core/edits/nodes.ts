import { findLine } from '../drawing/find';
import { reflowed, withHandle, withKind, type Side } from '../drawing/node';
import type { NodeRef } from '../drawing/nodeRef';
import { cubicsOf, segmentCount, withNodeAt } from '../drawing/run';
import type { Drawing, Line, Node, NodeKind, Run } from '../drawing/schema';
import { cubicLength } from '../geometry/length';
import { refitAsOne } from '../geometry/refit';
import { add, lengthOf, samePoint, scale, subtract, type Point } from '../geometry/point';
import { counted, edit, type Edit } from '../change/edit';
import { reshapeLines } from './lines';

/** The runs of every line that holds one of `refs`, each run with chosen nodes rewritten by `rewrite`. */
export function rewriteRuns(
  d: Drawing,
  refs: readonly NodeRef[],
  rewrite: (run: Run, chosen: number[]) => Run | null,
): Map<string, Run[]> {
  const byLine = new Map<string, Map<number, number[]>>();
  for (const { line, run, node } of refs) {
    let runs = byLine.get(line);
    if (!runs) byLine.set(line, (runs = new Map<number, number[]>()));
    const nodes = runs.get(run);
    if (nodes) nodes.push(node);
    else runs.set(run, [node]);
  }
  const result = new Map<string, Run[]>();
  for (const [id, own] of byLine) {
    const line = findLine(d, id)?.line;
    if (!line) continue;
    const runs = line.runs.flatMap((run, r) => {
      const chosen = (own.get(r) ?? []).filter((node) => node < run.nodes.length);
      return chosen.length > 0 ? (rewrite(run, chosen) ?? []) : run;
    });
    result.set(id, runs);
  }
  return result;
}

export function mapNodes(run: Run, chosen: readonly number[], f: (n: Node) => Node): Run {
  const of = new Set(chosen);
  return reflowed({ ...run, nodes: run.nodes.map((n, i) => (of.has(i) ? f(n) : n)) });
}

/** Nodes moved by an offset, their handles with them. */
export function moveNodes(d: Drawing, refs: readonly NodeRef[], by: Point): Edit {
  const runs = rewriteRuns(d, refs, (run, chosen) => mapNodes(run, chosen, (n) => ({ ...n, point: add(n.point, by) })));
  return reshapeLines(d, runs, counted('Move', refs.length, 'node'));
}

/**
 * Nodes moved by an offset, and those near them along the line carried with them: the further away, the less, and none
 * from `sway` page units of line on. What lies in between keeps its shape as well as it can.
 */
export function swayNodes(d: Drawing, refs: readonly NodeRef[], by: Point, sway: number): Edit {
  const runs = rewriteRuns(d, refs, (run, chosen) => {
    const shares = swayShares(run, chosen, sway);
    return reflowed({
      ...run,
      nodes: run.nodes.map((n, i) => (shares[i] > 0 ? { ...n, point: add(n.point, scale(by, shares[i])) } : n)),
    });
  });
  return reshapeLines(d, runs, counted('Move', refs.length, 'node'));
}

/** How much of a move each node of a run takes over: 1 for the chosen, falling off as a cosine along the line. */
export function swayShares(run: Run, chosen: readonly number[], sway: number): number[] {
  const n = run.nodes.length;
  const lengths = cubicsOf(run).map((c) => cubicLength(c, 0.1));
  const away = new Array<number>(n).fill(Infinity);
  for (const i of chosen) away[i] = 0;
  for (let lap = 0; lap < (run.closed ? 2 : 1); lap++) {
    for (let i = 0; i < lengths.length; i++) away[(i + 1) % n] = Math.min(away[(i + 1) % n], away[i] + lengths[i]);
    for (let i = lengths.length - 1; i >= 0; i--) away[i] = Math.min(away[i], away[(i + 1) % n] + lengths[i]);
  }
  return away.map((a) => (a <= 0 ? 1 : a >= sway ? 0 : 0.5 + 0.5 * Math.cos((Math.PI * a) / sway)));
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
 * Nodes taken away. The neighbours' handles are fitted anew to all that went between them, so that the shape stays as
 * near as it can; `plainly`, what is left keeps its handles. An end that goes shortens the line. A run left with one
 * node goes too.
 */
export function removeNodes(d: Drawing, refs: readonly NodeRef[], plainly = false): Edit {
  const runs = rewriteRuns(d, refs, (run, chosen) => {
    const rest = withoutNodes(run, new Set(chosen), plainly ? null : refitAsOne);
    return rest.nodes.length < 2 ? null : reflowed(rest);
  });
  return reshapeLines(d, runs, counted('Remove', refs.length, 'node'));
}

/** A run without some of its nodes, what lay between the others fitted anew by `refit`; without it handles stay. */
export function withoutNodes(run: Run, gone: ReadonlySet<number>, refit: typeof refitAsOne | null): Run {
  const n = run.nodes.length;
  const kept = run.nodes.flatMap((_, i) => (gone.has(i) ? [] : [i]));
  const nodes = kept.map((i) => ({ ...run.nodes[i] }));
  if (kept.length < 2) return { ...run, nodes };
  const list = cubicsOf(run);
  kept.forEach((from, k) => {
    const isLast = k === kept.length - 1;
    if (isLast && !run.closed) return;
    const to = kept[(k + 1) % kept.length];
    const spanned = ((to - from + n - 1) % n) + 1;
    if (spanned === 1 || !refit) return;
    const chain = Array.from({ length: spanned }, (_, j) => list[(from + j) % n]);
    const isStraight = chain.every((_, j) => !run.nodes[(from + j) % n].out && !run.nodes[(from + j + 1) % n].in);
    if (isStraight) return;
    const one = refit(...chain);
    const next = (k + 1) % kept.length;
    nodes[k] = { ...nodes[k], out: handleTo(nodes[k].point, one[1]) };
    nodes[next] = { ...nodes[next], in: handleTo(nodes[next].point, one[2]) };
  });
  if (!run.closed) {
    if (kept[0] > 0) nodes[0] = { ...nodes[0], in: null };
    if (kept.at(-1)! < n - 1) nodes[nodes.length - 1] = { ...nodes.at(-1)!, out: null };
  }
  return { ...run, nodes: nodes.map(asHandled) };
}

/** An even node whose handles were set apart in length is smooth now. */
const asHandled = (n: Node): Node =>
  n.kind === 'even' && n.in && n.out && Math.abs(lengthOf(n.in) - lengthOf(n.out)) > 1e-6 * lengthOf(n.in)
    ? { ...n, kind: 'smooth' }
    : n;

const handleTo = (from: Point, to: Point): Point | null => (samePoint(from, to) ? null : subtract(to, from));

/** A node put on a segment; the curve stays as it was. Its reference is the segment's start plus one. */
export function addNode(d: Drawing, line: Line, run: number, segment: number, t: number): Edit {
  if (segment >= segmentCount(line.runs[run])) return edit('Add node');
  const runs = line.runs.map((r, i) => (i === run ? withNodeAt(r, segment, t) : r));
  return reshapeLines(d, new Map([[line.id, runs]]), 'Add node');
}
