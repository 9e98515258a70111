import RBush from 'rbush';
import type { Box, Drawing, Line } from '@/core';
import { growBox } from '@/core/geometry/box';
import { bodyHull } from '@/core/drawing/run';

type Item = Box & { line: Line; tag: string; order: number };

/** When more lines than this have changed, the tree is made anew: quicker than taking them out one by one. */
const MANY = 200;

/** The visible lines of a drawing, to be asked for by place, in painting order. Follows a drawing by what differs. */
export class ArtIndex {
  private readonly tree = new RBush<Item>();
  private items = new Map<string, Item>();
  private drawn: Drawing | null = null;

  /**
   * Takes over a drawing's new state, or just one of its sheets that is seen alone; gives the boxes in which something
   * looks different now.
   */
  follow(drawing: Drawing, solo: string | null = null): Box[] {
    const before = this.items;
    const isFirst = this.drawn === null;
    const after = new Map<string, Item>();
    const changed: Box[] = [];
    const added: Item[] = [];
    let order = 0;
    let reordered = false;
    let last = -1;
    for (const sheet of drawing.sheets) {
      if (!sheet.visible || (solo !== null && sheet.id !== solo)) continue;
      const { tag } = sheet;
      for (const line of sheet.lines) {
        const known = before.get(line.id);
        if (known && known.line === line) {
          if (known.order < last) reordered = true;
          last = known.order;
          known.order = order++;
          if (known.tag !== tag) changed.push(known);
          known.tag = tag;
          after.set(line.id, known);
          continue;
        }
        const item: Item = { ...growBox(bodyHull(line), 0.5), line, tag, order: order++ };
        after.set(line.id, item);
        added.push(item);
        changed.push(item);
      }
    }
    const gone = [...before].flatMap(([id, item]) => (after.get(id) === item ? [] : [item]));
    changed.push(...gone);
    if (gone.length > MANY) this.tree.clear().load([...after.values()]);
    else {
      for (const item of gone) this.tree.remove(item);
      if (added.length > MANY || isFirst) this.tree.load(added);
      else for (const item of added) this.tree.insert(item);
    }
    this.items = after;
    this.drawn = drawing;
    return reordered ? [...after.values()] : changed;
  }

  /** The lines that reach into a box, the lowest first, each with the tag colour of its sheet. */
  within(box: Box): { line: Line; tag: string; order: number }[] {
    return this.tree.search(box).sort((a, b) => a.order - b.order);
  }

  boxOf(id: string): Box | undefined {
    return this.items.get(id);
  }

  /** Where a line lies in painting order; -1 for one that is not seen. */
  orderOf(id: string): number {
    return this.items.get(id)?.order ?? -1;
  }

  /** How many lines are seen. */
  get size(): number {
    return this.items.size;
  }
}
