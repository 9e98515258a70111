import type { Bench } from '../state/store';
import type { HandEvent, ToolContext } from './tool';

/** What tools have in common that show something at the hand: they know where it is. */
export abstract class PointedTool {
  protected at: HandEvent | null = null;

  constructor(protected readonly context: ToolContext) {}

  protected get bench(): Bench {
    return this.context.bench;
  }

  hover(e: HandEvent | null): void {
    this.at = e;
    this.context.repaint();
  }
}
