import { cubicsOf, withNodeAt } from '../../drawing/run';
import type { Node, Run } from '../../drawing/schema';
import type { Cubic } from '../../geometry/cubic';
import { cubicLength, parameterAt } from '../../geometry/length';
import { add, distance, scale, subtract, unit, type Point } from '../../geometry/point';
import { mergesWithin, refitNearby, refitTowards } from '../../geometry/refitNearby';
import { strayFrom } from '../../geometry/stray';
import { withoutNodes } from '../nodes';

/** Directions tried for the node, as shares of the way from the one in which the line comes to that in which it leaves. */
const SHARES = [0.5, 0.25, 0.75, 0, 1];

/**
 * A run with a corner made smooth where it is: of the directions between the two, that which moves the segments beside it
 * least, their handles as long as keeps them nearest to where they were; and how far that is.
 */
export function smoothWhereItIs(run: Run, at: number): { run: Run; moved: number } | null {
  const sides = sidesOf(run, at);
  if (!sides) return null;
  const { into, leaves, before, after, first, second } = sides;
  let best: { run: Run; moved: number } | null = null;
  for (const share of SHARES) {
    const way = unit(add(scale(into, 1 - share), scale(leaves, share)));
    if (!way) continue;
    const one = refitTowards(first, { back: scale(way, -1) });
    const two = refitTowards(second, { towards: way });
    const moved = Math.max(strayFrom([first], [one]), strayFrom([second], [two]));
    if (best && moved >= best.moved) continue;
    const set = (i: number, handles: Partial<Node>) => (n: Node, k: number) => (k === i ? { ...n, ...handles } : n);
    const nodes = run.nodes
      .map(set(before, { out: subtract(one[1], one[0]) }))
      .map(set(at, { in: subtract(one[2], one[3]), out: subtract(two[1], two[0]), kind: 'smooth' }))
      .map(set(after, { in: subtract(two[2], two[3]) }))
      .map((n, k) => (k === before || k === after ? asHandled(n) : n));
    best = { run: { ...run, nodes }, moved };
  }
  return best;
}

/** A rounded corner; `isLean`: a node whose loss is not seen was left out again; `isFull`: one is still there. */
type Rounded = { run: Run; isLean: boolean; isFull: boolean };

/**
 * A run with a corner rounded over up to so much line to either side: two smooth nodes take its place, the rest stays. Of
 * these two, one whose loss moves nothing by more than `needless` is left out again. Those that need no more come first.
 */
export function roundedAt(run: Run, at: number, over: number, needless: number): Rounded[] {
  const ways = [1, 0.6, 0.35].flatMap((share) => roundedOver(run, at, share * over, needless));
  return [...ways.filter((w) => !w.isFull), ...ways.filter((w) => w.isFull)];
}

function roundedOver(run: Run, at: number, over: number, needless: number): Rounded[] {
  const sides = sidesOf(run, at);
  if (!sides) return [];
  const [first, second] = [sides.first, sides.second].map((c) => cubicLength(c, 0.01));
  const [back, on] = [first, second].map((whole) => Math.min(over, 0.45 * whole));
  if (Math.min(back, on) < 0.5) return [];
  const later = withNodeAt(run, at, parameterAt(sides.second, on, second));
  // The segment that ends in the corner; what was put in lies behind it.
  const segment = at === 0 ? later.nodes.length - 1 : at - 1;
  const both = withNodeAt(later, segment, parameterAt(sides.first, first - back, first));
  const size = both.nodes.length;
  const k = at === 0 ? 0 : at + 1;
  const [a, b] = [(k - 1 + size) % size, (k + 1) % size];
  const list = cubicsOf(both);
  const one = refitNearby(list[a], list[k]);
  const nodes = both.nodes.map((node, i): Node => {
    if (i === a) return { ...node, out: subtract(one[1], one[0]), kind: 'smooth' };
    return i === b ? { ...node, in: subtract(one[2], one[3]), kind: 'smooth' } : asHandled(node);
  });
  const rounded: Run = { ...run, nodes: nodes.filter((_, i) => i !== k) };
  const made = [a, b].map((i) => (i > k ? i - 1 : i)).sort((i, j) => j - i);
  let lean: Run = rounded;
  for (const i of made) {
    const without = isNeedless(lean, i, needless) ? withoutNodes(lean, new Set([i]), refitNearby) : lean;
    if (strayFrom(cubicsOf(rounded), cubicsOf(without)) <= 0.9 * needless) lean = without;
  }
  return [...new Set([lean, rounded])].map((r) => ({
    run: r,
    isLean: r !== rounded,
    isFull: r.nodes.some((n, i) => made.some((m) => rounded.nodes[m].point === n.point) && isNeedless(r, i, needless)),
  }));
}

function isNeedless(run: Run, at: number, within: number): boolean {
  const list = cubicsOf(run);
  const before = list[(at - 1 + list.length) % list.length];
  return (run.closed || (at > 0 && at < run.nodes.length - 1)) && mergesWithin(before, list[at], within);
}

type Sides = { into: Point; leaves: Point; before: number; after: number; first: Cubic; second: Cubic };

function sidesOf(run: Run, at: number): Sides | null {
  const node = run.nodes[at];
  const n = run.nodes.length;
  if (!node.in || !node.out || n < 3 || (!run.closed && (at === 0 || at === n - 1))) return null;
  const [into, leaves] = [unit(scale(node.in, -1)), unit(node.out)];
  const list = cubicsOf(run);
  const [first, second] = [list[(at - 1 + list.length) % list.length], list[at]];
  if (!into || !leaves || distance(first[0], first[3]) < 1e-6 || distance(second[0], second[3]) < 1e-6) return null;
  return { into, leaves, before: (at - 1 + n) % n, after: (at + 1) % n, first, second };
}

/** What was fitted anew goes no longer by its neighbours' rule. */
const asHandled = (n: Node): Node => (n.kind === 'even' || n.kind === 'flowing' ? { ...n, kind: 'smooth' } : n);
