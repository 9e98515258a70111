import { cornersOf } from '../geometry/box';
import { arcCubics } from '../geometry/arc';
import type { Box, Point } from '../geometry/point';
import { runFromCubics } from './fromCubics';
import { cornerAt } from './run';
import type { Node, Run } from './schema';

/** Shapes are lines from the start: runs of ordinary nodes. Lengths are page units, angles degrees, clockwise. */

export const rectangle = (box: Box, radius = 0): Run => ({
  closed: true,
  nodes: cornersOf(box).map((p) => withRadius(cornerAt(p), radius)),
});

/** Four smooth nodes, the first at the top. */
export function ellipse(box: Box): Run {
  const [rx, ry] = [(box.maxX - box.minX) / 2, (box.maxY - box.minY) / 2];
  const middle = { x: box.minX + rx, y: box.minY + ry };
  return runFromCubics(arcCubics(middle, rx, ry, -Math.PI / 2, 2 * Math.PI), true);
}

/** An arc of an ellipse in a box, from one angle to another; 0 is to the right, 90 down. */
export function arc(box: Box, from: number, to: number): Run {
  const [rx, ry] = [(box.maxX - box.minX) / 2, (box.maxY - box.minY) / 2];
  const sweep = (((to - from) % 360) + 360) % 360 || 360;
  const turn = Math.PI / 180;
  return runFromCubics(arcCubics({ x: box.minX + rx, y: box.minY + ry }, rx, ry, from * turn, sweep * turn), false);
}

/** A regular polygon about a middle; its first corner lies `turn` degrees from straight up. */
export const polygon = (middle: Point, radius: number, sides: number, turn = 0, rounding = 0): Run => ({
  closed: true,
  nodes: around(middle, sides, turn, () => radius).map((p) => withRadius(cornerAt(p), rounding)),
});

/** A star: its corners lie in turn on the outer circle and on one of `depth` (0…1) times its radius. */
export const star = (middle: Point, radius: number, points: number, depth: number, turn = 0, rounding = 0): Run => ({
  closed: true,
  nodes: around(middle, 2 * points, turn, (i) => (i % 2 === 0 ? radius : radius * depth)).map((p) =>
    withRadius(cornerAt(p), rounding),
  ),
});

export const straight = (a: Point, b: Point): Run => ({ closed: false, nodes: [cornerAt(a), cornerAt(b)] });

const around = (middle: Point, count: number, turn: number, radius: (i: number) => number): Point[] =>
  Array.from({ length: count }, (_, i) => {
    const a = ((turn - 90) * Math.PI) / 180 + (2 * Math.PI * i) / count;
    return { x: middle.x + radius(i) * Math.cos(a), y: middle.y + radius(i) * Math.sin(a) };
  });

const withRadius = (node: Node, radius: number): Node => (radius > 0 ? { ...node, radius } : node);
