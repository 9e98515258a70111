import type { Box } from '@/core';
import { setSheet } from '@/core/edits/sheets';
import { sheetOf } from '@/core/drawing/find';
import { boxOfPoints } from '@/core/geometry/box';
import { distance } from '@/core/geometry/point';
import { paintMarquee } from '../canvas/marks';
import { toScreen, type View } from '../state/view';
import { CLICK, type HandEvent, type Hint, type PointerShape, type ToolContext, type Tool } from './tool';

/** Part: draws a box around what a sheet is for, so that choosing the sheet goes there. */
export class PartTool implements Tool {
  private from: HandEvent | null = null;
  private to: HandEvent | null = null;

  constructor(private readonly context: ToolContext) {}

  private sheet() {
    const { drawing, sheet } = this.context.bench.getState();
    return sheetOf(drawing, sheet);
  }

  press(e: HandEvent): void {
    this.from = this.sheet() ? e : null;
    this.to = e;
  }

  move(e: HandEvent): void {
    this.to = e;
    this.context.repaint();
  }

  release(e: HandEvent): void {
    const [from, sheet] = [this.from, this.sheet()];
    this.from = null;
    if (from && sheet && distance(from.screen, e.screen) >= CLICK) {
      const part: Box = boxOfPoints([from.page, e.page]);
      const { bench } = this.context;
      bench.commit(setSheet(bench.getState().drawing, sheet.id, { part }, 'Box a part'));
    }
    this.context.repaint();
  }

  hover(): void {}

  key(key: string): boolean {
    const sheet = this.sheet();
    if ((key !== 'Delete' && key !== 'Backspace') || !sheet?.part) return false;
    const { bench } = this.context;
    bench.commit(setSheet(bench.getState().drawing, sheet.id, { part: null }, 'Unbox a part'));
    return true;
  }

  cancel(): void {
    this.from = null;
    this.context.repaint();
  }

  finish = (): void => this.cancel();

  paint(ctx: CanvasRenderingContext2D, view: View): void {
    const { drawing, sheet } = this.context.bench.getState();
    for (const s of drawing.sheets) {
      if (!s.part) continue;
      const [a, b] = [
        toScreen(view, { x: s.part.minX, y: s.part.minY }),
        toScreen(view, { x: s.part.maxX, y: s.part.maxY }),
      ];
      ctx.save();
      ctx.strokeStyle = s.tag;
      ctx.lineWidth = s.id === sheet ? 2 : 1;
      ctx.strokeRect(a.x, a.y, b.x - a.x, b.y - a.y);
      ctx.fillStyle = s.tag;
      ctx.font = '12px "Figtree Variable", sans-serif';
      ctx.fillText(s.name, a.x + 4, a.y + 14);
      ctx.restore();
    }
    if (this.from && this.to) paintMarquee(ctx, this.from.screen, this.to.screen);
  }

  pointer(): PointerShape {
    return 'arrow';
  }

  hints(): Hint[] {
    const sheet = this.sheet();
    if (!sheet) return [{ keys: 'choose a sheet', what: 'whose part is to be boxed' }];
    return [
      { keys: 'drag a box', what: `where “${sheet.name}” is` },
      ...(sheet.part ? [{ keys: 'Delete', what: 'take its box away' }] : []),
      { keys: 'choose a sheet', what: 'goes to its part' },
    ];
  }
}
