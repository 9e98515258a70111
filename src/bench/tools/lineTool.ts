import { isOpenSheet, sheetOf } from '@/core/drawing/find';
import { PointedTool } from './pointedTool';

/** What the tools that work on lines have in common: a gesture that can be called off, and where the hand is. */
export abstract class LineTool<G> extends PointedTool {
  protected gesture: G | null = null;

  /** Whether lines can be drawn on the sheet in hand. */
  protected get canDraw(): boolean {
    const { sheet, drawing, reading } = this.bench.getState();
    const target = sheetOf(drawing, sheet);
    return !reading && !!target && isOpenSheet(target);
  }

  /** Calls the gesture off, or else lets go of what is chosen; whether there was either. */
  protected escape(): boolean {
    if (this.gesture) this.cancel();
    else if (this.bench.getState().lines.size > 0) this.bench.choose([]);
    else return false;
    return true;
  }

  cancel(): void {
    this.gesture = null;
    this.bench.show(null);
    this.context.repaint();
  }

  finish(): void {
    this.cancel();
  }
}
