import { towards, type End } from '../drawing/end';
import { findLine } from '../drawing/find';
import { cornerIfBent, reflowed } from '../drawing/node';
import { lineLength, reversedNodes } from '../drawing/run';
import type { Drawing, Line, Mark, Node, Run } from '../drawing/schema';
import { distance } from '../geometry/point';
import { joinedMarks, nodeShares } from '../ink/carriedMarks';
import { marksOn, reversedMarks } from '../ink/profiles';
import { edit, type Edit } from '../change/edit';
import { removeLines, reshapeLines, withMarks } from './lines';

/** A join by a curve: the end that it leaves and the one that it comes to, as they are met when drawing on. */
export type DrawnJoin = { readonly from: Node; readonly to: Node };

/** Ends nearer than this are one place, in page units. */
const SAME_PLACE = 1e-6;

const runOf = (d: Drawing, end: End): Run | undefined => findLine(d, end.line)?.line.runs[end.run];

/**
 * Two open ends joined: of one run, it closes; of two, they become one, in the style and the place of the first.
 * Ends in the same place become one node, others are joined by a straight segment, or by the curve that is `drawn`.
 */
export function joinEnds(d: Drawing, a: End, b: End, drawn?: DrawnJoin, label = 'Join'): Edit {
  const [first, second] = [runOf(d, a), runOf(d, b)];
  const line = findLine(d, a.line)?.line;
  if (!line || !first || !second || first.closed || second.closed) return edit(label);
  if (a.line === b.line && a.run === b.run) {
    if (a.atStart === b.atStart || first.nodes.length < 2) return edit(label);
    const runs = line.runs.map((r, i) => (i === a.run ? closedUp(towards(first, a), drawn, a.atStart) : r));
    return reshapeLines(d, new Map([[line.id, runs]]), label);
  }
  const one = meeting(towards(first, a), reversedNodes(towards(second, b)), drawn);
  const merged: Run = { closed: false, nodes: a.atStart ? reversedNodes(one) : one };
  const rest = (l: Line): Run[] =>
    l.runs.flatMap((r, i) => {
      if (l.id === a.line && i === a.run) return reflowed(merged);
      return l.id === b.line && i === b.run ? [] : r;
    });
  const other = findLine(d, b.line)!.line;
  const runs = rest(line);
  const left = other.id === line.id ? [] : rest(other);
  const marks = runs.length === 1 ? marksOfBoth(line, other, first, second, runs[0], a, b) : null;
  const reshaped = reshapeLines(
    d,
    new Map([[line.id, runs], ...(left.length > 0 ? [[other.id, left] as const] : [])]),
    label,
  );
  const joined = marks ? withMarks(reshaped, line, marks) : reshaped;
  return edit(label, joined.steps, left.length === 0 && other.id !== line.id ? removeLines(d, [other.id]).steps : []);
}

/** The width marks of two runs in the one that they have become; null where neither has any. */
function marksOfBoth(one: Line, two: Line, first: Run, second: Run, merged: Run, a: End, b: End): Mark[] | null {
  if (!one.marks?.length && !two.marks?.length) return null;
  const shares = nodeShares(merged);
  const last = shares.length - 1;
  const [n, m] = [first.nodes.length - 1, second.nodes.length - 1];
  const turned = a.atStart === b.atStart;
  const marks = turned ? reversedMarks(marksOn(two)) : marksOn(two);
  const widest = Math.max(...[...marksOn(one), ...marks].map((k) => k.left + k.right));
  return joinedMarks(
    [
      { marks: marksOn(one), from: a.atStart ? shares[last - n] : 0, to: a.atStart ? 1 : shares[n] },
      { marks, from: a.atStart ? 0 : shares[last - m], to: a.atStart ? shares[m] : 1 },
    ],
    widest / Math.max(lineLength({ runs: [merged] }), 1e-9),
  );
}

/** A run of nodes that ends where another begins. */
function meeting(before: readonly Node[], after: readonly Node[], drawn?: DrawnJoin): Node[] {
  const [last, first] = [before.at(-1)!, after[0]];
  if (drawn) return [...before.slice(0, -1), drawn.from, drawn.to, ...after.slice(1)];
  if (distance(last.point, first.point) > SAME_PLACE)
    return [...before.slice(0, -1), { ...last, out: null }, { ...first, in: null }, ...after.slice(1)];
  return [...before.slice(0, -1), jointOf(last, first), ...after.slice(1)];
}

function closedUp(nodes: readonly Node[], drawn: DrawnJoin | undefined, turned: boolean): Run {
  const ring = meeting(nodes, [nodes[0]], drawn);
  // The last is the first again, and takes its place.
  const around = [ring.at(-1)!, ...ring.slice(1, -1)];
  return reflowed({ closed: true, nodes: turned ? reversedNodes(around) : around });
}

/** One node in place of two: smooth where the handles lie in one line. */
export function jointOf(last: Node, first: Node): Node {
  const { in: into } = last;
  const { out } = first;
  if (!into || !out) return { point: first.point, in: into, out, kind: 'corner' };
  return cornerIfBent({ point: first.point, in: into, out, kind: 'smooth' });
}

/** A line's end carried on by a node; at a start the node comes first. The node is given as it is met when drawing on. */
export function extendEnd(d: Drawing, end: End, node: Node, label = 'Add node'): Edit {
  const line = findLine(d, end.line)?.line;
  const run = runOf(d, end);
  if (!line || !run || run.closed) return edit(label);
  const before = towards(run, end);
  const last = before.at(-1)!;
  const nodes = [...before.slice(0, -1), before.length > 1 ? cornerIfBent(last) : last, node];
  return reshapeLines(d, new Map([[line.id, replacedRun(line, end, nodes)]]), label);
}

/** The runs of a line with the nodes of one open run set anew; `nodes` are in the order in which `end` is the last. */
export const replacedRun = (
  line: Line,
  end: Pick<End, 'run' | 'atStart'>,
  nodes: readonly Node[],
  closed = false,
): Run[] =>
  line.runs.map((r, i) =>
    i === end.run ? reflowed({ closed, nodes: end.atStart ? reversedNodes(nodes) : nodes }) : r,
  );
