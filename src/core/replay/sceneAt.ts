import { distance, mix, type Point } from '../geometry/point';
import type { Drawing } from '../drawing/schema';
import { fillOf, strokeOf } from '../scene/halves';
import { leavesOf, paintedId, sceneOf, type Leaf, type LineNode, type Scene, type SceneNode } from '../scene/scene';
import { drawnSoFar, penAt } from './cut';
import { endOf, startOf } from './order';
import { shareAt, type Moment, type Timeline } from './timing';

/** A timeline's moments by what they are of. */
export type Moments = { readonly lines: ReadonlyMap<string, Moment>; readonly colours: ReadonlyMap<string, Moment> };

export const momentsOf = ({ moments }: Timeline): Moments => ({
  lines: new Map(moments.flatMap((m) => (m.kind === 'line' ? [[m.id, m]] : []))),
  colours: new Map(moments.flatMap((m) => (m.kind === 'colour' ? [[m.id, m]] : []))),
});

/** What is seen of a drawing at a time of its replay, in its stack. */
export const sceneAt = (d: Drawing, moments: Moments, t: number): Scene => seenAt(sceneOf(d), moments, t);

function seenAt(scene: Scene, moments: Moments, t: number): Scene {
  return scene.flatMap((node): SceneNode[] => {
    if (node.kind === 'layer') {
      const children = seenAt(node.children, moments, t);
      return children.length > 0 ? [{ ...node, children }] : [];
    }
    const id = node.kind === 'line' ? node.line.id : node.placed.id;
    const colour = sharePast(moments.colours.get(id), t);
    if (node.kind === 'picture') return colour > 0 ? [faded(node, colour)] : [];
    return lineAt(node, sharePast(moments.lines.get(id), t), colour);
  });
}

/** A thing that is painted, as far as it is seen at a time, in its layers. */
export const leafAt = ({ node, layers }: Leaf, moments: Moments, t: number): Leaf[] =>
  leavesOf(seenAt([node], moments, t)).map((leaf) => ({ ...leaf, layers: [...layers, ...leaf.layers] }));

/** When a thing begins to be seen, and from when on it is whole. */
export function spanOf({ node }: Leaf, { lines, colours }: Moments): { begin: number; whole: number } {
  const own = [lines, colours].flatMap((m) => m.get(paintedId(node)) ?? []);
  return { begin: Math.min(...own.map((m) => m.start)), whole: Math.max(...own.map((m) => m.end)) };
}

/** Of what has no moment of that kind nothing is seen. */
const sharePast = (m: Moment | undefined, t: number): number => (m ? shareAt(m, t) : 0);

const faded = (node: SceneNode, share: number): SceneNode =>
  share >= 1 ? node : { kind: 'layer', id: '', opacity: share, blend: 'normal', children: [node] };

/** A line's stroke as far as it is drawn, and its fill as far as it has come. */
function lineAt(node: LineNode, stroke: number, colour: number): SceneNode[] {
  const [own, fill] = [strokeOf(node), fillOf(node)];
  if ((!own || stroke >= 1) && (!fill || colour >= 1)) return [node];
  const line = own && drawnSoFar(own.line, stroke);
  const strokes = line ? [{ ...own, line }] : [];
  const fills = fill && colour > 0 ? [faded(fill, colour)] : [];
  return node.line.style.strokeBelow ? [...strokes, ...fills] : [...fills, ...strokes];
}

/** Where the pen's point is at a time, and whether it is drawing; null before the first line and after the last. */
export function penOver({ moments }: Timeline, t: number): { point: Point; isDown: boolean } | null {
  const lines = moments.filter((m) => m.kind === 'line');
  const next = firstAfter(lines, t);
  if (next === 0 || lines.length === 0) return null;
  const last = lines[next - 1];
  if (t <= last.end) return { point: penAt(last.line!, shareAt(last, t)), isDown: true };
  const to = lines[next];
  if (!to) return null;
  const [a, b] = [endOf(last.line!), startOf(to.line!)];
  if (distance(a, b) === 0) return { point: a, isDown: false };
  return { point: mix(a, b, (t - last.end) / Math.max(1e-9, to.start - last.end)), isDown: false };
}

/** How many moments began at a time or before it; they are in their order. */
function firstAfter(moments: readonly Moment[], t: number): number {
  let [low, high] = [0, moments.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (moments[middle].start <= t) low = middle + 1;
    else high = middle;
  }
  return low;
}
