import { cubicBounds, hullBox } from '../geometry/bounds';
import { growBox, holdsBox, joinBoxes } from '../geometry/box';
import { splitAt, type Cubic } from '../geometry/cubic';
import { cubicLength } from '../geometry/length';
import { nearestOnCubic } from '../geometry/nearest';
import { add, subtract, type Box, type Point } from '../geometry/point';
import { eachPlace, packedNodesOf, withPackedNodes } from './packedNodes';
import { factsOf } from './runFacts';
import type { Line, Node, Run } from './schema';

/** A node without handles. */
export const cornerAt = (p: Point): Node => ({ point: p, in: null, out: null, kind: 'corner' });

/** How many segments a run has: one fewer than nodes, as many when closed. */
export const segmentCount = (r: Run): number => (r.closed ? r.nodes.length : r.nodes.length - 1);

const cubics = new WeakMap<Run, Cubic[]>();

/** The segments of a run as cubics, from its first node on. Worked out once for each run. */
export function cubicsOf(run: Run): Cubic[] {
  let list = cubics.get(run);
  if (!list) {
    list = Array.from({ length: segmentCount(run) }, (_, i) =>
      segmentBetween(run.nodes[i], run.nodes[(i + 1) % run.nodes.length]),
    );
    cubics.set(run, list);
  }
  return list;
}

export const segmentBetween = (a: Node, b: Node): Cubic => [
  a.point,
  a.out ? add(a.point, a.out) : a.point,
  b.in ? add(b.point, b.in) : b.point,
  b.point,
];

/** The run walked the other way. */
export const reversed = (run: Run): Run => ({ ...run, nodes: reversedNodes(run.nodes) });

export const reversedNodes = (nodes: readonly Node[]): Node[] =>
  nodes.map((n) => ({ ...n, in: n.out, out: n.in })).reverse();

const boxes = new WeakMap<Line, Box>();

/** The box of a line's body: its curve grown by half its width, and by the reach of a miter join. */
export function lineBox(line: Line): Box {
  let box = boxes.get(line);
  if (!box) {
    box = growBox(skeletonBox(line), bodyReach(line));
    boxes.set(line, box);
  }
  return box;
}

/** Half of a line's width, at its widest. */
export const widestHalf = ({ style, marks }: Pick<Line, 'style' | 'marks'>): number =>
  (marks ?? []).reduce((most, m) => Math.max(most, m.left, m.right), style.width / 2);

/** How far a line's body can reach from its curve. */
function bodyReach(line: Line): number {
  const { join, miterLimit = 4, wobble = 0, overrun = 0 } = line.style;
  return widestHalf(line) * (join === 'miter' ? Math.max(1.5, miterLimit) : 1.5) + wobble + overrun;
}

/** Runs moved as they are. */
export const movedRuns = (runs: readonly Run[], by: Point): Run[] => runs.map((r) => movedRun(r, by));

const movedRun = (r: Run, by: Point): Run => ({
  ...r,
  nodes: r.nodes.map((n): Node => ({ ...n, point: add(n.point, by) })),
});

/** The same for runs and an offset that lie on the grid: nodes that nobody has asked for stay packed. */
export const movedOnGrid = (runs: readonly Run[], by: Point): Run[] =>
  runs.map((r) => {
    const packed = packedNodesOf(r);
    return packed ? withPackedNodes(r, packed.moved(by)) : movedRun(r, by);
  });

/** A box that holds a line's body, found quickly: that of its points and handles, which its curve lies within. */
export const bodyHull = (line: Line): Box => growBox(controlBox(line), bodyReach(line));

/** The box of a line's points and handles; worked out once for each shape. */
export const controlBox = (line: Pick<Line, 'runs'>): Box => (factsOf(line.runs).box ??= controlBoxOf(line));

/** Written out, for it is done for each of very many lines. */
function controlBoxOf(line: Pick<Line, 'runs'>): Box {
  let [minX, minY, maxX, maxY] = [Infinity, Infinity, -Infinity, -Infinity];
  const grow = (x: number, y: number): void => {
    if (x < minX) minX = x;
    if (x > maxX) maxX = x;
    if (y < minY) minY = y;
    if (y > maxY) maxY = y;
  };
  for (const run of line.runs)
    eachPlace(run, (x, y, inX, inY, outX, outY) => {
      grow(x, y);
      grow(inX, inY);
      grow(outX, outY);
    });
  return { minX, minY, maxX, maxY };
}

/** The exact box of a line's curve, without its width. */
export const skeletonBox = (line: Pick<Line, 'runs'>): Box => skeletonBoxOf([line]);

/** The exact box of the curves of lines: of very many, just the few that reach out of the box of their nodes are looked into. */
export function skeletonBoxOf(lines: readonly Pick<Line, 'runs'>[]): Box {
  let [minX, minY, maxX, maxY] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const { runs } of lines)
    for (const run of runs)
      eachPlace(run, (x, y) => {
        if (x < minX) minX = x;
        if (x > maxX) maxX = x;
        if (y < minY) minY = y;
        if (y > maxY) maxY = y;
      });
  let box: Box = { minX, minY, maxX, maxY };
  for (const line of lines) {
    if (holdsBox(box, controlBox(line))) continue;
    for (const run of line.runs)
      for (const c of cubicsOf(run)) if (!holdsBox(box, hullBox(c))) box = joinBoxes(box, cubicBounds(c));
  }
  return box;
}

const lengths = new WeakMap<Node, { to: Node; length: number }>();

/** The length of the segment between two nodes. Worked out once: where a node of a line moves, most others do not. */
function segmentLength(from: Node, to: Node): number {
  let known = lengths.get(from);
  if (known?.to !== to) lengths.set(from, (known = { to, length: cubicLength(segmentBetween(from, to)) }));
  return known.length;
}

export const runLength = (r: Run): number => {
  let sum = 0;
  for (let i = 0; i < segmentCount(r); i++) sum += segmentLength(r.nodes[i], r.nodes[(i + 1) % r.nodes.length]);
  return sum;
};

export const lineLength = (line: Pick<Line, 'runs'>): number => line.runs.reduce((sum, r) => sum + runLength(r), 0);

/** A place on a line: which run and segment, where on it, and how far from what was asked for. */
export type OnLine = { run: number; segment: number; t: number; point: Point; distance: number };

/** The place of a line nearest to `p`; null for a line of a single node. */
export function nearestOnLine(line: Line, p: Point): OnLine | null {
  let best: OnLine | null = null;
  line.runs.forEach((run, r) =>
    cubicsOf(run).forEach((c, segment) => {
      const found = nearestOnCubic(c, p);
      if (!best || found.distance < best.distance) best = { run: r, segment, ...found };
    }),
  );
  return best;
}

/** The run with a node put in at `t` of a segment. The curve stays exactly as it was. */
export function withNodeAt(run: Run, segment: number, t: number): Run {
  const nodes = [...run.nodes];
  const next = (segment + 1) % nodes.length;
  const [a, b] = [nodes[segment], nodes[next]];
  if (!a.out && !b.in) {
    const straight = splitAt([a.point, a.point, b.point, b.point], t)[0][3];
    nodes.splice(segment + 1, 0, cornerAt(straight));
    return { ...run, nodes };
  }
  const [left, right] = splitAt(segmentBetween(a, b), t);
  const keepsKind = (n: Node) => (n.kind === 'even' || n.kind === 'flowing' ? 'smooth' : n.kind);
  nodes[segment] = { ...a, out: subtract(left[1], a.point), kind: keepsKind(a) };
  nodes[next] = { ...nodes[next], in: subtract(right[2], b.point), kind: keepsKind(b) };
  nodes.splice(segment + 1, 0, {
    point: left[3],
    in: subtract(left[2], left[3]),
    out: subtract(right[1], right[0]),
    kind: 'smooth',
  });
  return { ...run, nodes };
}
