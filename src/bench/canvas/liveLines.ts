import { linesOf, linesOfItem } from '@/core/drawing/items';
import type { Box, Drawing, Line } from '@/core';
import { boxesMeet, emptyBox, isEmptyBox, joinBoxes } from '@/core/geometry/box';
import { leafOf, type Leaf } from '@/core/scene/scene';
import { findItem, findLine, holdsItem } from '@/core/drawing/find';
import { bodyHull } from '@/core/drawing/run';
import { paintLeaves, type Pictures } from '@/painting/paintLeaves';
import type { Looks } from '@/painting/paintLine';
import { MANY, type BenchState, type Made } from '../state/store';
import { shownBox } from '../state/view';
import { KeptPicture } from './keptPicture';

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

/** So many at most are drawn by hand once, to be seen until the tiles show them. */
const MOST_ONCE = 2_000;

/** The lines that a change made, or made others of; none where they are more than are drawn by hand. */
export function linesTouched({ after, touched }: Pick<Made, 'after' | 'touched'>): Line[] {
  if (touched.size > MOST_ONCE) return [];
  const lines = [...touched].flatMap((id) => {
    const found = findItem(after, id);
    return found?.sheet.visible ? linesOfItem(found.item) : [];
  });
  return lines.length > MOST_ONCE ? [] : [...new Set(lines)];
}

/**
 * The lines that are drawn by hand: what is on the move, and what the tiles do not show yet. Of that very many are drawn
 * once for a view, and seen as a picture from then on.
 */
export class LiveLines {
  private moving: readonly Line[] = [];
  private waiting: { lines: Line[]; order: number }[] = [];
  private readonly picture = new KeptPicture();
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

  /** Lines whose change the painter has been told of, as his `order`; `areMoved`: a hand moved them, very many are seen so already. */
  await(lines: Line[], order: number, areMoved = false): void {
    if (lines.length > 0 && !(areMoved && lines.length > MANY)) this.waiting.push({ lines, order });
  }

  /** Lets go of what the tiles show by now; whether that was anything. */
  drop(shown: (order: number) => boolean): boolean {
    const left = this.waiting.filter((w) => !shown(w.order));
    const isNews = left.length !== this.waiting.length;
    this.waiting = left;
    if (isNews) this.picture.forget();
    return isNews;
  }

  /** A box around what is drawn by hand in every frame, its widths included; null where nothing is. */
  get box(): Box | null {
    const box = this.inEachFrame.reduce((b, l) => joinBoxes(b, bodyHull(l)), emptyBox);
    return isEmptyBox(box) ? null : box;
  }

  get isPainted(): boolean {
    return this.waiting.length === 0;
  }

  get lines(): Line[] {
    return [...this.waitingLines, ...this.moving];
  }

  private get waitingLines(): Line[] {
    return this.waiting.flatMap((w) => w.lines);
  }

  /** Whether those that wait are too many to be drawn in every frame. */
  private get areMany(): boolean {
    return this.waiting.reduce((n, w) => n + w.lines.length, 0) > MANY;
  }

  private get inEachFrame(): readonly Line[] {
    return this.areMany ? this.moving : this.lines;
  }

  /** Paints them as they are in `shown`; just those of one sheet, where that is seen alone. The context is in page units. */
  paint(
    ctx: CanvasRenderingContext2D,
    shown: Drawing,
    { drawing, view, window, solo }: Pick<BenchState, 'drawing' | 'view' | 'window' | 'solo'>,
    ratio: number,
    pictures: Pictures,
    looks: Looks,
  ): void {
    const scale = view.scale * ratio;
    if (this.areMany) {
      ctx.save();
      ctx.setTransform(1, 0, 0, 1, 0, 0);
      this.picture.lay(ctx, window, ratio, [drawing, view, solo, looks, ...this.waiting], (own) => {
        own.setTransform(scale, 0, 0, scale, view.x * ratio, view.y * ratio);
        const seen = shownBox(view, window);
        const lines = this.waitingLines.filter((l) => boxesMeet(bodyHull(l), seen));
        paintLeaves(own, leavesIn(drawing, lines, solo), scale, pictures, looks);
      });
      ctx.restore();
    }
    paintLeaves(ctx, leavesIn(shown, this.inEachFrame, solo), scale, pictures, looks);
  }
}

/** Lines as they are painted in a drawing; just those of one sheet, where that is seen alone. */
const leavesIn = (shown: Drawing, lines: readonly Line[], solo: string | null): Leaf[] =>
  lines.flatMap((line) => {
    const sheet = findLine(shown, line.id)?.sheet;
    return sheet && (solo === null || sheet.id === solo) ? leafOf(shown, sheet, line) : [];
  });
