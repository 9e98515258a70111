import { applyChange } from '../change/apply';
import { edit, type Edit } from '../change/edit';
import { meetLine } from './ends';
import { endPoint } from '../drawing/end';
import { closeGap } from './gaps';
import { removeLines, reshapeLines } from './lines';
import { changeKind, removeNodes } from './nodes';
import { nodeAt, type NodeRef } from '../drawing/nodeRef';
import { findLine } from '../drawing/find';
import { neighbours, reflowed } from '../drawing/node';
import { skeletonBox } from '../drawing/run';
import type { Drawing, Node, Run } from '../drawing/schema';
import { boxesMeet } from '../geometry/box';
import { distance, lengthOf, scale, type Point } from '../geometry/point';
import { crossingsOf, withoutLoop } from '../check/crossings';
import { excessOf } from '../check/lineNotes';
import { noteLimits, type Note, type NoteKind, type NoteLimits } from '../check/note';
import { withinPage } from '../check/withinPage';

/** What each kind's fix does, in words for its button. */
export const fixWords: Record<NoteKind, string> = {
  gap: 'bring together',
  overhang: 'trim',
  kink: 'make smooth',
  crumb: 'delete',
  doubled: 'delete the copy',
  stray: 'delete',
  needless: 'remove the node',
  wild: 'shorten',
  crossing: 'take the loop out',
  outside: 'cut off at the page',
};

/** A loop of more than this share of its line is no slip of the hand. */
const LOOP = 0.5;

/** What puts a note right; without steps where it no longer holds, or needs a hand. */
export function fixNote(d: Drawing, note: Note, limits: NoteLimits = noteLimits): Edit {
  const line = findLine(d, note.lines[0])?.line;
  const run = line?.runs[note.run];
  if (!line || !run) return edit('Fix');
  const ref: NodeRef = { line: line.id, run: note.run, node: note.node };
  switch (note.kind) {
    case 'gap':
      return note.end && isPlace(endPoint(d, note.end), note.at)
        ? closeGap(d, note.end, note.lines.at(-1)!, limits.reach)
        : edit('Close gap');
    case 'overhang':
      return note.end ? { ...meetLine(d, note.end, limits.reach), label: 'Trim overhang' } : edit('Trim overhang');
    case 'kink':
      return isAt(nodeAt(d, ref), note.at) ? changeKind(d, [ref], 'smooth') : edit('Make smooth');
    case 'crumb':
    case 'doubled':
      return removeLines(d, [line.id], note.kind === 'crumb' ? 'Delete crumb' : 'Delete doubled line');
    case 'stray':
      return run.nodes.length === 1
        ? reshapeLines(d, new Map([[line.id, line.runs.filter((r) => r !== run)]]), 'Delete stray node')
        : edit('Delete stray node');
    case 'needless':
      return isAt(nodeAt(d, ref), note.at) ? removeNodes(d, [ref]) : edit('Remove node');
    case 'wild':
      return isAt(nodeAt(d, ref), note.at) ? tamed(d, ref, run) : edit('Shorten handles');
    case 'crossing': {
      const crossing = crossingsOf(run).find((c) => distance(c.point, note.at) < 0.5);
      const total = run.closed ? Infinity : (crossing?.loop ?? 0) / LOOP;
      const length = crossing ? lengthOfRun(run) : 0;
      if (!crossing || (!run.closed && total > length)) return edit('Take loop out');
      const next = withoutLoop(run, crossing);
      return reshapeLines(d, new Map([[line.id, line.runs.map((r) => (r === run ? next : r))]]), 'Take loop out');
    }
    case 'outside': {
      const page = { minX: 0, minY: 0, maxX: d.page.width, maxY: d.page.height };
      if (!boxesMeet(skeletonBox(line), page)) return removeLines(d, [line.id], 'Delete line off the page');
      return reshapeLines(
        d,
        new Map([[line.id, line.runs.flatMap((r) => withinPage(r, page))]]),
        'Cut off at the page',
      );
    }
  }
}

const isPlace = (p: Point | undefined, at: Point): boolean => !!p && distance(p, at) < 0.5;
const isAt = (node: Node | undefined, at: Point): boolean => isPlace(node?.point, at);

const lengthOfRun = (run: Run): number =>
  run.nodes.slice(1).reduce((sum, n, i) => sum + distance(n.point, run.nodes[i].point), 0);

/** Handles that are too long for the way to the next node, a third as long as that. */
function tamed(d: Drawing, ref: NodeRef, run: Run): Edit {
  const [before, after] = neighbours(run, ref.node);
  const node = run.nodes[ref.node];
  const short = (handle: Point | null, other: Node | undefined): Point | null => {
    if (!handle || !other || excessOf(node, handle, other) <= 1) return handle;
    return scale(handle, (0.4 * distance(node.point, other.point)) / lengthOf(handle));
  };
  const next: Node = {
    ...node,
    in: short(node.in, before),
    out: short(node.out, after),
    kind: node.kind === 'even' || node.kind === 'flowing' ? 'smooth' : node.kind,
  };
  const line = findLine(d, ref.line)!.line;
  const nodes = run.nodes.map((n, i) => (i === ref.node ? next : n));
  const runs = line.runs.map((r) => (r === run ? reflowed({ ...run, nodes }) : r));
  return reshapeLines(d, new Map([[line.id, runs]]), 'Shorten handles');
}

/** All notes of a list put right in one change, as far as each can be; `left` are those that cannot. */
export function fixAll(
  d: Drawing,
  notes: readonly Note[],
  label: string,
  limits: NoteLimits = noteLimits,
): { edit: Edit; left: Note[] } {
  // Within a line from its last node on: what goes shifts none that is still to come.
  const ordered = [...notes].sort((a, b) => b.run - a.run || b.node - a.node);
  const steps: Edit['steps'][number][] = [];
  const left: Note[] = [];
  let now = d;
  for (const note of ordered) {
    const fix = fixNote(now, note, limits);
    if (fix.steps.length === 0) {
      left.push(note);
      continue;
    }
    now = applyChange(now, { id: 'fix', ...fix });
    steps.push(...fix.steps);
  }
  return { edit: edit(label, steps), left };
}
