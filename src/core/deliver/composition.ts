import { cornersOf } from '../geometry/box';
import type { Matrix } from '../geometry/matrix';
import type { Box, Point } from '../geometry/point';
import { cornerAt } from '../drawing/run';
import type { Drawing, Line, Unit } from '../drawing/schema';
import type { LayerNode, LineNode, Scene } from '../scene/scene';

/** What a file shows: all writers of files draw it, from `under` to `over`. Lengths in page units. */
export type Composition = {
  readonly drawing: Drawing;
  /** The references, which what is blended in the art does not touch. */
  readonly under: Scene;
  readonly art: Scene;
  /** Marks of the cut, a paper's frame and title. */
  readonly over: Scene;
  /** The part of the plane that the file shows. */
  readonly box: Box;
  readonly ground: { readonly box: Box; readonly colour: string } | null;
  /** Where it is cut, and how far colour reaches beyond; null where the file ends with the page. */
  readonly cut: { readonly trim: Box; readonly bleed: Box } | null;
  readonly unit: Unit;
};

/** A drawing's references and art as they are wanted, and the part of the plane that is looked at. */
export type Piece = { readonly view: Box; readonly under: Scene; readonly art: Scene };

/** A scene within layers, the innermost first. */
export const wrapped = (scene: Scene, layers: readonly ((children: Scene) => LayerNode)[]): Scene =>
  scene.length === 0 ? scene : layers.reduce<Scene>((inner, layer) => [layer(inner)], scene);

const plainLayer = { kind: 'layer', id: '', opacity: 1, blend: 'normal' } as const;

/** A layer under a map. */
export const moved =
  (map: Matrix) =>
  (children: Scene): LayerNode => ({ ...plainLayer, map, children });

/** A layer of which nothing is seen outside of a box. */
export const held =
  (box: Box) =>
  (children: Scene): LayerNode => ({ ...plainLayer, clip: outline(cornersOf(box), true), children });

const outline = (points: readonly Point[], closed: boolean): Line => ({
  id: '',
  runs: [{ closed, nodes: points.map(cornerAt) }],
  style: { stroke: '#000000', width: 0, cap: 'butt', join: 'miter', fill: null },
});

/** A line drawn black with a plain stroke. */
export function ruled(points: readonly Point[], width: number, closed = false): LineNode {
  const line = outline(points, closed);
  const style = { ...line.style, width };
  return {
    kind: 'line',
    line: { ...line, style },
    tag: '#000000',
    parts: [{ kind: 'stroke', ink: '#000000', width, cap: 'butt', join: 'miter' }],
  };
}

/** Whether something in the art is blended: then the art is kept apart from what lies below it. */
export const hasBlends = (scene: Scene): boolean =>
  scene.some((node) => node.kind === 'layer' && (node.blend !== 'normal' || hasBlendsWithin(node.children)));
const hasBlendsWithin = (scene: Scene): boolean =>
  scene.some((node) => (node.kind === 'picture' && node.blend !== 'normal') || hasBlends([node]));
