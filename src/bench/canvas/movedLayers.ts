import type { Change, Point } from '@/core';
import { movedBox } from '@/core/geometry/box';
import { add } from '@/core/geometry/point';
import { MANY, type BenchState } from '../state/store';
import type { LiveLines } from './liveLines';
import type { Picking } from './picking';
import type { TileBoard } from './tileBoard';

const STAYS: Point = { x: 0, y: 0 };

/**
 * What is painted between the tiles and the tool's marks: very many lines on the move, what lies over whatever is on the
 * move, and the marks of very many lines that are chosen. Very many lines that a hand has let go of are shown moved until
 * the painters have caught up.
 */
export class MovedLayers {
  private waiting: { by: Point; order: number }[] = [];

  constructor(
    private readonly tiles: Pick<TileBoard, 'layers' | 'shows' | 'isNear'>,
    private readonly picking: Picking,
    private readonly live: Pick<LiveLines, 'box'>,
  ) {}

  /** Let go of, moved so far, by a change that the painters were told of as `order`. */
  letGo(shift: Point | null, change: Change | null, order: number): void {
    const step = change?.steps.length === 1 ? change.steps[0] : null;
    if (shift && step?.step === 'translate') this.waiting.push({ by: step.by, order });
  }

  /** How far what was painted as of a message has moved since; `now` is how far the hand holds it off its place. */
  since(order: number, now: Point | null): Point {
    return this.waiting.reduce((sum, w) => (w.order > order ? add(sum, w.by) : sum), now ?? STAYS);
  }

  /** Whether the tiles show all that was let go of. */
  get isShown(): boolean {
    return this.waiting.every((w) => this.tiles.shows(w.order));
  }

  /** Lets go of what is shown by now, in the tiles and beside them; whether that was anything. */
  drop(): boolean {
    const { layers } = this.tiles;
    const left = this.waiting.filter(
      ({ order }) => !this.tiles.shows(order) || layers.isBefore('marks', order) || layers.isBefore('chosen', order),
    );
    const isNews = left.length !== this.waiting.length;
    this.waiting = left;
    return isNews;
  }

  /** The context is in device pixels, `ratio` of them to a CSS px; `still`: the view is at rest. */
  paint(ctx: CanvasRenderingContext2D, s: BenchState, ratio: number, still: boolean): void {
    const { layers } = this.tiles;
    // While a hand zooms, speed counts for more than smooth edges.
    ctx.imageSmoothingEnabled = still;
    const shift = (order: number): Point => this.since(order, s.shift);
    if (s.shift || !this.isShown) layers.paint(ctx, 'chosen', s.view, ratio, shift);
    const around = s.shift ? this.picking.bodiesAround(s.drawing, s.lines) : this.live.box;
    const box = around && s.shift ? movedBox(around, s.shift) : around;
    if (box) {
      this.tiles.isNear(box);
      layers.paint(ctx, 'over', s.view, ratio, () => STAYS, box);
    }
    if (s.lines.size > MANY) layers.paint(ctx, 'marks', s.view, ratio, shift);
    ctx.imageSmoothingEnabled = true;
  }
}
