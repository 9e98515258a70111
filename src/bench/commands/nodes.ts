import { nanoid } from 'nanoid';
import { applyChange, type Run } from '@/core';
import type { SegmentRef } from '@/core/edits/bend';
import { cutAtNode } from '@/core/edits/cut';
import type { Edit } from '@/core/change/edit';
import { bringTogether, meetingOf, meetLine } from '@/core/edits/ends';
import { joinEnds } from '@/core/edits/join';
import { type End } from '@/core/drawing/end';
import { nodeAt, nodeOfKey, type NodeRef } from '@/core/drawing/nodeRef';
import { startAtNode, transformNodes } from '@/core/edits/runs';
import { segmentsBetween } from '@/core/edits/segments';
import { findLine } from '@/core/drawing/find';
import { segmentCount } from '@/core/drawing/run';
import { boxOfPoints, middleOfBox } from '@/core/geometry/box';
import { scalingAbout, turningAbout } from '@/core/geometry/matrix';
import type { Bench } from '../state/store';

/** What can be done to chosen nodes from cards and keys. */

export const chosenNodes = (bench: Bench): NodeRef[] => [...bench.getState().nodes].map(nodeOfKey);

/** The segments between chosen nodes; without chosen nodes, all segments of the chosen lines. */
export function chosenSegments(bench: Bench): SegmentRef[] {
  const { drawing, lines, nodes } = bench.getState();
  const refs = [...nodes].map(nodeOfKey);
  return [...lines].flatMap((id) => {
    const line = findLine(drawing, id)?.line;
    return (line?.runs ?? []).flatMap((run: Run, r) => {
      const own = new Set(refs.filter((x) => x.line === id && x.run === r).map((x) => x.node));
      const list =
        refs.length === 0 ? Array.from({ length: segmentCount(run) }, (_, i) => i) : segmentsBetween(run, own);
      return list.map((segment) => ({ line: id, run: r, segment }));
    });
  });
}

/** Commits what is done to the chosen nodes; says so where it comes to nothing. */
export function toNodes(bench: Bench, make: (refs: NodeRef[]) => Edit, nothing: string): void {
  const refs = chosenNodes(bench);
  if (refs.length === 0) return bench.tell('Choose nodes first.');
  bench.commit(make(refs), null, nothing);
}

/** Commits what is done to the chosen segments; their nodes have other places then, and are let go. */
export function toSegments(bench: Bench, make: (refs: SegmentRef[]) => Edit, keepNodes = false): void {
  const refs = chosenSegments(bench);
  if (refs.length === 0) return bench.tell('Choose two nodes next to each other: the segment between them is meant.');
  if (bench.commit(make(refs)) && !keepNodes) bench.choose(bench.getState().lines);
}

/** Cuts lines at the chosen nodes. */
export function cutChosen(bench: Bench): void {
  const refs = chosenNodes(bench).sort((a, b) => b.node - a.node);
  if (refs.length !== 1) return bench.tell('Choose one node to cut at; Shift N cuts where the pointer is.');
  const fresh = nanoid(10);
  const cut = cutAtNode(bench.getState().drawing, refs[0], fresh);
  if (!bench.commit(cut, null, 'A line cannot be cut at its end.')) return;
  const { drawing, lines } = bench.getState();
  bench.choose([...lines, ...(findLine(drawing, fresh) ? [fresh] : [])]);
}

/** The open end that the one chosen node is; null for any other node. */
export function chosenEnd(bench: Bench): End | null {
  const ends = chosenEnds(bench);
  return ends.length === 1 && bench.getState().nodes.size === 1 ? ends[0] : null;
}

/** The open ends among the chosen nodes. */
export function chosenEnds(bench: Bench): End[] {
  const { drawing } = bench.getState();
  return chosenNodes(bench).flatMap(({ line, run: r, node }): End[] => {
    const run = findLine(drawing, line)?.line.runs[r];
    if (!run || run.closed || run.nodes.length < 2) return [];
    return node === 0 || node === run.nodes.length - 1 ? [{ line, run: r, atStart: node === 0 }] : [];
  });
}

/** Joins the two chosen ends: by a straight segment, or merged into one node in the middle between them. */
export function joinChosenEnds(bench: Bench, how: 'straight' | 'merged'): void {
  const { drawing } = bench.getState();
  const [a, b] = chosenEnds(bench);
  if (!a || !b) return bench.tell('Choose two open ends.');
  const label = how === 'merged' ? 'Merge ends' : 'Join';
  const met = how === 'merged' ? bringTogether(drawing, a, b) : null;
  const between = met && met.steps.length > 0 ? applyChange(drawing, { id: 'merge', ...met }) : drawing;
  const joined = joinEnds(between, a, b, undefined, label);
  const both = { label, steps: [...(met?.steps ?? []), ...joined.steps] };
  bench.commit(both, [a.line], 'These ends cannot be joined.');
}

/** How far an end is led to a line, in CSS px. */
const MEET = 160;

/** Trims or extends the chosen end to the line it should meet. */
export function meetChosen(bench: Bench): void {
  const end = chosenEnd(bench);
  if (!end) return bench.tell('Choose the end of an open line.');
  const { drawing, view } = bench.getState();
  const meeting = meetingOf(drawing, end, MEET / view.scale);
  if (!meeting) return bench.tell('No line is crossed near this end, and none lies ahead of it.');
  bench.commit(meetLine(drawing, end, MEET / view.scale));
  bench.choose([end.line]);
}

export function startHere(bench: Bench): void {
  const [ref] = chosenNodes(bench);
  const nothing = 'Only a closed line can begin at another node.';
  if (!ref) return bench.tell(nothing);
  if (!bench.commit(startAtNode(bench.getState().drawing, ref), null, nothing)) return;
  bench.choose([ref.line], [`${ref.line}:${ref.run}:0`]);
}

/** Chosen nodes turned, or scaled, about the middle of the box around them. */
export function transformChosen(bench: Bench, how: { turn: number } | { scale: number }): void {
  const { drawing } = bench.getState();
  toNodes(
    bench,
    (refs) => {
      const box = boxOfPoints(refs.flatMap((r) => nodeAt(drawing, r)?.point ?? []));
      const middle = middleOfBox(box);
      const map = 'turn' in how ? turningAbout(middle, how.turn) : scalingAbout(middle, how.scale, how.scale);
      return transformNodes(drawing, refs, map, 'turn' in how ? 'Turn' : 'Scale');
    },
    'Nothing was moved.',
  );
}
