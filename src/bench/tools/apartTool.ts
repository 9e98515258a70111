import type { Point } from '@/core';
import { setCorrection } from '@/core/edits/references';
import { firstCorrections, type CorrectionOf } from '@/core/raster/correction';
import { pageToShares, sharesToPage } from '@/core/drawing/placement';
import { paintLasso } from '../canvas/marks';
import { correct, sourceOf } from '../state/corrections';
import type { View } from '../state/view';
import { correctionsBefore, CorrectionTool, workedOn } from './pictureTool';
import type { HandEvent, Hint, PointerShape, ToolContext, Tool } from './tool';

/** A loose outline with fewer places goes around nothing. */
const FEWEST = 8;

/** Set apart: a thing is gone around loosely; its own outline is found, and all else is dimmed. */
export class ApartTool extends CorrectionTool implements Tool {
  private lasso: Point[] = [];
  private isLooking = false;

  constructor(context: ToolContext) {
    super(context, 'apart');
  }

  protected isHolding = (): boolean => this.lasso.length > 0;

  private own(): CorrectionOf<'apart'> {
    return workedOn(this.bench)?.corrections.find((c) => c.kind === 'apart') ?? firstCorrections.apart;
  }

  press(e: HandEvent): void {
    if (this.before() && !this.isLooking) this.lasso = [e.page];
  }

  move(e: HandEvent): void {
    this.at = e;
    if (this.lasso.length === 0) return;
    this.lasso.push(e.page);
    this.context.repaint();
  }

  release(): void {
    const lasso = this.lasso;
    this.lasso = [];
    if (lasso.length >= FEWEST) void this.look(lasso);
    this.context.repaint();
  }

  /** Looks for the thing that was gone around, and sets it apart. */
  private async look(lasso: readonly Point[]): Promise<void> {
    const [r, before] = [workedOn(this.bench), this.before()];
    if (!r || !before) return;
    this.isLooking = true;
    try {
      const loose = lasso.map((p) => pageToShares(before, p));
      const outlines = await correct.thing(sourceOf(r), correctionsBefore(r, 'apart'), loose);
      if (outlines.length === 0)
        this.bench.tell('Nothing stands out of the ground there. Go around a thing as a whole.');
      else {
        const apart = { ...this.own(), on: true, outlines };
        this.bench.commit(setCorrection(this.bench.getState().drawing, r.id, apart, 'Set apart'));
      }
    } catch (error) {
      this.bench.tell(`The thing could not be found: ${(error as Error).message}`, undefined, 'warning');
    }
    this.isLooking = false;
    this.context.repaint();
  }

  cancel(): void {
    this.lasso = [];
    this.context.repaint();
  }

  finish(): void {
    this.cancel();
  }

  paint(ctx: CanvasRenderingContext2D, view: View): void {
    const r = this.before();
    if (r)
      for (const o of this.own().outlines)
        paintLasso(
          ctx,
          view,
          o.map((p) => sharesToPage(r, p)),
        );
    paintLasso(ctx, view, this.lasso);
  }

  pointer(): PointerShape {
    return 'arrow';
  }

  hints(): Hint[] {
    if (!workedOn(this.bench)) return [{ keys: 'drop or paste a picture', what: 'lay it under the work' }];
    return [
      { keys: 'go around a thing', what: 'loosely: its outline is found, and the rest is dimmed' },
      { keys: 'Enter', what: 'done' },
    ];
  }
}
