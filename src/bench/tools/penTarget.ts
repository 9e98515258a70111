import type { Line, Node, Point, Sheet } from '@/core';
import { towards, type End } from '@/core/change/joinEdits';
import type { NodeRef } from '@/core/change/nodeEdits';
import { findLine } from '@/core/drawing/find';
import { snapped } from '@/core/drawing/snap';
import { add, distance, snapDirection, subtract } from '@/core/geometry/point';
import { preferences } from '../state/preferences';
import type { BenchState } from '../state/store';
import { toScreen } from '../state/view';
import { GRIP, gripFor, LINE_GRIP, SNAP, type HandEvent, type Reach } from './tool';

/** The line under the pen: `nodes` in the order in which they are drawn, the last where the next one joins on. */
export type Current = {
  readonly end: End;
  readonly line: Line;
  readonly sheet: Sheet;
  readonly nodes: readonly Node[];
};

/** The line that is drawn on at an end; null when it is not there (any more: undo may have taken it). */
export function currentAt(s: BenchState, end: End | null): Current | null {
  const found = end && findLine(s.drawing, end.line);
  const run = end && found?.line.runs[end.run];
  if (!found || !run || run.closed) return null;
  return { end, line: found.line, sheet: found.sheet, nodes: towards(run, end) };
}

/** What a press of the pen is for, by what lies under it. */
export type PenTarget =
  | { on: 'place'; at: Point }
  /** The first or the last node of the line that is being drawn. */
  | { on: 'close' }
  | { on: 'drop' }
  /** An open end: drawn on from there, or joined to the line that is being drawn. */
  | { on: 'continue' | 'join'; end: End }
  /** Another line's node or segment, on which a line starts or ends. */
  | { on: 'node' | 'segment'; at: Point }
  /** A chosen line, while none is being drawn. */
  | { on: 'add node'; line: Line; run: number; segment: number; t: number; at: Point }
  | { on: 'remove node'; ref: NodeRef; at: Point };

const STEP = 15;

/** Where a node would go: at the pointer, drawn to guides and grid; with Shift, in 15° steps from the last node. */
export function placeFor(reach: Reach, e: HandEvent, last: Node | undefined): Point {
  if (last && e.shift) return add(last.point, snapDirection(subtract(e.page, last.point), STEP));
  return snapped(reach.bench.getState().drawing.page, e.page, SNAP * reach.unit());
}

export function penTarget(reach: Reach, e: HandEvent, current: Current | null): PenTarget {
  return (
    (current ? whileDrawing(reach, e, current) : fromIdle(reach, e)) ?? {
      on: 'place',
      at: placeFor(reach, e, current?.nodes.at(-1)),
    }
  );
}

function whileDrawing(reach: Reach, e: HandEvent, { nodes, line, end }: Current): PenTarget | null {
  const s = reach.bench.getState();
  const onto = (n: Node): boolean => distance(toScreen(s.view, n.point), e.screen) <= gripFor(e, GRIP);
  if (onto(nodes.at(-1)!)) return { on: 'drop' };
  if (nodes.length > 1 && onto(nodes[0])) return { on: 'close' };
  if (e.mod) return null;
  const other = openEndAt(reach, e);
  if (other && (other.line !== line.id || other.run !== end.run)) return { on: 'join', end: other };
  return touching(reach, e, line.id);
}

function fromIdle(reach: Reach, e: HandEvent): PenTarget | null {
  // Held, the pen starts a line there, whatever lies beneath.
  if (e.mod) return touching(reach, e, null);
  const end = openEndAt(reach, e);
  if (end) return { on: 'continue', end };
  const { drawing, lines } = reach.bench.getState();
  const isChosen = (l: Line): boolean => lines.has(l.id);
  const node = reach.picking.nearestNode(drawing, e.page, gripFor(e, GRIP) * reach.unit(), isChosen);
  if (node) return { on: 'remove node', ref: { line: node.line.id, run: node.run, node: node.node }, at: node.point };
  const hit = reach.picking.nearest(drawing, e.page, gripFor(e, LINE_GRIP) * reach.unit(), isChosen);
  if (hit && hit.line.runs[hit.run].nodes.length > 1)
    return { on: 'add node', line: hit.line, run: hit.run, segment: hit.segment, t: hit.t, at: hit.point };
  return touching(reach, e, null);
}

/** The open end of a line on a sheet that can be drawn on, under the pen. */
function openEndAt(reach: Reach, e: HandEvent): End | null {
  const { drawing } = reach.bench.getState();
  const hit = reach.picking.nearestNode(drawing, e.page, gripFor(e, GRIP) * reach.unit(), (l) =>
    l.runs.some((r) => !r.closed),
  );
  const run = hit?.line.runs[hit.run];
  if (!hit || !run || run.closed) return null;
  const isEnd = hit.node === 0 || hit.node === run.nodes.length - 1;
  // A lone node is carried on at its end.
  return isEnd ? { line: hit.line.id, run: hit.run, atStart: hit.node === 0 && run.nodes.length > 1 } : null;
}

/** The node or segment of a line, other than `own`, that a place is drawn to while that is switched on. */
export function touching(reach: Reach, e: HandEvent, own: string | null): { on: 'node' | 'segment'; at: Point } | null {
  if (!preferences.getState().snapLines) return null;
  const { drawing } = reach.bench.getState();
  const isOther = (l: Line): boolean => l.id !== own;
  const node = reach.picking.nearestNode(drawing, e.page, gripFor(e, GRIP) * reach.unit(), isOther);
  if (node) return { on: 'node', at: node.point };
  const hit = reach.picking.nearest(drawing, e.page, gripFor(e, LINE_GRIP) * reach.unit(), isOther);
  return hit && { on: 'segment', at: hit.point };
}
