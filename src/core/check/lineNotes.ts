import { neighbours } from '../drawing/node';
import { controlBox, cubicsOf, lineLength, skeletonBox } from '../drawing/run';
import type { Line, Node, Page, Run } from '../drawing/schema';
import { holdsBox } from '../geometry/box';
import { evaluate, straightCubic } from '../geometry/cubic';
import { nearestOnCubic } from '../geometry/nearest';
import { cross, distance, dot, lengthOf, scale, type Point } from '../geometry/point';
import { mergesWithin } from '../geometry/refitNearby';
import { crossingsOf } from './crossings';
import { noteOf, type Note, type NoteLimits } from './note';

const known = new WeakMap<Line['runs'], { key: string; notes: Note[] }>();

/** What may be wrong with a line by itself. Worked out once for each shape. */
export function notesOfLine(line: Line, page: Page, limits: NoteLimits): Note[] {
  const key = JSON.stringify([line.id, page.width, page.height, line.style.width, limits]);
  const before = known.get(line.runs);
  if (before?.key === key) return before.notes;
  const notes = [
    ...strays(line),
    ...crumbs(line, limits),
    ...line.runs.flatMap((run, r) => [
      ...kinks(line, run, r, limits),
      ...wildHandles(line, run, r),
      ...needlessNodes(line, run, r, limits),
      ...crossings(line, run, r),
    ]),
    ...outside(line, page),
  ];
  known.set(line.runs, { key, notes });
  return notes;
}

const strays = (line: Line): Note[] =>
  line.runs.flatMap((run, r) =>
    run.nodes.length === 1 ? [noteOf('stray', line, run.nodes[0].point, { run: r })] : [],
  );

function crumbs(line: Line, { crumb }: NoteLimits): Note[] {
  if (line.runs.every((r) => r.nodes.length === 1)) return [];
  // A dot that is drawn thick is meant.
  if (line.style.width > 2 * crumb || chordsOf(line) >= crumb) return [];
  const length = lineLength(line);
  return length < crumb ? [noteOf('crumb', line, line.runs[0].nodes[0].point, { figure: length })] : [];
}

/** The way from node to node: no line is shorter. */
function chordsOf({ runs }: Line): number {
  let sum = 0;
  for (const { nodes } of runs)
    for (let i = 1; i < nodes.length; i++) sum += distance(nodes[i - 1].point, nodes[i].point);
  return sum;
}

const LEAST_KINK = 1.5;

/** Corners between curves that turn so little that they are hardly meant. */
function kinks(line: Line, run: Run, r: number, { kink }: NoteLimits): Note[] {
  return run.nodes.flatMap((n, i) => {
    if (n.kind !== 'corner' || !n.in || !n.out || lengthOf(n.in) < 1e-6 || lengthOf(n.out) < 1e-6) return [];
    const into = scale(n.in, -1);
    const turn = Math.abs(Math.atan2(cross(into, n.out), dot(into, n.out))) * (180 / Math.PI);
    return turn > LEAST_KINK && turn < kink ? [noteOf('kink', line, n.point, { run: r, node: i, figure: turn })] : [];
  });
}

/** A handle longer than this many times the way to the next node swings the line about. */
export const WILD = 1.3;

function wildHandles(line: Line, run: Run, r: number): Note[] {
  return run.nodes.flatMap((n, i) => {
    const [before, after] = neighbours(run, i);
    const excess = Math.max(excessOf(n, n.in, before), excessOf(n, n.out, after));
    return excess > WILD ? [noteOf('wild', line, n.point, { run: r, node: i, figure: longest(n) })] : [];
  });
}

export function excessOf(node: Node, handle: Point | null, other: Node | undefined): number {
  if (!handle || !other) return 0;
  const chord = distance(node.point, other.point);
  return chord > 1e-6 ? lengthOf(handle) / chord : 0;
}

const longest = (n: Node): number => Math.max(n.in ? lengthOf(n.in) : 0, n.out ? lengthOf(n.out) : 0);

/** Nodes whose loss is not seen: the line can do without. Of two next to each other one is noted. */
function needlessNodes(line: Line, run: Run, r: number, { needless }: NoteLimits): Note[] {
  const n = run.nodes.length;
  if (n < 3) return [];
  const list = cubicsOf(run);
  const notes: Note[] = [];
  let last = -2;
  for (let i = run.closed ? 0 : 1; i < (run.closed ? n : n - 1); i++) {
    if (i === last + 1 || run.nodes[i].radius) continue;
    const [first, second] = [list[(i - 1 + list.length) % list.length], list[i % list.length]];
    const [a, b] = [run.nodes[(i - 1 + n) % n], run.nodes[(i + 1) % n]];
    const node = run.nodes[i];
    const isStraight = !a.out && !node.in && !node.out && !b.in;
    const isSharp = !isStraight && node.kind === 'corner' && turnAt(node) > 0.15;
    if (isSharp) continue;
    const isNeedless = isStraight
      ? nearestOnCubic(straightCubic(a.point, b.point), node.point).distance <= needless
      : mergesWithin(first, second, needless);
    if (!isNeedless) continue;
    notes.push(noteOf('needless', line, node.point, { run: r, node: i }));
    last = i;
  }
  return notes;
}

function turnAt(n: Node): number {
  if (!n.in || !n.out) return Math.PI;
  const into = scale(n.in, -1);
  return Math.abs(Math.atan2(cross(into, n.out), dot(into, n.out)));
}

const crossings = (line: Line, run: Run, r: number): Note[] =>
  crossingsOf(run).map((c) => noteOf('crossing', line, c.point, { run: r, figure: c.loop }));

function outside(line: Line, page: Page): Note[] {
  if (holdsBox({ minX: 0, minY: 0, maxX: page.width, maxY: page.height }, controlBox(line))) return [];
  const box = skeletonBox(line);
  const by = Math.max(-box.minX, -box.minY, box.maxX - page.width, box.maxY - page.height);
  if (by <= 0.5) return [];
  const out = line.runs
    .flatMap((run) => cubicsOf(run).flatMap((c) => [0, 0.25, 0.5, 0.75, 1].map((t) => evaluate(c, t))))
    .concat(line.runs.map((r) => r.nodes[0].point))
    .reduce((a, p) => (beyond(p, page) > beyond(a, page) ? p : a));
  return [noteOf('outside', line, out, { figure: by })];
}

const beyond = (p: Point, page: Page): number => Math.max(-p.x, -p.y, p.x - page.width, p.y - page.height);
