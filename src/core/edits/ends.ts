import { linesOf } from '../drawing/items';
import { findLine, isOpenSheet } from '../drawing/find';
import { reflowed } from '../drawing/node';
import { cubicsOf, segmentBetween } from '../drawing/run';
import type { Drawing, Node, Run } from '../drawing/schema';
import { hullBox } from '../geometry/bounds';
import { boxesMeet } from '../geometry/box';
import { derivative, splitAt, type Cubic } from '../geometry/cubic';
import { intersectCubics } from '../geometry/intersection';
import { cubicLength } from '../geometry/length';
import { add, distance, mix, scale, subtract, unit, type Point } from '../geometry/point';
import { edit, type Edit } from '../change/edit';
import { replacedRun, towards, type End } from './join';
import { reshapeLines } from './lines';

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
  const line = findLine(d, end.line)?.line;
  const run = line?.runs[end.run];
  const meeting = meetingOf(d, end, reach);
  if (!line || !run || !meeting) return edit('Meet line');
  const nodes = towards(run, end);
  const label = meeting.how === 'trim' ? 'Trim to line' : 'Extend to line';
  const next = meeting.how === 'trim' ? trimmed(nodes, meeting.by) : extended(nodes, meeting.point);
  return reshapeLines(d, new Map([[line.id, replacedRun(line, end, next)]]), label);
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

export function endPoint(d: Drawing, end: End): Point | undefined {
  const nodes = findLine(d, end.line)?.line.runs[end.run]?.nodes;
  return (end.atStart ? nodes?.[0] : nodes?.at(-1))?.point;
}

function withEndAt(run: Run, atStart: boolean, to: Point): Run {
  const k = atStart ? 0 : run.nodes.length - 1;
  return reflowed({ ...run, nodes: run.nodes.map((n, i) => (i === k ? { ...n, point: to } : n)) });
}

/** A curve of another line, by its id. */
export type Other = { readonly line: string; readonly cubic: Cubic };
export type Crossed = { readonly by: number; readonly point: Point; readonly line: string };

const otherCubics = (d: Drawing, but: string): Other[] =>
  d.sheets
    .filter(isOpenSheet)
    .flatMap((s) => linesOf(s).filter((l) => l.id !== but))
    .flatMap((l) => l.runs.flatMap((r) => cubicsOf(r).map((cubic) => ({ line: l.id, cubic }))));

const SAME = 1e-6;

/**
 * The crossing with one of some curves that is nearest to the last node along its line, within `reach` of it; `by` is the
 * length that lies beyond, 0 where the end lies on the other line.
 */
export function crossingBefore(nodes: readonly Node[], others: readonly Other[], reach: number): Crossed | null {
  let away = 0;
  for (let i = nodes.length - 1; i > 0 && away < reach; i--) {
    const cubic = tailOf(segmentBetween(nodes[i - 1], nodes[i]), reach - away);
    const box = hullBox(cubic);
    let best: Crossed | null = null;
    for (const { line, cubic: other } of others) {
      if (!boxesMeet(box, hullBox(other))) continue;
      for (const { ta, point } of intersectCubics(cubic, other)) {
        const by = away + (ta < 1 ? cubicLength(splitAt(cubic, ta)[1]) : 0);
        if (by <= reach && (!best || by < best.by)) best = { by, point, line };
      }
    }
    if (best) return best;
    away += cubicLength(cubic);
  }
  return null;
}

/** The last part of a cubic: as much as is within reach, and a little more. */
function tailOf(c: Cubic, reach: number): Cubic {
  const whole = cubicLength(c, 0.01);
  return whole <= 2 * reach ? c : splitAt(c, parameterAt(c, whole - 1.2 * reach, whole))[1];
}

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
  for (const { line, cubic: other } of others) {
    if (!boxesMeet(hullBox(ray), hullBox(other))) continue;
    for (const { point } of intersectCubics(ray, other)) {
      const by = distance(last.point, point);
      if (by > SAME && (!best || by < best.by)) best = { how: 'extend', by, point, line };
    }
  }
  return best;
}

/** Nodes with so much of their line's end taken away. */
export function trimmed(nodes: readonly Node[], by: number): Node[] {
  let left = by;
  for (let i = nodes.length - 1; i > 0; i--) {
    const cubic = segmentBetween(nodes[i - 1], nodes[i]);
    const length = cubicLength(cubic);
    if (length <= left && i > 1) {
      left -= length;
      continue;
    }
    const t = parameterAt(cubic, Math.max(0, length - left), length);
    const [first] = splitAt(cubic, Math.max(1e-6, t));
    const [before, after] = [nodes[i - 1], nodes[i]];
    const isStraight = !before.out && !after.in;
    const kind = (n: Node): Node['kind'] => (n.kind === 'even' || n.kind === 'flowing' ? 'smooth' : n.kind);
    return [
      ...nodes.slice(0, i - 1),
      isStraight ? before : { ...before, out: subtract(first[1], first[0]), kind: kind(before) },
      { point: first[3], in: isStraight ? null : subtract(first[2], first[3]), out: null, kind: 'corner' },
    ];
  }
  return [...nodes];
}

/** The parameter up to which a cubic is so long, by halving. */
function parameterAt(c: Cubic, length: number, whole: number): number {
  if (length >= whole) return 1;
  let [low, high] = [0, 1];
  for (let i = 0; i < 40; i++) {
    const middle = (low + high) / 2;
    if (cubicLength(splitAt(c, middle)[0], 1e-7) < length) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

/** Nodes with the last one carried straight on to a place. */
function extended(nodes: readonly Node[], to: Point): Node[] {
  const [before, last] = [nodes.at(-2)!, nodes.at(-1)!];
  if (!before.out && !last.in) return [...nodes.slice(0, -1), { ...last, point: to }];
  return [...nodes.slice(0, -1), { ...last, out: null }, { point: to, in: null, out: null, kind: 'corner' }];
}
