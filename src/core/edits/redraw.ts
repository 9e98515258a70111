import { findLine } from '../drawing/find';
import { reflowed } from '../drawing/node';
import { cubicsOf, lineLength, reversed, segmentCount, withNodeAt } from '../drawing/run';
import type { Drawing, Mark, Node, Run } from '../drawing/schema';
import { walkAlong, type RunPlace } from '../drawing/walk';
import { arcLengthOf } from '../geometry/arcLength';
import { derivative, evaluate, type Cubic } from '../geometry/cubic';
import { nearestOnCubic } from '../geometry/nearest';
import { distance, dot, lengthOf, scale, subtract, unit, type Point } from '../geometry/point';
import { withPart } from '../ink/carriedMarks';
import { marksOn } from '../ink/profiles';
import { shareNear } from '../ink/sections';
import { applyChange } from '../change/apply';
import { edit, type Edit } from '../change/edit';
import { reshapeLines } from './lines';
import { setMarks } from './strokes';

/** Where new and old meet at less than this angle, the line runs on smoothly (its cosine). */
const RUNS_ON = Math.cos((35 * Math.PI) / 180);
const TINY = 1e-6;

/**
 * A part of a line drawn anew: what lies between two places gives way to `stroke`, an open run that leads from the
 * first to the second. On a closed run it is the part that the stroke is nearer to. `marks` are the stroke's own widths.
 */
export function redrawPart(
  d: Drawing,
  line: string,
  run: number,
  from: RunPlace,
  to: RunPlace,
  stroke: Run,
  marks: readonly Mark[] = [],
): Edit {
  const found = findLine(d, line)?.line;
  const old = found?.runs[run];
  if (!found || !old || stroke.nodes.length < 2) return edit('Redraw');
  const next = redrawnRun(old, from, to, stroke);
  const redrawn = reshapeLines(d, new Map([[line, found.runs.map((r, i) => (i === run ? next : r))]]), 'Redraw');
  if (marks.length === 0 || found.runs.length > 1) return redrawn;
  const after = applyChange(d, { id: 'redrawn', ...redrawn });
  return edit(
    'Redraw',
    redrawn.steps,
    setMarks(after, new Map([[line, widthsOver(after, line, stroke, marks)]]), '').steps,
  );
}

/** The width marks of a line of which one part, that lies along a stroke, has the stroke's. */
function widthsOver(d: Drawing, id: string, stroke: Run, marks: readonly Mark[]): Mark[] {
  const { line } = findLine(d, id)!;
  const { closed } = line.runs[0];
  const own = cubicsOf(stroke);
  const middle = arcLengthOf(own);
  const { segment, t } = middle.at(middle.length / 2);
  const [from, over, to] = [own[0][0], evaluate(own[segment], t), own.at(-1)![3]].map((p) => shareNear(line, p).at);
  const round = (by: number): number => (by + 1) % 1;
  // On a closed run, the way from one end to the other that the stroke takes.
  const ahead = round(over - from) <= round(to - from) ? from + round(to - from) : from - round(from - to);
  const widest = Math.max(...marks.map((m) => m.left + m.right));
  const blend = widest / Math.max(lineLength(line), 1e-9);
  return withPart(marksOn(line), { marks, from, to: closed ? ahead : to }, closed, blend);
}

/**
 * A stroke from one place of a run to another, carried over onto the run at both ends by `length` page units, so that a
 * curve fitted to it joins on smoothly: its places, and those on the run that it now leads from and to.
 */
export function leadIn(
  run: Run,
  from: RunPlace,
  to: RunPlace,
  stroke: readonly Point[],
  length: number,
): { points: readonly Point[]; from: RunPlace; to: RunPlace } {
  const far = (list: readonly Point[]): Point => list.find((p) => distance(p, list[0]) > length) ?? list.at(-1)!;
  const along = (place: RunPlace, direction: Point): 1 | -1 =>
    dot(derivative(cubicsOf(run)[place.segment], place.t), direction) >= 0 ? 1 : -1;
  const back = [...stroke].reverse();
  const before = walkAlong(run, from, along(from, subtract(stroke[0], far(stroke))), length);
  const after = walkAlong(run, to, along(to, subtract(back[0], far(back))), length);
  return { points: [...before.points.reverse(), ...stroke, ...after.points], from: before.place, to: after.place };
}

export function redrawnRun(old: Run, from: RunPlace, to: RunPlace, stroke: Run): Run {
  const { run, a, b } = withNodes(old, from, to);
  const { nodes } = run;
  if (!run.closed) {
    const last = nodes.length - 1;
    // From one end to the other, away from the line at both: it is carried on until it closes.
    const onward = a === last ? run : reversed(run);
    if (Math.min(a, b) === 0 && Math.max(a, b) === last && carriesOn(onward, stroke)) return closedBy(onward, stroke);
    const [low, high, way] = a <= b ? [a, b, stroke] : [b, a, reversed(stroke)];
    return reflowed({ closed: false, nodes: spliced(nodes.slice(0, low + 1), way.nodes, nodes.slice(high)) });
  }
  const ahead = arcOf(run, a, b);
  const back = arcOf(run, b, a);
  const replacesAhead = nearness(stroke, ahead) <= nearness(stroke, back);
  const kept = replacesAhead ? back : ahead;
  // What is kept runs from where the stroke ends to where it begins, or the other way about.
  const way = replacesAhead ? stroke : reversed(stroke);
  const around = spliced(kept, way.nodes, [kept[0]]);
  const [first, ...rest] = around;
  const last = rest.pop()!;
  return reflowed({ closed: true, nodes: [meet(last, first, 'out'), ...rest] });
}

/** A stroke that sets out within this angle of a line runs along it (its cosine). */
export const ALONG = Math.cos((40 * Math.PI) / 180);

/** Whether a stroke from a run's last node to its first leads around from there, not back along it. */
function carriesOn(run: Run, stroke: Run): boolean {
  // A handle may lie in its node: then there is no derivative.
  const leaving = (r: Run): Point => chord(cubicsOf(r)[0], 0, 0.1);
  const arriving = (r: Run): Point => chord(cubicsOf(r).at(-1)!, 0.9, 1);
  const runsAlong = (a: Point, b: Point): boolean => dot(a, b) < -ALONG * lengthOf(a) * lengthOf(b);
  return !runsAlong(arriving(run), leaving(stroke)) || !runsAlong(leaving(run), arriving(stroke));
}

const chord = (c: Cubic, from: number, to: number): Point => subtract(evaluate(c, to), evaluate(c, from));

/** The run with nodes at two places, and their indices. */
function withNodes(old: Run, from: RunPlace, to: RunPlace): { run: Run; a: number; b: number } {
  const order = [from, to].map((p, i) => ({ ...p, i }));
  // The later first, so that the earlier keeps its place.
  order.sort((p, q) => q.segment - p.segment || q.t - p.t);
  let run = old;
  const index = [0, 0];
  let lastT = 1;
  order.forEach(({ segment, t, i }, k) => {
    const same = k === 1 && order[0].segment === segment;
    const share = same && lastT > TINY ? Math.min(1, t / lastT) : t;
    const before = run.nodes.length;
    const at = placed(run, segment, share);
    run = at.run;
    index[i] = at.node;
    if (k === 1 && run.nodes.length > before) index[order[0].i] += index[order[0].i] > segment ? 1 : 0;
    lastT = t;
  });
  return { run, a: index[0], b: index[1] };
}

/** A node at a place: the one that is there, or a new one. */
function placed(run: Run, segment: number, t: number): { run: Run; node: number } {
  const c = cubicsOf(run)[segment];
  const at = evaluate(c, t);
  if (t <= TINY || distance(at, c[0]) < TINY) return { run, node: segment };
  if (t >= 1 - TINY || distance(at, c[3]) < TINY) return { run, node: (segment + 1) % run.nodes.length };
  return { run: withNodeAt(run, segment, t), node: segment + 1 };
}

/** The nodes of a closed run from one to another, the way it runs. */
function arcOf({ nodes }: Run, a: number, b: number): Node[] {
  const count = (b - a + nodes.length) % nodes.length || nodes.length;
  return Array.from({ length: count + 1 }, (_, i) => nodes[(a + i) % nodes.length]);
}

/** How far the middle of a stroke lies from a part of a line, on the mean. */
function nearness(stroke: Run, part: readonly Node[]): number {
  const run: Run = { closed: false, nodes: [...part] };
  const samples: Point[] = cubicsOf(stroke).flatMap((c) => [0.25, 0.5, 0.75].map((t) => evaluate(c, t)));
  const off = samples.map((p) => Math.min(...cubicsOf(run).map((c) => nearestOnCubic(c, p).distance)));
  return segmentCount(run) === 0 ? Infinity : off.reduce((s, v) => s + v, 0) / off.length;
}

/** Old nodes, then a stroke, then old nodes again; each pair that meets becomes one node. */
function spliced(before: readonly Node[], way: readonly Node[], after: readonly Node[]): Node[] {
  const start = meet(before.at(-1)!, way[0], 'in');
  const end = meet(way.at(-1)!, after[0], 'out');
  const [first, last] = [before.length > 1 ? start : { ...way[0], in: null }, after.length > 1 ? end : way.at(-1)!];
  return [...before.slice(0, -1), first, ...way.slice(1, -1), last, ...after.slice(1)];
}

function closedBy(run: Run, stroke: Run): Run {
  const around = spliced(run.nodes, stroke.nodes, [run.nodes[0]]);
  const last = around.at(-1)!;
  const first = meet(last, around[0], 'out');
  return reflowed({ closed: true, nodes: [first, ...around.slice(1, -1)] });
}

/** One node for a way in and a way out. Where the line nearly runs on it is smooth, along the side that is old. */
function meet(into: Node, out: Node, old: 'in' | 'out'): Node {
  const [a, b] = [into.in && unit(scale(into.in, -1)), out.out && unit(out.out)];
  const node: Node = { point: (old === 'in' ? into : out).point, in: into.in, out: out.out, kind: 'corner' };
  if (!a || !b || dot(a, b) < RUNS_ON) return node;
  const along = old === 'in' ? a : b;
  return {
    ...node,
    in: scale(along, -lengthOf(into.in!)),
    out: scale(along, lengthOf(out.out!)),
    kind: 'smooth',
  };
}
