import type { LineDistance } from '@/core/check/lineDistance';
import type { BenchState } from '../state/store';
import type { View } from '../state/view';
import type { Checked } from '../state/checked';
import { colouredLines, paintDistances } from './checkMarks';

type Of = {
  readonly distances: ReadonlyMap<string, LineDistance>;
  readonly sheets: unknown;
  readonly chosen: ReadonlySet<string>;
  readonly solo: string | null;
  readonly moving: ReadonlySet<string>;
};

/**
 * The colours of the lines that keep still, as a picture of the window: while the view moves it moves with it, and is
 * painted anew when it has come to rest.
 */
export class StillColours {
  private readonly canvas = document.createElement('canvas');
  private painted: { of: Of; view: View; ratio: number } | null = null;

  /** The context is in CSS px. */
  paint(
    ctx: CanvasRenderingContext2D,
    s: BenchState,
    checked: Checked,
    ratio: number,
    moving: ReadonlySet<string>,
    still: boolean,
  ): void {
    const of: Of = {
      distances: checked.distances,
      sheets: s.drawing.sheets,
      chosen: s.lines,
      solo: s.solo,
      moving,
    };
    if (!this.shows(of, s, ratio, still)) this.renew(of, s, checked, ratio);
    const { view } = this.painted!;
    const k = s.view.scale / view.scale;
    const { width, height } = this.canvas;
    if (width === 0 || height === 0) return;
    ctx.save();
    ctx.imageSmoothingEnabled = k !== 1;
    ctx.drawImage(this.canvas, s.view.x - view.x * k, s.view.y - view.y * k, (width / ratio) * k, (height / ratio) * k);
    ctx.restore();
  }

  private shows(of: Of, { view, window: size }: BenchState, ratio: number, still: boolean): boolean {
    const p = this.painted;
    if (!p || p.ratio !== ratio) return false;
    if (this.canvas.width !== Math.round(size.width * ratio)) return false;
    if (this.canvas.height !== Math.round(size.height * ratio)) return false;
    if ((Object.keys(of) as (keyof Of)[]).some((key) => of[key] !== p.of[key])) return false;
    return !still || (p.view.scale === view.scale && p.view.x === view.x && p.view.y === view.y);
  }

  private renew(of: Of, s: BenchState, checked: Checked, ratio: number): void {
    this.canvas.width = Math.round(s.window.width * ratio);
    this.canvas.height = Math.round(s.window.height * ratio);
    const ctx = this.canvas.getContext('2d')!;
    ctx.setTransform(ratio, 0, 0, ratio, 0, 0);
    paintDistances(
      ctx,
      s.view,
      colouredLines(s, checked).filter(({ line }) => !of.moving.has(line.id)),
    );
    this.painted = { of, view: s.view, ratio };
  }
}
