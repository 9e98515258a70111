import type { Point, Quad, Reference } from '@/core';
import { setCorrection } from '@/core/edits/references';
import { firstCorrections, type CorrectionOf } from '@/core/raster/correction';
import { pageToShares, sharesToPage } from '@/core/drawing/placement';
import { distance } from '@/core/geometry/point';
import { isConvex } from '@/core/raster/rectify';
import { paintLoupe } from '../canvas/loupe';
import { paintBead, pathThrough, strokeHaloed } from '../canvas/marks';
import { correct, sourceOf } from '../state/corrections';
import { toScreen, type View } from '../state/view';
import { CorrectionTool, correctionsBefore, workedOn } from './pictureTool';
import { GRIP, gripFor, type HandEvent, type Hint, type PointerShape, type ToolContext, type Tool } from './tool';

/**
 * Corners: the four corners of a page in a photo, found by the program, dragged by hand. While it is held the picture is
 * seen as it was before it was straightened.
 */
export class CornersTool extends CorrectionTool implements Tool {
  private corners: Point[] | null = null;
  private held: number | null = null;
  private searching: string | null = null;

  constructor(context: ToolContext) {
    super(context, 'straighten');
  }

  protected isHolding = (): boolean => this.held !== null;

  private own(): CorrectionOf<'straighten'> | undefined {
    return workedOn(this.bench)?.corrections.find((c) => c.kind === 'straighten');
  }

  begin(): void {
    const r = workedOn(this.bench);
    if (r && !this.own() && this.searching !== r.id) void this.find(r);
  }

  /** Looks for the page's corners and marks them; a change like any other. */
  async find(r: Reference): Promise<void> {
    this.searching = r.id;
    const found = await correct.corners(sourceOf(r), correctionsBefore(r, 'straighten')).catch(() => null);
    this.searching = null;
    if (this.bench.getState().tool !== 'corners') return;
    if (!found) {
      this.bench.tell('No page edge was found in this picture. Drag the four corners to where they belong.');
      this.corners = [...firstCorrections.straighten.corners];
    } else this.commit(found);
    this.context.repaint();
  }

  private commit(corners: readonly Point[]): void {
    const r = workedOn(this.bench);
    this.corners = null;
    if (!r) return;
    const quad = corners.map((p) => ({ x: clamp(p.x), y: clamp(p.y) })) as unknown as Quad;
    const own = this.own() ?? firstCorrections.straighten;
    this.bench.commit(
      setCorrection(this.bench.getState().drawing, r.id, { ...own, on: true, corners: quad }, 'Set page corners'),
    );
  }

  private shown(): readonly Point[] | null {
    return this.corners ?? this.own()?.corners ?? null;
  }

  private under(e: HandEvent): number | null {
    const [r, corners] = [this.before(), this.shown()];
    if (!r || !corners) return null;
    const { view } = this.bench.getState();
    const distances = corners.map((p) => distance(toScreen(view, sharesToPage(r, p)), e.screen));
    const nearest = distances.indexOf(Math.min(...distances));
    return distances[nearest] <= gripFor(e, 2 * GRIP) ? nearest : null;
  }

  press(e: HandEvent): void {
    this.held = this.under(e);
    const corners = this.shown();
    if (this.held !== null && corners) this.corners = [...corners];
    this.move(e);
  }

  move(e: HandEvent): void {
    this.at = e;
    const r = this.before();
    if (this.held === null || !r || !this.corners) return;
    const p = pageToShares(r, e.page);
    const next = this.corners.with(this.held, { x: clamp(p.x), y: clamp(p.y) });
    if (isConvex(next)) this.corners = next;
    this.context.repaint();
  }

  release(): void {
    if (this.held !== null && this.corners) this.commit(this.corners);
    this.held = null;
    this.context.repaint();
  }

  cancel(): void {
    this.held = null;
    this.corners = null;
    this.context.repaint();
  }

  paint(ctx: CanvasRenderingContext2D, view: View): void {
    const [r, corners] = [this.before(), this.shown()];
    if (!r || !corners) return;
    const places = corners.map((p) => toScreen(view, sharesToPage(r, p)));
    ctx.save();
    ctx.beginPath();
    pathThrough(ctx, places);
    ctx.closePath();
    strokeHaloed(ctx, 1.5);
    for (const p of places) paintBead(ctx, p);
    ctx.restore();
    const bitmap = this.held === null ? null : this.context.picture(r);
    if (bitmap && this.held !== null)
      paintLoupe(ctx, view, r, bitmap, corners[this.held], this.bench.getState().window);
  }

  pointer(): PointerShape {
    return this.held !== null || (this.at && this.under(this.at) !== null) ? 'move' : 'arrow';
  }

  hints(): Hint[] {
    if (!workedOn(this.bench)) return [{ keys: 'drop or paste a picture', what: 'lay it under the work' }];
    if (this.searching) return [{ keys: 'a moment', what: 'looking for the page’s edge' }];
    return [
      { keys: 'drag a corner', what: 'onto the corner of the page' },
      { keys: 'Enter', what: 'see it straightened' },
      { keys: 'Ctrl Z', what: 'take it back' },
    ];
  }
}

const clamp = (v: number): number => Math.min(1.2, Math.max(-0.2, v));
