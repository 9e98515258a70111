import type { Drawing, Node, Point } from '@/core';
import { extendEnd, joinEnds, replacedRun } from '@/core/edits/join';
import { towards, type End } from '@/core/drawing/end';
import { addLine, reshapeLines } from '@/core/edits/lines';
import { turnHandle } from '@/core/edits/nodes';
import type { Edit } from '@/core/change/edit';
import { findLine, sheetOf } from '@/core/drawing/find';
import { arriving, cornerIfBent } from '@/core/drawing/node';
import { cornerAt, reversedNodes } from '@/core/drawing/run';
import { lengthOf, scale } from '@/core/geometry/point';
import type { Current, PenTarget } from './penTarget';
import type { HandEvent } from './tool';

/** A press of the pen that is under way: what it is for, and what it has come to. */
export type Gesture =
  | {
      for: 'start' | 'add' | 'close' | 'join';
      /** The node as it stands; the far one when the line closes or joins another. */
      node: Node;
      /** Where the line is drawn on: at its end; a new line's, before there is one. */
      end: End;
      /** The end that it joins. */
      to?: End;
      pressed: Point;
      last: Point;
      pulled: boolean;
      /** It closes by a straight segment. */
      plain: boolean;
    }
  | { for: 'drop' | 'take'; end: End; pressed: Point; out: Point | null; pulled: boolean };

export type NodeGesture = Extract<Gesture, { node: Node }>;

/** The node at an open end, as it is met when its line is walked from there. */
export function farEnd(drawing: Drawing, end: End): Node | undefined {
  const run = findLine(drawing, end.line)?.line.runs[end.run];
  return run && reversedNodes(towards(run, end))[0];
}

/** What a press begins that lays a node, closes or joins; `id` names the line if it is a new one. */
export function nodeGesture(
  drawing: Drawing,
  e: HandEvent,
  target: PenTarget,
  current: Current | null,
  id: string,
): NodeGesture {
  let node: Node;
  if (target.on === 'close') node = current!.nodes[0];
  else if (target.on === 'join') node = farEnd(drawing, target.end)!;
  else node = cornerAt('at' in target ? target.at : e.page);
  return {
    for: !current ? 'start' : target.on === 'close' || target.on === 'join' ? target.on : 'add',
    node,
    end: current?.end ?? { line: id, run: 0, atStart: false },
    ...(target.on === 'join' ? { to: target.end } : {}),
    pressed: e.screen,
    last: e.page,
    pulled: false,
    plain: e.alt && target.on === 'close',
  };
}

/**
 * The node with its handles drawn to `offset`: both ways, or with `alone` only the way out (the way in, at a close). Of a
 * line that is joined only the way in is drawn: the rest of it stays as it was.
 */
export function drawnNode(g: NodeGesture, offset: Point, alone: boolean): Node {
  if (g.for === 'close' || g.for === 'join') {
    // The far node keeps its way out; what is drawn shapes the last curve, which comes in.
    const into = scale(offset, -1);
    const turns = g.for === 'close' && !alone && g.node.kind !== 'corner' && g.node.out;
    return {
      ...g.node,
      in: into,
      out: turns ? scale(offset, lengthOf(turns) / (lengthOf(offset) || 1)) : g.node.out,
    };
  }
  if (alone) return { ...g.node, out: offset, kind: 'corner' };
  return { ...g.node, in: g.for === 'start' ? null : scale(offset, -1), out: offset, kind: 'smooth' };
}

/** What a gesture would change. */
export function editOf(g: Gesture, drawing: Drawing, sheet: string, current: Current | null): Edit | null {
  if (!('node' in g)) {
    const nodes = current?.nodes;
    if (!nodes || (g.for === 'take' && !g.pulled)) return null;
    const { atStart, line, run } = current.end;
    const ref = { line, run, node: atStart ? 0 : nodes.length - 1 };
    return turnHandle(drawing, ref, atStart ? 'in' : 'out', g.pulled ? g.out : null, true);
  }
  if (g.for === 'start') {
    const style = { ...sheetOf(drawing, sheet)!.style, fill: null };
    const runs = [{ closed: false, nodes: [g.node] }];
    return addLine(drawing, sheet, { id: g.end.line, style, runs }, 'Start line');
  }
  if (!current) return null;
  if (g.for === 'add') return extendEnd(drawing, current.end, g.node);
  // A straight last segment has no handle at either end; a click lets the line run into a smooth node smoothly.
  const last = current.nodes.at(-1)!;
  const leaving = g.plain ? { ...last, out: null } : last;
  const from = current.nodes.length > 1 ? cornerIfBent(leaving) : leaving;
  const to = cornerIfBent(g.plain ? { ...g.node, in: null } : g.pulled ? g.node : arriving(g.node, last.point));
  if (g.for === 'close') {
    const nodes = [to, ...current.nodes.slice(1, -1), ...(current.nodes.length > 1 ? [from] : [])];
    const runs = replacedRun(current.line, current.end, nodes, true);
    return reshapeLines(drawing, new Map([[current.line.id, runs]]), 'Close line');
  }
  return g.to ? joinEnds(drawing, current.end, g.to, { from, to }, 'Join lines') : null;
}
