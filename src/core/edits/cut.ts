import { mapLines } from '../drawing/items';
import { findLine, placeOf } from '../drawing/find';
import { reflowed } from '../drawing/node';
import { withNodeAt } from '../drawing/run';
import type { Drawing, Line, Node, Run } from '../drawing/schema';
import type { SegmentRef } from './bend';
import { edit, type Edit } from '../change/edit';
import { reshapeLines } from './lines';
import type { NodeRef } from '../drawing/nodeRef';
import { cutMarks, shareOfNode, withShiftedMarks } from './strokes';

/** A line cut at a node: a closed run opens there; an open one becomes two lines, the second of id `fresh`. */
export function cutAtNode(d: Drawing, ref: NodeRef, fresh: string): Edit {
  const found = findLine(d, ref.line);
  const run = found?.line.runs[ref.run];
  if (!found || !run || run.nodes.length < 2) return edit('Cut');
  const { nodes } = run;
  if (run.closed) {
    const around = [...nodes.slice(ref.node), ...nodes.slice(0, ref.node), nodes[ref.node]];
    const open: Run = { closed: false, nodes: ends(around) };
    const cut = reshapeLines(d, new Map([[ref.line, replaced(found.line, ref.run, [open])]]), 'Cut');
    return withShiftedMarks(cut, found.line, ref.node);
  }
  if (ref.node <= 0 || ref.node >= nodes.length - 1) return edit('Cut');
  const [first, second] = [ends(nodes.slice(0, ref.node + 1)), ends(nodes.slice(ref.node))].map((list): Run =>
    reflowed({ closed: false, nodes: list }),
  );
  // A line of several runs keeps both parts: they are one shape.
  if (found.line.runs.length > 1)
    return reshapeLines(d, new Map([[ref.line, replaced(found.line, ref.run, [first, second])]]), 'Cut');
  const { line, sheet } = found;
  const [own, others] = line.marks?.length ? cutMarks(line.marks, shareOfNode(line, ref.node)) : [null, null];
  const other: Line = { ...line, id: fresh, runs: [second], ...(others && { marks: others }) };
  return edit(
    'Cut',
    {
      step: 'setLine',
      sheet: sheet.id,
      id: line.id,
      before: { runs: line.runs, ...(own && { marks: line.marks }) },
      after: { runs: [first], ...(own && { marks: own }) },
    },
    { step: 'insertItem', at: { ...placeOf(found), index: found.index + 1 }, item: other },
  );
}

/** A line cut at a place on a segment; see `cutAtNode`. */
export function cutSegment(d: Drawing, ref: SegmentRef, t: number, fresh: string): Edit {
  const line = findLine(d, ref.line)?.line;
  const run = line?.runs[ref.run];
  if (!line || !run) return edit('Cut');
  const withNode = withNodeAt(run, ref.segment, t);
  const runs = replaced(line, ref.run, [withNode]);
  const between: Drawing = {
    ...d,
    sheets: d.sheets.map((s) => ({ ...s, items: mapLines(s.items, (l) => (l.id === line.id ? { ...l, runs } : l)) })),
  };
  const cut = cutAtNode(between, { line: line.id, run: ref.run, node: ref.segment + 1 }, fresh);
  // One step from the line as it was: the node in between was never there.
  return edit(
    'Cut',
    cut.steps.map((s) => (s.step === 'setLine' ? { ...s, before: { ...s.before, runs: line.runs } } : s)),
  );
}

const replaced = (line: Line, at: number, by: readonly Run[]): Run[] =>
  line.runs.flatMap((r, i) => (i === at ? by : [r]));

/** Nodes of an open run: nothing leads into its first or out of its last. */
function ends(nodes: readonly Node[]): Node[] {
  const last = nodes.length - 1;
  return nodes.map((n, i) => {
    if (i > 0 && i < last) return n;
    return {
      ...n,
      in: i === 0 ? null : n.in,
      out: i === last ? null : n.out,
      kind: n.kind === 'flowing' ? 'smooth' : n.kind,
    };
  });
}
