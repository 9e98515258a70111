import type { Drawing } from '../drawing/schema';
import { leavesOf, paintedId, type Leaf, type Scene, type SceneNode } from '../scene/scene';
import { appearing } from './order';

/** A scene with everything in the order in which it appears, each part's things that follow each other in a layer of its name. */
export function inOrder(scene: Scene, d: Drawing): Scene {
  const leaves = new Map<string, Leaf>(leavesOf(scene).map((leaf) => [paintedId(leaf.node), leaf]));
  const names = new Map(d.sheets.map((s) => [s.id, s.name]));
  const parts: { sheet: string; children: SceneNode[] }[] = [];
  for (const x of appearing(d)) {
    const id = x.kind === 'line' ? x.line.id : x.id;
    const leaf = leaves.get(id);
    if (!leaf) continue;
    // A line comes once, with its fill.
    leaves.delete(id);
    if (parts.at(-1)?.sheet !== x.sheet) parts.push({ sheet: x.sheet, children: [] });
    parts.at(-1)!.children.push(within(leaf));
  }
  return parts.map(({ sheet, children }) => ({
    kind: 'layer',
    id: sheet,
    name: names.get(sheet) ?? '',
    opacity: 1,
    blend: 'normal',
    children,
  }));
}

const within = ({ node, layers }: Leaf): SceneNode =>
  layers.reduceRight<SceneNode>((inner, layer) => ({ kind: 'layer', ...layer, children: [inner] }), node);
