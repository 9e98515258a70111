import { flowingHandles, neighbours, reflowed } from '../drawing/node';
import { cubicsOf, segmentCount, withNodeAt } from '../drawing/run';
import type { Drawing, Node, Run } from '../drawing/schema';
import { derivative, evaluate, secondDerivative, type Cubic } from '../geometry/cubic';
import { cross } from '../geometry/point';
import type { SegmentRef } from './bend';
import { counted, type Edit } from '../change/edit';
import { reshapeLines } from './lines';
import { mapNodes, rewriteRuns } from './nodes';
import { type NodeRef } from '../drawing/nodeRef';

/** How nodes are spread over a segment: by its length, or more where it bends more. */
export type Spread = 'length' | 'curvature';

/** The segments between nodes that are chosen next to each other. */
export function segmentsBetween(run: Run, chosen: ReadonlySet<number>): number[] {
  return Array.from({ length: segmentCount(run) }, (_, i) => i).filter(
    (i) => chosen.has(i) && chosen.has((i + 1) % run.nodes.length),
  );
}

const asNodes = (refs: readonly SegmentRef[]): NodeRef[] =>
  refs.map(({ line, run, segment }) => ({ line, run, node: segment }));

/** So many nodes put on each of some segments; the shape stays as it is. */
export function addNodes(d: Drawing, refs: readonly SegmentRef[], count: number, spread: Spread): Edit {
  const runs = rewriteRuns(d, asNodes(refs), (run, segments) =>
    // From the last on, so that none shifts the place of one still to come.
    [...new Set(segments)]
      .filter((s) => s < segmentCount(run))
      .sort((a, b) => b - a)
      .reduce((r, s) => withNodesOn(r, s, count, spread), run),
  );
  return reshapeLines(d, runs, counted('Add', count * refs.length, 'node'));
}

function withNodesOn(run: Run, segment: number, count: number, spread: Spread): Run {
  const ts = spreadOver(cubicsOf(run)[segment], count, spread);
  let [result, done] = [run, 0];
  ts.forEach((t, i) => {
    result = withNodeAt(result, segment + i, (t - done) / (1 - done));
    done = t;
  });
  return result;
}

const STEPS = 400;
/** A straight piece counts for so much of the bend of a whole segment: no node is left without its share. */
const STRAIGHT = 0.15;

/** Parameters that part a cubic into equal shares of its length, or of its bend (with a little for its length). */
export function spreadOver(c: Cubic, count: number, spread: Spread): number[] {
  const weights = Array.from({ length: STEPS }, (_, i) => {
    const t = (i + 0.5) / STEPS;
    const d = derivative(c, t);
    const speed = Math.hypot(d.x, d.y);
    if (spread === 'length') return speed;
    // Curvature times speed is the angle that is turned through.
    return speed < 1e-9 ? 0 : Math.abs(cross(d, secondDerivative(c, t))) / (speed * speed);
  });
  const total = weights.reduce((a, b) => a + b, 0);
  const lengths = spread === 'length' ? weights : spreadLengths(c);
  const whole = lengths.reduce((a, b) => a + b, 0) || 1;
  const shares = weights.map((w, i) =>
    spread === 'length' ? w / (total || 1) : (total > 1e-6 ? w / total : 0) + STRAIGHT * (lengths[i] / whole),
  );
  const sum = shares.reduce((a, b) => a + b, 0) || 1;
  const ts: number[] = [];
  let along = 0;
  for (let i = 0; i < STEPS && ts.length < count; i++) {
    const next = along + shares[i] / sum;
    while (ts.length < count && next >= (ts.length + 1) / (count + 1) - 1e-12) {
      const want = (ts.length + 1) / (count + 1);
      ts.push((i + (shares[i] > 0 ? ((want - along) * sum) / shares[i] : 0.5)) / STEPS);
    }
    along = next;
  }
  return ts.map((t) => Math.min(0.999, Math.max(0.001, t)));
}

const spreadLengths = (c: Cubic): number[] =>
  Array.from({ length: STEPS }, (_, i) => {
    const [a, b] = [evaluate(c, i / STEPS), evaluate(c, (i + 1) / STEPS)];
    return Math.hypot(b.x - a.x, b.y - a.y);
  });

/** Segments made straight: their handles go, and with them what was smooth at their ends. */
export function straighten(d: Drawing, refs: readonly SegmentRef[]): Edit {
  const runs = rewriteRuns(d, asNodes(refs), (run, segments) => {
    const nodes = [...run.nodes];
    for (const s of segments) {
      if (s >= segmentCount(run)) continue;
      const end = (s + 1) % nodes.length;
      nodes[s] = { ...nodes[s], out: null, kind: 'corner' };
      nodes[end] = { ...nodes[end], in: null, kind: 'corner' };
    }
    return reflowed({ ...run, nodes });
  });
  return reshapeLines(d, runs, counted('Straighten', refs.length, 'segment'));
}

/** Nodes without their handles: corners. */
export function dropHandles(d: Drawing, refs: readonly NodeRef[]): Edit {
  const bare = (n: Node): Node => ({ ...n, in: null, out: null, kind: 'corner' });
  return reshapeLines(
    d,
    rewriteRuns(d, refs, (run, chosen) => mapNodes(run, chosen, bare)),
    'Drop handles',
  );
}

/** Nodes with handles again, as the line would flow through them; an end gets one towards its neighbour. */
export function giveHandles(d: Drawing, refs: readonly NodeRef[]): Edit {
  const runs = rewriteRuns(d, refs, (run, chosen) =>
    reflowed({ ...run, nodes: run.nodes.map((n, i) => (chosen.includes(i) ? withHandles(run, i) : n)) }),
  );
  return reshapeLines(d, runs, 'Give handles back');
}

function withHandles(run: Run, index: number): Node {
  const node = run.nodes[index];
  const [before, after] = neighbours(run, index);
  if (before && after) return { ...node, ...flowingHandles(node.point, before.point, after.point), kind: 'smooth' };
  const other = before ?? after;
  if (!other) return node;
  const third = { x: (other.point.x - node.point.x) / 3, y: (other.point.y - node.point.y) / 3 };
  return before ? { ...node, in: third } : { ...node, out: third };
}
