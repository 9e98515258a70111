import type { Point } from '@/core';
import { setCorrection } from '@/core/edits/references';
import { pageToShares, sharesToPage } from '@/core/drawing/placement';
import { distance } from '@/core/geometry/point';
import { correctedSize, firstCorrections, type CorrectionOf } from '@/core/raster/correction';
import { lensBend } from '@/core/raster/lens';
import { paintLoupe } from '../canvas/loupe';
import { pathThrough, strokeHaloed } from '../canvas/marks';
import { correct, sourceOf } from '../state/corrections';
import { toScreen, type View } from '../state/view';
import { correctionsBefore, CorrectionTool, workedOn } from './pictureTool';
import { GRIP, gripFor, type HandEvent, type Hint, type PointerShape, type ToolContext, type Tool } from './tool';

/** What is dragged along is longer than this share of the picture's shorter side. */
const SHORTEST = 0.1;
/** As many lines as a correction holds. */
const MOST = 24;

/**
 * Lens: the hand goes along what should be straight; its edge is followed, and the lens's bend is taken out that makes it
 * straight, and all such lines together. While it is held the picture is seen as it was before.
 */
export class LensTool extends CorrectionTool implements Tool {
  private way: Point[] = [];
  private isLooking = false;

  constructor(context: ToolContext) {
    super(context, 'lens');
  }

  protected isHolding = (): boolean => this.way.length > 0;

  private own(): CorrectionOf<'lens'> {
    return workedOn(this.bench)?.corrections.find((c) => c.kind === 'lens') ?? firstCorrections.lens;
  }

  press(e: HandEvent): void {
    if (this.before() && !this.isLooking) this.way = [e.page];
  }

  move(e: HandEvent): void {
    this.at = e;
    if (this.way.length > 0) this.way.push(e.page);
    this.context.repaint();
  }

  release(e: HandEvent): void {
    const way = this.way;
    this.way = [];
    const [r, before] = [workedOn(this.bench), this.before()];
    this.context.repaint();
    if (!r || !before || way.length === 0) return;
    const shares = way.map((p) => pageToShares(before, p));
    const taken = this.under(e);
    if (distance(way[0], way.at(-1)!) > SHORTEST * Math.min(before.width, before.height)) void this.look(shares);
    else if (taken !== null)
      this.set(
        this.own().lines.filter((_, i) => i !== taken),
        'Forget a straight line',
      );
  }

  /** Which of the lines lies at the pointer. */
  private under(e: HandEvent): number | null {
    const r = this.before();
    if (!r) return null;
    const { view } = this.bench.getState();
    const off = this.own().lines.map((l) =>
      Math.min(...l.map((p) => distance(toScreen(view, sharesToPage(r, p)), e.screen))),
    );
    const nearest = off.indexOf(Math.min(...off));
    return nearest >= 0 && off[nearest] <= gripFor(e, GRIP) ? nearest : null;
  }

  private async look(way: Point[]): Promise<void> {
    const r = workedOn(this.bench)!;
    this.isLooking = true;
    try {
      const line = await correct.along(sourceOf(r), correctionsBefore(r, 'lens'), way);
      if (workedOn(this.bench)?.id === r.id) this.set([...this.own().lines, line].slice(-MOST), 'Straighten lens');
    } catch (error) {
      this.bench.tell(`What is there could not be followed: ${(error as Error).message}`, undefined, 'warning');
    }
    this.isLooking = false;
    this.context.repaint();
  }

  /** Takes out the bend that these lines tell of. */
  private set(lines: readonly (readonly Point[])[], label: string): void {
    const r = workedOn(this.bench);
    if (!r) return;
    const size = correctedSize({ width: r.pixelWidth, height: r.pixelHeight }, correctionsBefore(r, 'lens'));
    const inPixels = lines.map((l) => l.map((p) => ({ x: p.x * size.width, y: p.y * size.height })));
    const bend = lines.length === 0 ? 0 : lensBend(inPixels, size);
    if (bend === null) {
      this.bench.tell(
        'A line through the middle of the picture tells nothing of the lens. Go along one nearer to a side.',
      );
      return;
    }
    const next = { ...this.own(), on: true, bend, lines: lines.map((l) => [...l]) };
    this.bench.commit(setCorrection(this.bench.getState().drawing, r.id, next, label));
  }

  cancel(): void {
    this.way = [];
    this.context.repaint();
  }

  paint(ctx: CanvasRenderingContext2D, view: View): void {
    const r = this.before();
    if (!r) return;
    ctx.save();
    for (const line of this.own().lines) {
      const places = line.map((p) => toScreen(view, sharesToPage(r, p)));
      ctx.beginPath();
      pathThrough(ctx, [places[0], places.at(-1)!]);
      ctx.setLineDash([4, 4]);
      strokeHaloed(ctx, 1);
      ctx.setLineDash([]);
      ctx.beginPath();
      pathThrough(ctx, places);
      strokeHaloed(ctx, 2, BRICK);
    }
    ctx.beginPath();
    pathThrough(
      ctx,
      this.way.map((p) => toScreen(view, p)),
    );
    strokeHaloed(ctx, 1.5);
    ctx.restore();
    const bitmap = this.way.length > 0 ? this.context.picture(r) : null;
    if (bitmap) paintLoupe(ctx, view, r, bitmap, pageToShares(r, this.way.at(-1)!), this.bench.getState().window);
  }

  pointer(): PointerShape {
    return this.at && this.way.length === 0 && this.under(this.at) !== null ? 'move' : 'arrow';
  }

  hints(): Hint[] {
    if (!workedOn(this.bench)) return [{ keys: 'drop or paste a picture', what: 'lay it under the work' }];
    if (this.isLooking) return [{ keys: 'a moment', what: 'following what is there' }];
    return [
      {
        keys: 'drag',
        what: 'along what should be straight, near a side of the picture: a wall, a table’s edge, the horizon',
      },
      ...(this.own().lines.length > 0 ? [{ keys: 'press on a line', what: 'take it away' }] : []),
      { keys: 'Enter', what: 'see it straightened' },
    ];
  }
}

const BRICK = '#a5361c';
