import { endPoint } from '../drawing/end';
import { linesOf } from '../drawing/items';
import { findLine, isOpenSheet } from '../drawing/find';
import { reflowed } from '../drawing/node';
import { segmentBetween } from '../drawing/run';
import type { Drawing, Line, Node, Run } from '../drawing/schema';
import { hullBox } from '../geometry/bounds';
import { boxesMeet } from '../geometry/box';
import { derivative, type Cubic } from '../geometry/cubic';
import { intersectCubics } from '../geometry/intersection';
import { add, distance, mix, scale, subtract, unit, type Point } from '../geometry/point';
import { edit, type Edit } from '../change/edit';
import { replacedRun } from './join';
import { towards, type End } from '../drawing/end';
import { reshapeLines } from './lines';
import { crossingBefore, othersOf, trimmed, type Other } from '../drawing/crossing';

/** Where an end meets another line: cut short there, or carried on to it. */
export type Meeting = {
  readonly how: 'trim' | 'extend';
  readonly by: number;
  readonly point: Point;
  readonly line: string;
};

/**
 * Where an open end should meet another line: the nearest crossing behind it within `reach` page units along its line,
 * or else ahead of it, straight on; null where there is none.
 */
export function meetingOf(d: Drawing, end: End, reach: number): Meeting | null {
  const run = findLine(d, end.line)?.line.runs[end.run];
  if (!run || run.closed || run.nodes.length < 2) return null;
  const nodes = towards(run, end);
  const others = otherCubics(d, end.line);
  return trimOf(nodes, others, reach) ?? extensionOf(nodes, others, reach);
}

/** An end trimmed or extended to the line it should meet; without steps where it meets none within `reach`. */
export function meetLine(d: Drawing, end: End, reach: number): Edit {
  const meeting = meetingOf(d, end, reach);
  if (!meeting) return edit('Meet line');
  const { how, by, point } = meeting;
  return how === 'trim'
    ? withEnd(d, end, (nodes) => trimmed(nodes, by), 'Trim to line')
    : withEnd(d, end, (nodes) => extended(nodes, point), 'Extend to line');
}

/** An end cut short where it crosses a line within `reach` of it; without steps where it does not stick out beyond that. */
export function trimToLine(d: Drawing, end: End, other: Line, reach: number, label: string): Edit {
  const run = findLine(d, end.line)?.line.runs[end.run];
  const trim = run && !run.closed ? trimOf(towards(run, end), othersOf(other), reach) : null;
  return trim ? withEnd(d, end, (nodes) => trimmed(nodes, trim.by), label) : edit(label);
}

/** A line with the nodes towards one of its ends made anew. */
function withEnd(d: Drawing, end: End, make: (nodes: readonly Node[]) => Node[], label: string): Edit {
  const { line } = findLine(d, end.line)!;
  const runs = replacedRun(line, end, make(towards(line.runs[end.run], end)));
  return reshapeLines(d, new Map([[line.id, runs]]), label);
}

/** Two ends brought to one place, the middle between them, each line staying its own. */
export function bringTogether(d: Drawing, a: End, b: End): Edit {
  const [one, two] = [a, b].map((end) => findLine(d, end.line)?.line);
  const [p, q] = [a, b].map((end) => endPoint(d, end));
  if (!one || !two || !p || !q) return edit('Bring ends together');
  const to = mix(p, q, 0.5);
  const runsOf = (end: End, runs: readonly Run[]): Run[] =>
    runs.map((r, i) => (i === end.run ? withEndAt(r, end.atStart, to) : r));
  const runs = new Map<string, readonly Run[]>([[one.id, runsOf(a, one.runs)]]);
  runs.set(two.id, runsOf(b, runs.get(two.id) ?? two.runs));
  return reshapeLines(d, runs, 'Bring ends together');
}

/** An end moved to a place. */
export function moveEnd(d: Drawing, end: End, to: Point, label = 'Move end'): Edit {
  const line = findLine(d, end.line)?.line;
  if (!line) return edit(label);
  const runs = line.runs.map((r, i) => (i === end.run ? withEndAt(r, end.atStart, to) : r));
  return reshapeLines(d, new Map([[line.id, runs]]), label);
}

function withEndAt(run: Run, atStart: boolean, to: Point): Run {
  const k = atStart ? 0 : run.nodes.length - 1;
  return reflowed({ ...run, nodes: run.nodes.map((n, i) => (i === k ? { ...n, point: to } : n)) });
}

const otherCubics = (d: Drawing, but: string): Other[] =>
  d.sheets
    .filter(isOpenSheet)
    .flatMap((s) => linesOf(s).filter((l) => l.id !== but))
    .flatMap(othersOf);

const SAME = 1e-6;

function trimOf(nodes: readonly Node[], others: readonly Other[], reach: number): Meeting | null {
  const crossed = crossingBefore(nodes, others, reach);
  // An end that lies on a line meets it already.
  return crossed && crossed.by > SAME ? { how: 'trim', ...crossed } : null;
}

/** Where nodes would meet one of some curves, led straight on by up to `reach`. */
export function extensionOf(nodes: readonly Node[], others: readonly Other[], reach: number): Meeting | null {
  const [from, last] = [nodes.at(-2)!, nodes.at(-1)!];
  const cubic = segmentBetween(from, last);
  const direction =
    unit(derivative(cubic, 1)) ?? unit(subtract(last.point, last.in ? add(last.point, last.in) : from.point));
  if (!direction) return null;
  const tip = add(last.point, scale(direction, reach));
  const ray: Cubic = [last.point, mix(last.point, tip, 1 / 3), mix(last.point, tip, 2 / 3), tip];
  let best: Meeting | null = null;
  const around = hullBox(ray);
  for (const other of others) {
    if (!boxesMeet(around, other)) continue;
    for (const { point } of intersectCubics(ray, other.cubic)) {
      const by = distance(last.point, point);
      if (by > SAME && (!best || by < best.by)) best = { how: 'extend', by, point, line: other.line };
    }
  }
  return best;
}

/** Nodes with the last one carried straight on to a place. */
function extended(nodes: readonly Node[], to: Point): Node[] {
  const [before, last] = [nodes.at(-2)!, nodes.at(-1)!];
  if (!before.out && !last.in) return [...nodes.slice(0, -1), { ...last, point: to }];
  return [...nodes.slice(0, -1), { ...last, out: null }, { point: to, in: null, out: null, kind: 'corner' }];
}
