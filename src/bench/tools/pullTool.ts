import type { Point } from '@/core';
import { figureRegion, touchesRegion } from '@/core/drawing/region';
import { paintLasso, paintSkeleton } from '../canvas/marks';
import { toPage, type View } from '../state/view';
import { workedOn } from './pictureTool';
import type { HandEvent, Hint, PointerShape, ToolContext, Tool } from './tool';

const KEPT = '#0b6b66';
const DROPPED = '#b9af97';

/** Pull ink: over the lines that were pulled, a lasso chooses crumbs to be dropped; with Alt, to be kept after all. */
export class PullTool implements Tool {
  private lasso: Point[] = [];

  constructor(private readonly context: ToolContext) {}

  private get bench() {
    return this.context.bench;
  }

  press(e: HandEvent): void {
    this.lasso = this.bench.getState().pulled ? [e.page] : [];
  }

  move(e: HandEvent): void {
    if (this.lasso.length === 0) return;
    this.lasso.push(e.page);
    this.context.repaint();
  }

  release(e: HandEvent): void {
    const { pulled, view } = this.bench.getState();
    const lasso = this.lasso;
    this.lasso = [];
    if (pulled && lasso.length > 0) {
      const around = figureRegion(lasso.length > 2 ? lasso : this.spotAround(e.screen, view));
      const found = pulled.lines.filter((l) => touchesRegion(l, around)).map((l) => l.id);
      const dropped = new Set(pulled.dropped);
      for (const id of found)
        if (e.alt) dropped.delete(id);
        else dropped.add(id);
      this.bench.setState({ pulled: { ...pulled, dropped } });
    }
    this.context.repaint();
  }

  /** A click stands for a small lasso. */
  private spotAround(at: Point, view: View): Point[] {
    return [0, 1, 2, 3, 4, 5, 6, 7].map((k) =>
      toPage(view, { x: at.x + 8 * Math.cos((k * Math.PI) / 4), y: at.y + 8 * Math.sin((k * Math.PI) / 4) }),
    );
  }

  hover(): void {}

  key(key: string): boolean {
    if (key !== 'Escape' || this.lasso.length === 0) return false;
    this.cancel();
    return true;
  }

  cancel(): void {
    this.lasso = [];
    this.context.repaint();
  }

  finish(): void {
    this.lasso = [];
    this.bench.setState({ pulled: null });
  }

  paint(ctx: CanvasRenderingContext2D, view: View): void {
    const { pulled } = this.bench.getState();
    if (!pulled) return;
    for (const line of pulled.lines) {
      const isDropped = pulled.dropped.has(line.id);
      paintSkeleton(ctx, view, line, isDropped ? DROPPED : KEPT, isDropped ? 1 : 2);
    }
    paintLasso(ctx, view, this.lasso);
  }

  pointer(): PointerShape {
    return 'arrow';
  }

  hints(): Hint[] {
    const { pulled } = this.bench.getState();
    if (!workedOn(this.bench)) return [{ keys: 'drop or paste a picture', what: 'lay it under the work' }];
    if (!pulled) return [{ keys: 'Pull lines', what: 'on the right, draws the ink as lines to start from' }];
    return [
      { keys: 'draw around crumbs', what: 'drop them' },
      { keys: 'click a line', what: 'drop it' },
      { keys: 'Alt', what: 'keep them after all' },
      { keys: 'Lay them on the page', what: 'makes them lines like any other' },
    ];
  }
}
