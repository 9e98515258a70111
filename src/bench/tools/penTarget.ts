import type { Line, Node, Point, Sheet } from '@/core';
import { towards, type End } from '@/core/drawing/end';
import type { NodeRef } from '@/core/drawing/nodeRef';
import { findLine, holdsItem, sheetOf } from '@/core/drawing/find';
import { nearestOnLine } from '@/core/drawing/run';
import { add, distance, mix, snapDirection, subtract } from '@/core/geometry/point';
import { preferences } from '../state/preferences';
import type { BenchState } from '../state/store';
import { toScreen } from '../state/view';
import { ruled } from './ruled';
import { GRIP, gripFor, LINE_GRIP, LINE_PULL, NODE_PULL, type HandEvent, type ToolContext } from './tool';

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

/** What a press with Alt does to a line that is there: the only press by which the pen changes another than its own. */
export type TakenUp =
  /** An open end on the same sheet: drawn on from there, or joined to the line that is being drawn. */
  | { on: 'continue' | 'join'; end: End }
  /** A chosen line, while none is being drawn. */
  | { on: 'add node'; line: Line; run: number; segment: number; t: number; at: Point }
  | { on: 'remove node'; ref: NodeRef; at: Point };

/** What a press of the pen is for, by what lies under it and what is held. */
export type PenTarget =
  | { on: 'place'; at: Point }
  /** The first or the last node of the line that is being drawn. */
  | { on: 'close' }
  | { on: 'drop' }
  /** Another line's node or segment, on which a node is laid; and what Alt would do there instead. */
  | { on: 'node' | 'segment'; at: Point; withAlt: TakenUp['on'] | null }
  | TakenUp;

const STEP = 15;

/** Where a node would go: at the pointer, drawn to guides and grid; with Shift, in 15° steps from the last node. */
export function placeFor(context: ToolContext, e: HandEvent, last: Node | undefined): Point {
  if (last && e.shift) return add(last.point, snapDirection(subtract(e.page, last.point), STEP));
  return ruled(context, e);
}

export function penTarget(context: ToolContext, e: HandEvent, current: Current | null): PenTarget {
  return (
    (current ? whileDrawing(context, e, current) : fromIdle(context, e)) ?? {
      on: 'place',
      at: placeFor(context, e, current?.nodes.at(-1)),
    }
  );
}

function whileDrawing(context: ToolContext, e: HandEvent, { nodes, line, sheet, end }: Current): PenTarget | null {
  const s = context.bench.getState();
  const onto = (n: Node): boolean => distance(toScreen(s.view, n.point), e.screen) <= gripFor(e, GRIP);
  if (onto(nodes.at(-1)!)) return { on: 'drop' };
  if (nodes.length > 1 && onto(nodes[0])) return { on: 'close' };
  const other = openEndAt(context, e, sheet.id);
  const isOther = other && (other.line !== line.id || other.run !== end.run);
  return onLines(context, e, isOther ? { on: 'join', end: other } : null, line.id, nodes.at(-1)!.point);
}

function fromIdle(context: ToolContext, e: HandEvent): PenTarget | null {
  const { sheet } = context.bench.getState();
  const end = openEndAt(context, e, sheet);
  return onLines(context, e, end ? { on: 'continue', end } : chosenAt(context, e), null);
}

/** On a line that is there a press lays a node, and with Alt takes that line up. With Ctrl it keeps to nothing. */
function onLines(
  context: ToolContext,
  e: HandEvent,
  taken: TakenUp | null,
  own: string | null,
  from?: Point,
): PenTarget | null {
  if (e.mod || !preferences.getState().snapLines) return null;
  if (taken && e.alt) return taken;
  const touched = touching(context, e, own);
  // Nothing is drawn twice over: there the place stays free, a stroke of a hatching beside the one before.
  if (touched && from && liesOn(touched.line, from, touched.at, context.unit())) return null;
  return touched && { on: touched.on, at: touched.at, withAlt: taken?.on ?? null };
}

/** The node or segment of a chosen line of the sheet in hand, under the pen. The last two nodes of a run stay. */
function chosenAt(context: ToolContext, e: HandEvent): TakenUp | null {
  const { drawing, lines, sheet } = context.bench.getState();
  const on = sheetOf(drawing, sheet);
  if (lines.size === 0 || !on) return null;
  const isWanted = (l: Line): boolean => lines.has(l.id) && holdsItem(on, l.id);
  const node = context.picking.nearestNode(drawing, e.page, gripFor(e, GRIP) * context.unit(), isWanted);
  if (node) {
    const ref = { line: node.line.id, run: node.run, node: node.node };
    return node.line.runs[node.run].nodes.length > 2 ? { on: 'remove node', ref, at: node.point } : null;
  }
  const hit = context.picking.nearest(drawing, e.page, gripFor(e, LINE_GRIP) * context.unit(), isWanted);
  if (!hit || hit.line.runs[hit.run].nodes.length < 2) return null;
  return { on: 'add node', line: hit.line, run: hit.run, segment: hit.segment, t: hit.t, at: hit.point };
}

/** The open end of a line on a sheet, under the pen. */
function openEndAt(context: ToolContext, e: HandEvent, sheet: string): End | null {
  const { drawing } = context.bench.getState();
  const on = sheetOf(drawing, sheet);
  if (!on) return null;
  const isWanted = (l: Line): boolean => l.runs.some((r) => !r.closed) && holdsItem(on, l.id);
  const hit = context.picking.nearestNode(drawing, e.page, gripFor(e, GRIP) * context.unit(), isWanted);
  const run = hit?.line.runs[hit.run];
  if (!hit || !run || run.closed) return null;
  const isEnd = hit.node === 0 || hit.node === run.nodes.length - 1;
  // A lone node is carried on at its end.
  return isEnd ? { line: hit.line.id, run: hit.run, atStart: hit.node === 0 && run.nodes.length > 1 } : null;
}

/** A node or segment of a line that a place is drawn to. */
export type Touched = { on: 'node' | 'segment'; at: Point; line: Line };

/** The node or segment of a line, other than `own`, that a place is drawn to while that is switched on. */
export function touching(
  context: ToolContext,
  e: HandEvent,
  own: string | null,
  pull: { node: number; line: number } = { node: NODE_PULL, line: LINE_PULL },
): Touched | null {
  if (!preferences.getState().snapLines) return null;
  const { drawing } = context.bench.getState();
  const isOther = (l: Line): boolean => l.id !== own;
  const node = context.picking.nearestNode(drawing, e.page, gripFor(e, pull.node) * context.unit(), isOther);
  if (node) return { on: 'node', at: node.point, line: node.line };
  const hit = context.picking.nearest(drawing, e.page, gripFor(e, pull.line) * context.unit(), isOther);
  return hit && { on: 'segment', at: hit.point, line: hit.line };
}

/** Whether the straight way between two places lies on a line: a segment laid there would be that line once more. */
function liesOn(line: Line, from: Point, to: Point, unit: number): boolean {
  const places = [0, 0.25, 0.5, 0.75, 1].map((t) => mix(from, to, t));
  return distance(from, to) > NODE_PULL * unit && places.every((p) => nearestOnLine(line, p)!.distance < 0.5 * unit);
}
