import { findLine } from '../drawing/find';
import { reflowed } from '../drawing/node';
import { reversed } from '../drawing/run';
import { reversedMarks } from '../ink/profiles';
import type { Drawing, Line, Node, Run } from '../drawing/schema';
import { mapOffset, mapPoint, type Matrix } from '../geometry/matrix';
import type { Point } from '../geometry/point';
import type { Step } from '../change/change';
import { counted, edit, type Edit } from '../change/edit';
import { reshapeLines } from './lines';
import { withShiftedMarks } from './strokes';
import { mapNodes, rewriteRuns } from './nodes';
import { nodeAt, type NodeRef } from '../drawing/nodeRef';

/** Lines walked the other way; their width marks with them. */
export function reverseLines(d: Drawing, ids: Iterable<string>): Edit {
  const steps = [...new Set(ids)].flatMap((id): Step[] => {
    const found = findLine(d, id);
    if (!found) return [];
    const { line, sheet } = found;
    const marks = line.marks && reversedMarks(line.marks);
    return [
      {
        step: 'setLine',
        sheet: sheet.id,
        id,
        before: { runs: line.runs, ...(marks ? { marks: line.marks } : {}) },
        after: { runs: line.runs.map(reversed), ...(marks ? { marks } : {}) },
      },
    ];
  });
  return edit(counted('Reverse', steps.length, 'line'), steps);
}

/** A closed run that begins at another of its nodes. */
export function startAtNode(d: Drawing, ref: NodeRef): Edit {
  const runs = rewriteRuns(d, [ref], (run, [k]) =>
    run.closed ? { ...run, nodes: [...run.nodes.slice(k), ...run.nodes.slice(0, k)] } : run,
  );
  const isOpen = !findLine(d, ref.line)?.line.runs[ref.run]?.closed;
  if (isOpen) return edit('Set first node');
  return withShiftedMarks(reshapeLines(d, runs, 'Set first node'), findLine(d, ref.line)!.line, ref.node);
}

/** Nodes brought to a common x or y: the least, the middle of the outermost, or the greatest. */
export function alignNodes(
  d: Drawing,
  refs: readonly NodeRef[],
  axis: 'x' | 'y',
  to: 'least' | 'middle' | 'most',
): Edit {
  const values = refs.flatMap((r) => nodeAt(d, r)?.point[axis] ?? []);
  if (values.length < 2) return edit('Align nodes');
  const [low, high] = [Math.min(...values), Math.max(...values)];
  const at = to === 'least' ? low : to === 'most' ? high : (low + high) / 2;
  return placed(d, refs, (p) => ({ ...p, [axis]: at }), counted('Align', refs.length, 'node'));
}

/** Nodes at even distances between the outermost two, across or down. */
export function spreadNodes(d: Drawing, refs: readonly NodeRef[], axis: 'x' | 'y'): Edit {
  const known = refs.flatMap((ref) => {
    const node = nodeAt(d, ref);
    return node ? [{ ref, at: node.point[axis] }] : [];
  });
  if (known.length < 3) return edit('Spread nodes');
  known.sort((a, b) => a.at - b.at);
  const [low, high] = [known[0].at, known.at(-1)!.at];
  const aims = new Map(known.map(({ ref }, i) => [keyOf(ref), low + ((high - low) * i) / (known.length - 1)]));
  return placed(
    d,
    refs,
    (p, ref) => ({ ...p, [axis]: aims.get(keyOf(ref)) ?? p[axis] }),
    counted('Spread', refs.length, 'node'),
  );
}

/** Nodes all at the middle of their places. */
export function averageNodes(d: Drawing, refs: readonly NodeRef[]): Edit {
  const points = refs.flatMap((r) => nodeAt(d, r)?.point ?? []);
  if (points.length < 2) return edit('Average nodes');
  const mean = (axis: 'x' | 'y'): number => points.reduce((sum, p) => sum + p[axis], 0) / points.length;
  const at = { x: mean('x'), y: mean('y') };
  return placed(d, refs, () => at, counted('Average', refs.length, 'node'));
}

const keyOf = (r: NodeRef): string => `${r.run}:${r.node}:${r.line}`;

function placed(d: Drawing, refs: readonly NodeRef[], to: (p: Point, ref: NodeRef) => Point, label: string): Edit {
  const byLine = new Map<string, Run[]>();
  for (const id of new Set(refs.map((r) => r.line))) {
    const line: Line | undefined = findLine(d, id)?.line;
    if (!line) continue;
    const chosen = new Set(refs.filter((r) => r.line === id).map((r) => `${r.run}:${r.node}`));
    byLine.set(
      id,
      line.runs.map((run, r) =>
        reflowed({
          ...run,
          nodes: run.nodes.map((n, i): Node => {
            if (!chosen.has(`${r}:${i}`)) return n;
            return { ...n, point: to(n.point, { line: id, run: r, node: i }) };
          }),
        }),
      ),
    );
  }
  return reshapeLines(d, byLine, label);
}

/** Nodes and their handles under an affine map: turned, scaled, slanted. */
export function transformNodes(d: Drawing, refs: readonly NodeRef[], m: Matrix, verb: string): Edit {
  const mapped = (n: Node): Node => ({
    ...n,
    point: mapPoint(m, n.point),
    in: n.in && mapOffset(m, n.in),
    out: n.out && mapOffset(m, n.out),
  });
  const runs = rewriteRuns(d, refs, (run, chosen) => mapNodes(run, chosen, mapped));
  return reshapeLines(d, runs, counted(verb, refs.length, 'node'));
}
