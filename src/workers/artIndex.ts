import RBush from 'rbush';
import type { Box, Drawing } from '@/core';
import { growBox } from '@/core/geometry/box';
import { placedBox } from '@/core/drawing/placement';
import { bodyHull } from '@/core/drawing/run';
import { isSameLayer, leavesOf, paintedId, sceneOf, type Layer, type Leaf } from '@/core/scene/scene';

/** Something that is painted, and its place in the order. */
export type Painted = Box & { node: Leaf['node']; layers: Leaf['layers']; order: number };

/** Where something looks different than before; and what has come that was not there, where it can be laid over the rest. */
export type News = { changed: Box[]; fresh: Painted[] };

/** When more than this have changed, the tree is made anew: quicker than taking them out one by one. */
const MANY = 200;

/** What is painted of a drawing, to be asked for by place, in its order. Follows a drawing by what differs. */
export class ArtIndex {
  private readonly tree = new RBush<Painted>();
  private items = new Map<string, Painted>();
  private isFresh = true;

  /**
   * Takes over a drawing's new state, or just one of its sheets that is seen alone; gives what looks different now.
   */
  follow(drawing: Drawing, solo: string | null = null): News {
    const before = this.items;
    const after = new Map<string, Painted>();
    const changed: Box[] = [];
    const fresh: Painted[] = [];
    const added: Painted[] = [];
    const isSame = sameLayers();
    let [order, last, reordered] = [0, -1, false];
    for (const leaf of leavesOf(sceneOf(drawing, { solo }))) {
      const id = paintedId(leaf.node);
      const known = before.get(id);
      if (known && isSameNode(known.node, leaf.node)) {
        if (known.order < last) reordered = true;
        last = known.order;
        known.order = order++;
        if (!isSame(known.layers, leaf.layers)) changed.push(known);
        known.layers = leaf.layers;
        known.node = leaf.node;
        after.set(id, known);
        continue;
      }
      const item: Painted = { ...boxOf(leaf), ...leaf, order: order++ };
      after.set(id, item);
      added.push(item);
      // What lies in a group is laid over the rest with all of it.
      (known || item.layers.length > 0 ? changed : fresh).push(item);
    }
    const gone = [...before].flatMap(([id, item]) => (after.get(id) === item ? [] : [item]));
    changed.push(...gone);
    if (gone.length > MANY) this.tree.clear().load([...after.values()]);
    else {
      for (const item of gone) this.tree.remove(item);
      if (added.length > MANY || this.isFresh) this.tree.load(added);
      else for (const item of added) this.tree.insert(item);
    }
    this.items = after;
    this.isFresh = false;
    return reordered ? { changed: [...after.values()], fresh: [] } : { changed, fresh };
  }

  /** What reaches into a box, the lowest first. */
  within(box: Box): Painted[] {
    return this.tree.search(box).sort((a, b) => a.order - b.order);
  }

  /** Whether some of what reaches into a box lies above all else there. */
  liesOnTop(some: readonly Painted[], box: Box): boolean {
    const all = this.within(box);
    const known = new Set(some);
    return all.length >= some.length && all.slice(all.length - some.length).every((item) => known.has(item));
  }

  /** All pictures in the art. */
  get pictures(): Painted[] {
    return [...this.items.values()].filter((item) => item.node.kind === 'picture');
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
    return this.items.size;
  }
}

function boxOf({ node }: Leaf): Box {
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
