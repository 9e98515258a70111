import { isOpenSheet, sheetOf } from '@/core/drawing/find';
import type { Bench } from '../state/store';
import type { HandEvent, ToolContext } from './tool';

/** What the tools that work on lines have in common: a gesture that can be called off, and where the hand is. */
export abstract class LineTool<G> {
  protected gesture: G | null = null;
  protected at: HandEvent | null = null;

  constructor(protected readonly context: ToolContext) {}

  protected get bench(): Bench {
    return this.context.bench;
  }

  /** Whether lines can be drawn on the sheet in hand. */
  protected get canDraw(): boolean {
    const { sheet, drawing, reading } = this.bench.getState();
    const target = sheetOf(drawing, sheet);
    return !reading && !!target && isOpenSheet(target);
  }

  hover(e: HandEvent | null): void {
    this.at = e;
    this.context.repaint();
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
