import { paintComb, paintFlow } from './bendMarks';
import { paintDistances, paintNotes, paintPointed, paintWash, viewedLines } from './checkMarks';
import { checkingOf } from '../state/checking';
import { preferences } from '../state/preferences';
import { shownDrawing, type Bench, type BenchState } from '../state/store';

/** What the checks found, painted over the page where lines are refined. */
export class CheckOverlay {
  private readonly stop: () => void;

  constructor(
    private readonly bench: Bench,
    onNews: () => void,
  ) {
    this.stop = checkingOf(bench)?.store.subscribe(onNews) ?? ((): void => undefined);
  }

  dispose(): void {
    this.stop();
  }

  /** The context is in CSS px. */
  paint(ctx: CanvasRenderingContext2D, s: BenchState): void {
    const checked = checkingOf(this.bench)?.store.getState();
    if (s.stage !== 'refine' || !checked || s.lifted) return;
    const { distance, coverage, comb, flow } = preferences.getState();
    const drawing = shownDrawing(s);
    if (coverage) paintWash(ctx, s.view, drawing, checked);
    if (distance) paintDistances(ctx, s.view, drawing, checked, s.lines);
    if (comb || flow)
      for (const { line, tag } of viewedLines(drawing, s.lines)) {
        if (comb) paintComb(ctx, s.view, line, tag);
        if (flow) paintFlow(ctx, s.view, line, tag);
      }
    if (s.trial === null) paintNotes(ctx, s.view, checked, s.window);
    if (checked.pointed) paintPointed(ctx, s.view, checked.pointed);
  }
}
