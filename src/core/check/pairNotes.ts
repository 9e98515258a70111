import RBush from 'rbush';
import { towards, type End } from '../drawing/end';
import { crossingBefore, othersOf, trimmed, type Crossed, type Other } from '../drawing/crossing';
import { cubicsOf, lineLength, skeletonBox } from '../drawing/run';
import type { Line, Node } from '../drawing/schema';
import { boxesMeet, distanceToBox, growBox, holdsBox } from '../geometry/box';
import { evaluate } from '../geometry/cubic';
import { nearestOnCubic } from '../geometry/nearest';
import { distance, type Box, type Point } from '../geometry/point';
import { noteOf, type Note, type NoteLimits } from './note';

type Entry = Box & { line: Line; order: number };

/** A place nearer to another line than this lies on it. */
const TOUCHES = 0.05;

type Known = { readonly near: readonly Line[]; readonly limits: NoteLimits; readonly notes: Note[] };
const known = new WeakMap<Line, Known>();
const boxes = new WeakMap<Line['runs'], Box>();
function boxOf(line: Line): Box {
  let box = boxes.get(line.runs);
  if (!box) boxes.set(line.runs, (box = skeletonBox(line)));
  return box;
}

/**
 * What may be wrong between lines that are wanted, by their order, and any others: ends that do not quite meet, or stick out, and
 * lines drawn twice; a line a step. Worked out anew only for lines that changed, or have a line near them that did.
 */
export function* notesBetween(
  lines: readonly Line[],
  limits: NoteLimits,
  isWanted: (order: number) => boolean = () => true,
): Generator<void, Note[]> {
  const tree = new RBush<Entry>();
  tree.load(lines.map((line, order) => ({ ...boxOf(line), line, order })));
  const found: Note[] = [];
  for (const [order, line] of lines.entries()) {
    if (!isWanted(order)) continue;
    const beside = tree.search(growBox(boxOf(line), limits.reach)).sort((a, b) => a.order - b.order);
    const near = beside.map((e) => e.line);
    const before = known.get(line);
    const isSame = before?.limits === limits && before.near.length === near.length;
    if (isSame && before.near.every((l, i) => l === near[i])) {
      found.push(...before.notes);
    } else {
      const notes = endNotes(line, beside, limits);
      const twin = twinOf(line, order, beside, limits);
      if (twin)
        notes.push(noteOf('doubled', line, middleOf(line), { lines: [line.id, twin.id], figure: lineLength(line) }));
      known.set(line, { near, limits, notes });
      found.push(...notes);
    }
    yield;
  }
  return found;
}

/** Two ends that miss each other are noted once; those of a line that is drawn twice not at all. */
export function withoutPairs(notes: readonly Note[]): Note[] {
  const seen = new Set<string>();
  const twins = new Set(
    notes.flatMap((n) => (n.kind === 'doubled' ? [n.lines.join(' '), n.lines.toReversed().join(' ')] : [])),
  );
  return notes.filter((n) => {
    if (n.kind !== 'gap' || !n.to) return true;
    if (twins.has(n.lines.join(' '))) return false;
    const here = placeKey(n.lines[0], n.at);
    const there = placeKey(n.lines[1] ?? n.lines[0], n.to);
    if (seen.has(`${there} ${here}`)) return false;
    seen.add(`${here} ${there}`);
    return true;
  });
}

const placeKey = (line: string, p: Point): string => `${line} ${p.x.toFixed(3)},${p.y.toFixed(3)}`;

function endNotes(line: Line, beside: readonly Entry[], limits: NoteLimits): Note[] {
  return line.runs.flatMap((run, r) => {
    if (run.closed || run.nodes.length < 2) return [];
    return [true, false].flatMap((atStart): Note[] => {
      const end: End = { line: line.id, run: r, atStart };
      const nodes = towards(run, end);
      const at = nodes.at(-1)!.point;
      const around = growBox({ minX: at.x, minY: at.y, maxX: at.x, maxY: at.y }, limits.reach);
      const others = beside.flatMap((e) => (e.line !== line && boxesMeet(e, around) ? [e.line] : []));
      const overhang = others.length > 0 ? overhangOf(nodes, others, limits.reach) : null;
      if (overhang) {
        const { by, point, line: other } = overhang;
        return [noteOf('overhang', line, at, { lines: [line.id, other], figure: by, end, to: point, run: r })];
      }
      const gap = gapOf(line, r, atStart, at, others, limits.reach);
      return gap
        ? [noteOf('gap', line, at, { lines: gap.lines, figure: gap.distance, end, to: gap.point, run: r })]
        : [];
    });
  });
}

/** The way to the nearest line that an end does not meet: to an end of it where one is in reach. */
function gapOf(line: Line, run: number, atStart: boolean, at: Point, others: readonly Line[], reach: number) {
  let best: { distance: number; point: Point; lines: string[] } | null = null;
  const own = line.runs[run];
  const opposite = (atStart ? own.nodes.at(-1)! : own.nodes[0]).point;
  const across = distance(at, opposite);
  // Its own other end: the line should close. A line no longer than the gap only is short.
  if (across <= TOUCHES) return null;
  if (across <= reach && lineLength(line) > 4 * reach) best = { distance: across, point: opposite, lines: [line.id] };
  for (const other of others) {
    const foot = nearestWithin(other, at, reach);
    if (!foot) continue;
    if (foot.distance <= TOUCHES) return null;
    const ends = other.runs
      .filter((r) => !r.closed)
      .flatMap((r) => [r.nodes[0].point, r.nodes.at(-1)!.point])
      .filter((p) => distance(p, at) <= reach)
      .sort((a, b) => distance(a, at) - distance(b, at));
    const point = ends[0] ?? foot.point;
    const d = distance(point, at);
    if (d <= TOUCHES) return null;
    if (!best || d < best.distance) best = { distance: d, point, lines: [line.id, other.id] };
  }
  return best;
}

/** The nearest place of a line within reach. */
function nearestWithin(line: Line, p: Point, reach: number): { point: Point; distance: number } | null {
  let best: { point: Point; distance: number } | null = null;
  for (const c of othersOf(line)) {
    if (distanceToBox(c, p) > (best?.distance ?? reach)) continue;
    const found = nearestOnCubic(c.cubic, p);
    if (found.distance <= (best?.distance ?? reach)) best = found;
  }
  return best;
}

/** What sticks out beyond the last crossing with another line before an end. */
function overhangOf(nodes: readonly Node[], others: readonly Line[], reach: number): Crossed | null {
  const at = nodes.at(-1)!.point;
  const around = growBox({ minX: at.x, minY: at.y, maxX: at.x, maxY: at.y }, reach);
  const near: Other[] = [];
  for (const line of others) for (const c of othersOf(line)) if (boxesMeet(c, around)) near.push(c);
  const crossed = near.length > 0 ? crossingBefore(nodes, near, reach) : null;
  return crossed && crossed.by > TOUCHES && hasMore(nodes, crossed.by) ? crossed : null;
}

/** A line that would be nothing without its overhang only touches the other. */
const hasMore = (nodes: readonly Node[], by: number): boolean => {
  const rest = trimmed(nodes, by);
  return rest.length > 1 && distance(rest.at(-1)!.point, rest[0].point) > by;
};

const PLACES = [0, 0.2, 0.4, 0.6, 0.8, 1];

/** Another line that runs along all of this one, and is longer, or lies below it. */
function twinOf(line: Line, order: number, beside: readonly Entry[], { doubled }: NoteLimits): Line | null {
  const box = boxOf(line);
  const around = beside.filter((e) => e.line !== line && holdsBox(growBox(boxOf(e.line), doubled), box));
  if (around.length === 0) return null;
  const length = lineLength(line);
  if (length < 4 * doubled) return null;
  let places: Point[] | null = null;
  for (const { line: other, order: otherOrder } of around) {
    const otherLength = lineLength(other);
    if (otherLength < length * 0.999 || (otherLength < length * 1.001 && otherOrder > order)) continue;
    places ??= othersOf(line).flatMap(({ cubic }) => PLACES.map((t) => evaluate(cubic, t)));
    if (places.every((p) => nearestWithin(other, p, doubled))) return other;
  }
  return null;
}

function middleOf(line: Line): Point {
  const list = line.runs.flatMap(cubicsOf);
  const c = list[list.length >> 1];
  return c ? evaluate(c, 0.5) : line.runs[0].nodes[0].point;
}
