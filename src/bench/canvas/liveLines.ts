import { linesOf, linesOfItem } from '@/core/drawing/items';
import type { Box, Drawing, Line } from '@/core';
import { emptyBox, isEmptyBox, joinBoxes } from '@/core/geometry/box';
import { leafOf, type Leaf } from '@/core/scene/scene';
import { findItem, findLine, holdsItem } from '@/core/drawing/find';
import { bodyHull } from '@/core/drawing/run';
import { MANY, type Made } from '../state/store';

/**
 * The lines of `after` that are not as they were in `before`, on visible sheets; and the ids of those that are gone or
 * changed. Sheets that are shared are passed over without a look. More than
 * can be drawn live are left to the tiles.
 */
export function differingLines(before: Drawing, after: Drawing): { lines: Line[]; ids: string[] } {
  const lines: Line[] = [];
  const ids: string[] = [];
  if (before === after) return { lines, ids };
  for (const sheet of after.sheets) {
    const was = before.sheets.find((s) => s.id === sheet.id);
    if (!was || linesOf(was) === linesOf(sheet) || !sheet.visible) continue;
    const inPlace = differingInPlace(linesOf(was), linesOf(sheet));
    if (inPlace) {
      lines.push(...inPlace);
      ids.push(...inPlace.map((l) => l.id));
      if (lines.length > MANY) return { lines: [], ids: [] };
      continue;
    }
    const known = new Set<Line>(linesOf(was));
    let fresh = 0;
    for (const line of linesOf(sheet)) {
      if (known.has(line)) continue;
      lines.push(line);
      ids.push(line.id);
      if (!holdsItem(was, line.id)) fresh++;
      if (lines.length > MANY) return { lines: [], ids: [] };
    }
    // Lines that are gone are not drawn any more either.
    if (linesOf(was).length + fresh > linesOf(sheet).length)
      for (const { id } of linesOf(was)) if (!holdsItem(sheet, id)) ids.push(id);
  }
  return { lines, ids };
}

/** The lines of a list that differ, each in its place; null where lines came, went or changed places. */
function differingInPlace(before: readonly Line[], after: readonly Line[]): Line[] | null {
  if (before.length !== after.length) return null;
  const found: Line[] = [];
  for (let i = 0; i < after.length; i++) {
    if (before[i] === after[i]) continue;
    if (before[i].id !== after[i].id) return null;
    found.push(after[i]);
    if (found.length > MANY) break;
  }
  return found;
}

/** The lines that a change made, or made others of; none where they are more than can be drawn live. */
export function linesTouched({ after, touched }: Pick<Made, 'after' | 'touched'>): Line[] {
  if (touched.size > MANY) return [];
  const lines = [...touched].flatMap((id) => {
    const found = findItem(after, id);
    return found?.sheet.visible ? linesOfItem(found.item) : [];
  });
  return lines.length > MANY ? [] : [...new Set(lines)];
}

/** The lines that are drawn by hand: what is on the move, and what the tiles do not show yet. */
export class LiveLines {
  private moving: readonly Line[] = [];
  private waiting: { lines: Line[]; order: number }[] = [];
  /** The ids of the lines on the move, which are not as the drawing has them. */
  moved: ReadonlySet<string> = new Set();

  /** Takes over what is seen in place of the drawing; whether other lines move than before. */
  move(drawing: Drawing, shown: Drawing): boolean {
    const { lines, ids } = differingLines(drawing, shown);
    this.moving = lines;
    if (ids.length === this.moved.size && ids.every((id) => this.moved.has(id))) return false;
    this.moved = new Set(ids);
    return true;
  }

  /** Lines whose change the painter has been told of, as his `order`. */
  await(lines: Line[], order: number): void {
    if (lines.length > 0) this.waiting.push({ lines, order });
  }

  /** Lets go of what the tiles show by now; whether that was anything. */
  drop(shown: (order: number) => boolean): boolean {
    const left = this.waiting.filter((w) => !shown(w.order));
    const isNews = left.length !== this.waiting.length;
    this.waiting = left;
    return isNews;
  }

  /** A box around all of what is drawn by hand, its widths included; null where nothing is. */
  get box(): Box | null {
    const box = this.lines.reduce((b, l) => joinBoxes(b, bodyHull(l)), emptyBox);
    return isEmptyBox(box) ? null : box;
  }

  get isPainted(): boolean {
    return this.waiting.length === 0;
  }

  /** What is drawn by hand, as it is painted; just that of one sheet, where that is seen alone. */
  leaves(shown: Drawing, solo: string | null): Leaf[] {
    return this.lines.flatMap((line) => {
      const sheet = findLine(shown, line.id)?.sheet;
      return sheet && (solo === null || sheet.id === solo) ? leafOf(shown, sheet, line) : [];
    });
  }

  get lines(): Line[] {
    return [...this.waiting.flatMap((w) => w.lines), ...this.moving];
  }
}
