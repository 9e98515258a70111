import type { Drawing, Point } from '@/core';
import { swayShares } from '@/core/edits/nodes';
import { nodeAt, nodeOfKey, type NodeRef } from '@/core/drawing/nodeRef';
import { arcMiddle, canRound } from '@/core/edits/round';
import { findLine } from '@/core/drawing/find';
import { dot, lengthOf, scale, unit } from '@/core/geometry/point';
import type { BenchState } from '../state/store';
import { toScreen, type View } from '../state/view';
import type { HandEvent, Hint } from './tool';

/** A corner that is sharp has its grip so far inside, CSS px at 100 %. */
const INSIDE = 16;

/** Where the grips lie that round the chosen corners off, in page units. */
export function roundingGrips(d: Drawing, refs: readonly NodeRef[]): { ref: NodeRef; at: Point }[] {
  if (refs.length > 60) return [];
  return refs.flatMap((ref) => {
    const run = findLine(d, ref.line)?.line.runs[ref.run];
    if (!run || ref.node >= run.nodes.length || !canRound(run, ref.node)) return [];
    const at = arcMiddle(run, ref.node, Math.max(INSIDE, run.nodes[ref.node].radius ?? 0));
    return at ? [{ ref, at }] : [];
  });
}

/** Where a bead goes for what is held: Ctrl keeps its direction, Space its length. */
export function heldBead(was: Point, to: Point, { mod, space }: Pick<HandEvent, 'mod' | 'space'>): Point {
  const direction = unit(was);
  if (mod && direction) return scale(direction, Math.max(0.01, dot(to, direction)));
  const turned = unit(to);
  return space && turned && direction ? scale(turned, lengthOf(was)) : to;
}

/** Rings on the nodes that would be carried along, the larger the more. */
export function paintSway(
  ctx: CanvasRenderingContext2D,
  view: View,
  d: Drawing,
  refs: readonly NodeRef[],
  sway: number,
): void {
  const byRun = new Map<string, NodeRef[]>();
  for (const r of refs) byRun.set(`${r.line}:${r.run}`, [...(byRun.get(`${r.line}:${r.run}`) ?? []), r]);
  ctx.save();
  ctx.strokeStyle = 'rgba(39,36,29,0.55)';
  ctx.setLineDash([2, 2]);
  for (const own of byRun.values()) {
    const run = findLine(d, own[0].line)?.line.runs[own[0].run];
    if (!run) continue;
    const chosen = own.map((r) => r.node);
    swayShares(run, chosen, sway).forEach((share, i) => {
      if (share <= 0 || chosen.includes(i)) return;
      const at = toScreen(view, run.nodes[i].point);
      ctx.beginPath();
      ctx.arc(at.x, at.y, 7 + 9 * share, 0, 2 * Math.PI);
      ctx.stroke();
    });
  }
  ctx.restore();
}

/** What the hand can do with nodes now. */
export function nodeHints(
  s: Pick<BenchState, 'lines' | 'nodes' | 'drawing'>,
  gesture: 'bead' | 'nodes' | 'marquee' | 'rounding' | null,
  on: 'bead' | 'node' | 'line' | 'rounding' | 'nothing',
  sway: boolean,
): Hint[] {
  const leave: Hint = { keys: 'Escape', what: 'leave it as it was' };
  if (gesture === 'bead')
    return [
      { keys: 'Shift', what: '15° steps' },
      { keys: 'Ctrl', what: 'only longer or shorter' },
      { keys: 'Space', what: 'only turn, as long as it is' },
      { keys: 'Alt', what: 'apart from the other' },
      leave,
    ];
  if (gesture === 'rounding') return [{ keys: 'drag inwards', what: 'round the chosen corners off' }, leave];
  if (gesture === 'nodes')
    return [
      { keys: 'Shift', what: '15° steps' },
      ...(sway ? [{ keys: 'sway is on', what: 'neighbours come along' }] : []),
      leave,
    ];
  if (s.lines.size === 0)
    return [
      { keys: 'click a line', what: 'show its nodes' },
      { keys: 'drag a box', what: 'choose nodes' },
      { keys: 'Space drag', what: 'pan' },
    ];
  if (on === 'rounding')
    return [
      { keys: 'drag inwards', what: 'round all chosen corners' },
      { keys: 'Alt drag', what: 'this corner alone' },
    ];
  if (on === 'bead')
    return [
      { keys: 'drag the bead', what: 'turn the curve' },
      { keys: 'Alt drag', what: 'apart from the other' },
      { keys: 'double-click', what: 'drop this handle' },
    ];
  const first = s.nodes.size > 0 ? nodeAt(s.drawing, nodeOfKey([...s.nodes][0])) : undefined;
  return [
    { keys: 'drag a node', what: 'move it' },
    { keys: 'Shift click', what: 'add or take away' },
    ...(on === 'node'
      ? [{ keys: 'double-click', what: first?.in || first?.out ? 'drop its handles' : 'drop or give back handles' }]
      : []),
    ...(on === 'line'
      ? [
          { keys: 'N', what: 'add a node here' },
          { keys: 'Shift N', what: 'cut here' },
        ]
      : []),
    ...(s.nodes.size > 0
      ? [
          { keys: 'Delete', what: 'remove, keep the shape' },
          { keys: 'Shift Delete', what: 'remove, and leave the handles of the others' },
        ]
      : [{ keys: 'Delete', what: 'delete the line' }]),
  ];
}
