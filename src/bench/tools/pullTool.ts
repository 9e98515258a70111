import type { Line, Point } from '@/core';
import { outlineHolds } from '@/core/drawing/outline';
import { figureRegion, touchesRegion } from '@/core/drawing/region';
import { paintInside, paintLasso, paintSkeleton } from '../canvas/marks';
import { toPage, type View } from '../state/view';
import { workedOn } from './pictureTool';
import type { HandEvent, Hint, PointerShape, ToolContext, Tool } from './tool';

const KEPT = '#0b6b66';
const DROPPED = '#b9af97';

/** What is pulled from a picture: over it a lasso, or a click, chooses what is to be dropped; with Alt, to be kept after all. */
export class PullTool implements Tool {
  private lasso: Point[] = [];

  constructor(
    private readonly context: ToolContext,
    /** The button that pulls, and what it makes, in words. */
    private readonly words: { pull: string; makes: string; one: string },
  ) {}

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
      const isClick = lasso.length <= 2;
      const around = figureRegion(isClick ? this.spotAround(e.screen, view) : lasso);
      // A shape is clicked anywhere in it, a line on it.
      const isMeant = (l: Line): boolean =>
        isClick && l.style.fill ? outlineHolds(l, e.page) : touchesRegion(l, around);
      const found = pulled.lines.filter(isMeant).map((l) => l.id);
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
      if (line.style.fill && typeof line.style.fill === 'string' && line.style.width === 0 && !isDropped)
        paintInside(ctx, view, line, line.style.fill);
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
    const { pull, makes, one } = this.words;
    if (!pulled) return [{ keys: pull, what: `on the right, ${makes} to start from` }];
    return [
      { keys: 'draw around crumbs', what: 'drop them' },
      { keys: `click a ${one}`, what: 'drop it' },
      { keys: 'Alt', what: 'keep them after all' },
      { keys: 'Lay them on the page', what: 'makes them lines like any other' },
    ];
  }
}
