import { paintComb, paintFlow } from './bendMarks';
import { colouredLines, paintDistances, paintPointed, paintWash, paintWorstPlaces, viewedLines } from './checkMarks';
import { clipToWork, showsBefore } from './compare';
import { paintNotes } from './noteFlags';
import { paintToneDistances } from './toneMarks';
import { StillColours } from './stillColours';
import type { Checked } from '../state/checked';
import { tonesBeneath } from '../state/beneath';
import { checkingOf } from '../state/checkingOf';
import { preferences } from '../state/preferences';
import { shownDrawing, type Bench, type BenchState } from '../state/store';

/**
 * What the checks found, painted over the page where lines are refined. What is still lies with the ground, which is not
 * painted anew while a hand moves something; what moves, and all figures, with the marks above.
 */
export class CheckOverlay {
  private readonly stop: (() => void)[] = [];
  private readonly colours = new StillColours();

  constructor(
    private readonly bench: Bench,
    onNews: { still: () => void; moving: () => void },
  ) {
    const news = (): void => {
      if (!bench.getState().preview) onNews.still();
      onNews.moving();
    };
    this.stop.push(tonesBeneath.subscribe(onNews.moving));
    const checking = checkingOf(bench);
    if (checking) this.stop.push(checking.store.subscribe(news), preferences.subscribe(news));
  }

  dispose(): void {
    this.stop.forEach((f) => f());
  }

  /** The wash, and the lines that keep still; `still`: the view is at rest. The context is in device px. */
  paintStill(
    ctx: CanvasRenderingContext2D,
    s: BenchState,
    ratio: number,
    moving: ReadonlySet<string>,
    still: boolean,
  ): void {
    const checked = this.shown(s);
    if (!checked) return;
    ctx.save();
    clipToWork(ctx, s, ratio);
    ctx.setTransform(ratio, 0, 0, ratio, 0, 0);
    const { distance, coverage } = preferences.getState();
    if (coverage) paintWash(ctx, s.view, s.drawing, checked);
    if (distance) this.colours.paint(ctx, s, checked, ratio, moving, still);
    ctx.restore();
  }

  /** The context is in CSS px. */
  paintAbove(ctx: CanvasRenderingContext2D, s: BenchState, moving: ReadonlySet<string>): void {
    paintToneDistances(ctx, s);
    const checked = this.shown(s);
    if (!checked) return;
    const { distance, comb, flow } = preferences.getState();
    const drawing = shownDrawing(s);
    if (distance) {
      const lines = colouredLines(s, checked);
      paintDistances(
        ctx,
        s.view,
        lines.filter(({ line }) => moving.has(line.id)),
      );
      paintWorstPlaces(ctx, s.view, lines, s.lines, checked.note !== null);
    }
    if (comb || flow)
      for (const { line, tag } of viewedLines(drawing, s.lines)) {
        if (comb) paintComb(ctx, s.view, line, tag);
        if (flow) paintFlow(ctx, s.view, line, tag);
      }
    if (s.trial === null) paintNotes(ctx, s.view, checked, s.window);
    if (checked.pointed) paintPointed(ctx, s.view, checked.pointed);
  }

  private shown(s: BenchState): Checked | null {
    if (s.stage !== 'refine' || s.lifted || showsBefore(s)) return null;
    return checkingOf(this.bench)?.store.getState() ?? null;
  }
}
