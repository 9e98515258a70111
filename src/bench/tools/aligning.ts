import type { Box, Drawing } from '@/core';
import { alignBox, allSides, type Alignment, type Sides } from '@/core/drawing/alignment';
import { findLine } from '@/core/drawing/find';
import { skeletonBox } from '@/core/drawing/run';
import { unitOf } from '@/core/drawing/whole';
import { distanceToBox, growBox, joinBoxes, middleOfBox } from '@/core/geometry/box';
import { preferences } from '../state/preferences';
import { SNAP, type ToolContext } from './tool';

/** Things further away than this, CSS px, are not brought into line with. */
const AROUND = 1500;
/** So many of the nearest count: more would be a thicket. */
const MOST = 200;

/** What lies around the chosen lines as one or as groups, and the page: what these can be brought into line with. */
export class Aligning {
  private readonly others: readonly Box[];

  constructor(
    private readonly context: ToolContext,
    private readonly drawing: Drawing,
    lines: ReadonlySet<string>,
    box: Box,
  ) {
    const { page } = drawing;
    const wanted = preferences.getState().alignThings;
    this.others = wanted ? [{ minX: 0, minY: 0, maxX: page.width, maxY: page.height }, ...this.around(lines, box)] : [];
  }

  private around(lines: ReadonlySet<string>, box: Box): Box[] {
    const { within } = this.context.bench.getState();
    const middle = middleOfBox(box);
    const near = this.context.picking
      .linesIn(this.drawing, growBox(box, AROUND * this.context.unit()))
      .filter(({ line }) => !lines.has(line.id));
    if (near.length > MOST) near.sort((a, b) => distanceToBox(a, middle) - distanceToBox(b, middle));
    const units = new Map<string, Box>();
    for (const { line } of near.slice(0, MOST)) {
      const sheet = findLine(this.drawing, line.id)?.sheet;
      if (!sheet) continue;
      const key = unitOf(sheet, line.id, within);
      const own = skeletonBox(line);
      const known = units.get(key);
      units.set(key, known ? joinBoxes(known, own) : own);
    }
    return [...units.values()];
  }

  /** How far a box that is dragged goes further to be in line, and what it then has in common. */
  of(box: Box, sides: Sides = allSides): Alignment {
    return alignBox(this.drawing.page, box, this.others, SNAP * this.context.unit(), sides);
  }
}
