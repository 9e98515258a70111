import { crossingsOf, withoutLoop } from '../../check/crossings';
import type { Note, NoteKind, NoteLimits } from '../../check/note';
import { withinPage } from '../../check/withinPage';
import type { Edit } from '../../change/edit';
import { endPoint } from '../../drawing/end';
import { findLine } from '../../drawing/find';
import { neighbours, reflowed } from '../../drawing/node';
import { skeletonBox } from '../../drawing/run';
import type { Drawing, Node, Run } from '../../drawing/schema';
import { boxesMeet } from '../../geometry/box';
import { distance, type Point } from '../../geometry/point';
import { refitNearby } from '../../geometry/refitNearby';
import { trimToLine } from '../ends';
import { removeLines, reshapeLines } from '../lines';
import { changeKind, withoutNodes } from '../nodes';
import { waysToClose } from './gaps';
import { roundedAt, smoothWhereItIs } from './kink';
import { dividedAt, shortenedAt } from './wild';

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

/**
 * A way to put a note right. What lies within `around` of the note may move, page units; the rest of its lines is to stay.
 * `cuts`: it only takes away, and what is left stays as it is.
 */
export type Way = { readonly edit: Edit; readonly around: number; readonly cuts?: true };

/** A loop of more than this share of its line is no slip of the hand. */
const LOOP = 0.5;

/** The ways to put a note right, the best first; none where it no longer holds, or needs a hand. */
export function* waysToFix(d: Drawing, note: Note, limits: NoteLimits): Generator<Way> {
  const line = findLine(d, note.lines[0])?.line;
  const run = line?.runs[note.run];
  if (!line || !run) return;
  const ref = { line: line.id, run: note.run, node: note.node };
  const { reach } = limits;
  const cut = (edit: Edit): Way[] => (edit.steps.length > 0 ? [{ edit, around: 0, cuts: true }] : []);
  const reshaped = (next: Run | null, label: string): Edit[] =>
    next ? [reshapeLines(d, new Map([[line.id, line.runs.map((r) => (r === run ? next : r))]]), label)] : [];
  switch (note.kind) {
    case 'gap':
      if (!note.end || !isPlace(endPoint(d, note.end), note.at)) return;
      for (const edit of waysToClose(d, note.end, note.lines.at(-1)!, reach)) yield { edit, around: 0 };
      return;
    case 'overhang': {
      const other = findLine(d, note.lines.at(-1)!)?.line;
      const trim = note.end && other ? trimToLine(d, note.end, other, reach, 'Trim overhang') : null;
      if (trim) yield { edit: trim, around: Infinity };
      return;
    }
    case 'kink': {
      if (!isAt(run.nodes[note.node], note.at)) return;
      const label = 'Make smooth';
      const smooth = smoothWhereItIs(run, note.node);
      // What moves no further than a node may whose loss is not seen is taken before a node more.
      const isUnseen = smooth !== null && smooth.moved <= limits.needless;
      for (const edit of reshaped(smooth && smooth.run, label)) yield { edit, around: isUnseen ? Infinity : reach };
      for (const rounded of roundedAt(run, note.node, reach, limits.needless))
        for (const edit of reshaped(rounded.run, label))
          yield { edit, around: rounded.isLean ? Infinity : 1.5 * reach };
      const plain = changeKind(d, [ref], 'smooth');
      if (plain.steps.length > 0) yield { edit: { ...plain, label }, around: reach };
      return;
    }
    case 'crumb':
      return yield* cut(removeLines(d, [line.id], 'Delete crumb'));
    case 'doubled':
      return yield* cut(removeLines(d, [line.id], 'Delete doubled line'));
    case 'stray':
      if (run.nodes.length !== 1) return;
      return yield* cut(reshapeLines(d, new Map([[line.id, line.runs.filter((r) => r !== run)]]), 'Delete stray node'));
    case 'needless': {
      if (!isAt(run.nodes[note.node], note.at)) return;
      const rest = withoutNodes(run, new Set([note.node]), refitNearby);
      // Its loss moves the segments beside it by no more than what makes it needless.
      const around = farNeighbour(run, note.node);
      for (const edit of reshaped(reflowed(rest), 'Remove node')) yield { edit, around };
      return;
    }
    case 'wild': {
      if (!isAt(run.nodes[note.node], note.at)) return;
      const label = 'Shorten handles';
      const around = Infinity;
      for (const edit of reshaped(shortenedAt(run, note.node), label)) yield { edit, around };
      for (const edit of reshaped(dividedAt(run, note.node), label)) yield { edit, around };
      return;
    }
    case 'crossing': {
      const crossing = crossingsOf(run).find((c) => distance(c.point, note.at) < 0.5);
      const total = run.closed ? Infinity : (crossing?.loop ?? 0) / LOOP;
      if (!crossing || (!run.closed && total > polygonOf(run))) return;
      for (const edit of reshaped(withoutLoop(run, crossing), 'Take loop out')) yield { edit, around: Infinity };
      return;
    }
    case 'outside': {
      const page = { minX: 0, minY: 0, maxX: d.page.width, maxY: d.page.height };
      if (!boxesMeet(skeletonBox(line), page)) return yield* cut(removeLines(d, [line.id], 'Delete line off the page'));
      const within = line.runs.flatMap((r) => withinPage(r, page));
      return yield* cut(reshapeLines(d, new Map([[line.id, within]]), 'Cut off at the page'));
    }
  }
}

const isPlace = (p: Point | undefined, at: Point): boolean => !!p && distance(p, at) < 0.5;
const isAt = (node: Node | undefined, at: Point): boolean => isPlace(node?.point, at);

const polygonOf = (run: Run): number =>
  run.nodes.slice(1).reduce((sum, n, i) => sum + distance(n.point, run.nodes[i].point), 0);

/** How far the neighbours of a node lie from it, at most. */
const farNeighbour = (run: Run, at: number): number =>
  Math.max(...neighbours(run, at).map((n) => (n ? distance(n.point, run.nodes[at].point) : 0)));
