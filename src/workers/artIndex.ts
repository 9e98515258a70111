import type { Box, Drawing } from '@/core';
import { boxesMeet, growBox } from '@/core/geometry/box';
import { placedBox } from '@/core/drawing/placement';
import { bodyHull } from '@/core/drawing/run';
import { isSameLayer, leavesOf, paintedId, sceneOf, type Layer, type Leaf } from '@/core/scene/scene';

/** Something that is painted, and its place in the order. */
export type Painted = Box & { node: Leaf['node']; layers: Leaf['layers']; order: number };

/** Where something looks different than before; and what has come that was not there, where it can be laid over the rest. */
export type News = { changed: readonly Box[]; fresh: readonly Painted[] };

/**
 * What is painted of a drawing, to be asked for by place, in its order. Follows a drawing by what differs. A list that is gone
 * through does: next to painting what is found that is nothing, and there is no tree to be made or kept.
 */
export class ArtIndex {
  private list: readonly Painted[] = [];
  private items: ReadonlyMap<string, Painted> = new Map();

  /**
   * Takes over a drawing's new state, or just one of its sheets that is seen alone; gives what looks different now.
   */
  follow(drawing: Drawing, solo: string | null = null): News {
    const before = this.items;
    const after = new Map<string, Painted>();
    const list: Painted[] = [];
    const changed: Box[] = [];
    const fresh: Painted[] = [];
    const isSame = sameLayers();
    let [last, reordered] = [-1, false];
    for (const { node, layers } of leavesOf(sceneOf(drawing, { solo }))) {
      const id = paintedId(node);
      const known = before.get(id);
      if (known && isSameNode(known.node, node)) {
        if (known.order < last) reordered = true;
        last = known.order;
        if (!isSame(known.layers, layers)) changed.push(known);
        known.order = list.length;
        known.layers = layers;
        known.node = node;
        after.set(id, known);
        list.push(known);
        continue;
      }
      const { minX, minY, maxX, maxY } = boxOf(node);
      const item: Painted = { minX, minY, maxX, maxY, node, layers, order: list.length };
      after.set(id, item);
      list.push(item);
      // What lies in a group is laid over the rest with all of it.
      (known || layers.length > 0 ? changed : fresh).push(item);
    }
    for (const [id, item] of before) if (after.get(id) !== item) changed.push(item);
    this.items = after;
    this.list = list;
    return reordered ? { changed: list, fresh: [] } : { changed, fresh };
  }

  /** What reaches into a box, the lowest first. */
  within(box: Box): Painted[] {
    return this.list.filter((item) => boxesMeet(item, box));
  }

  /** Whether some of what reaches into a box lies above all else there. */
  liesOnTop(some: readonly Painted[], box: Box): boolean {
    const all = this.within(box);
    const known = new Set(some);
    return all.length >= some.length && all.slice(all.length - some.length).every((item) => known.has(item));
  }

  /** All pictures in the art. */
  get pictures(): Painted[] {
    return this.list.filter((item) => item.node.kind === 'picture');
  }

  boxOf(id: string): Box | undefined {
    return this.items.get(id);
  }

  /** Where something lies in painting order; -1 for what is not seen. */
  orderOf(id: string): number {
    return this.items.get(id)?.order ?? -1;
  }

  /** How much is seen. */
  get size(): number {
    return this.list.length;
  }
}

function boxOf(node: Leaf['node']): Box {
  return node.kind === 'line' ? growBox(bodyHull(node.line), 0.5) : growBox(placedBox(node.placed), 0.5);
}

function isSameNode(a: Leaf['node'], b: Leaf['node']): boolean {
  if (a === b) return true;
  return (
    a.kind === 'picture' &&
    b.kind === 'picture' &&
    a.placed === b.placed &&
    a.opacity === b.opacity &&
    a.blend === b.blend
  );
}

/** Compares lists of layers; those of one group are the same list again and again, and are compared once. */
function sameLayers(): (a: readonly Layer[], b: readonly Layer[]) => boolean {
  const known = new Map<readonly Layer[], { other: readonly Layer[]; same: boolean }>();
  return (a, b) => {
    if (a.length === 0 && b.length === 0) return true;
    const found = known.get(a);
    if (found?.other === b) return found.same;
    const same = a.length === b.length && a.every((layer, i) => isSameLayer(layer, b[i]));
    known.set(a, { other: b, same });
    return same;
  };
}
