import type { Point } from '@/core';
import { setCorrection } from '@/core/edits/references';
import { firstCorrections, type CorrectionOf } from '@/core/raster/correction';
import { pageToShares, sharesToPage } from '@/core/drawing/placement';
import { distance } from '@/core/geometry/point';
import { paintBead, pathThrough } from '../canvas/marks';
import { toScreen, type View } from '../state/view';
import { CorrectionTool, workedOn } from './pictureTool';
import {
  CLICK,
  GRIP,
  gripFor,
  type HandEvent,
  type Hint,
  type PointerShape,
  type ToolContext,
  type Tool,
} from './tool';

type Kept = { left: number; top: number; right: number; bottom: number };
type Side = keyof Kept;
type Grip = { sides: Side[]; at: (k: Kept) => Point };

const grips: Grip[] = [
  { sides: ['left', 'top'], at: (k) => ({ x: k.left, y: k.top }) },
  { sides: ['right', 'top'], at: (k) => ({ x: k.right, y: k.top }) },
  { sides: ['right', 'bottom'], at: (k) => ({ x: k.right, y: k.bottom }) },
  { sides: ['left', 'bottom'], at: (k) => ({ x: k.left, y: k.bottom }) },
  { sides: ['left'], at: (k) => ({ x: k.left, y: (k.top + k.bottom) / 2 }) },
  { sides: ['right'], at: (k) => ({ x: k.right, y: (k.top + k.bottom) / 2 }) },
  { sides: ['top'], at: (k) => ({ x: (k.left + k.right) / 2, y: k.top }) },
  { sides: ['bottom'], at: (k) => ({ x: (k.left + k.right) / 2, y: k.bottom }) },
];

/** What is left of a picture must have some width. */
const LEAST = 0.02;

/** Crop: what is kept of a picture, drawn as a box or by its sides. While it is held the whole picture is seen. */
export class CropTool extends CorrectionTool implements Tool {
  private kept: Kept | null = null;
  private held: { grip: Grip | null; from: HandEvent } | null = null;

  constructor(context: ToolContext) {
    super(context, 'crop');
  }

  protected isHolding = (): boolean => this.held !== null;

  private own(): CorrectionOf<'crop'> {
    return workedOn(this.bench)?.corrections.find((c) => c.kind === 'crop') ?? firstCorrections.crop;
  }

  private shown(): Kept {
    const { left, top, right, bottom } = this.own();
    return this.kept ?? { left, top, right: 1 - right, bottom: 1 - bottom };
  }

  private under(e: HandEvent): Grip | null {
    const r = this.before();
    if (!r) return null;
    const { view } = this.bench.getState();
    const kept = this.shown();
    const near = grips.map((g) => distance(toScreen(view, sharesToPage(r, g.at(kept))), e.screen));
    const i = near.indexOf(Math.min(...near));
    return near[i] <= gripFor(e, 1.4 * GRIP) ? grips[i] : null;
  }

  press(e: HandEvent): void {
    if (this.before()) this.held = { grip: this.under(e), from: e };
  }

  move(e: HandEvent): void {
    this.at = e;
    const r = this.before();
    if (!this.held || !r) return;
    const p = pageToShares(r, e.page);
    const within = (v: number): number => Math.min(1, Math.max(0, v));
    if (this.held.grip) {
      const next = { ...this.shown() };
      for (const side of this.held.grip.sides) next[side] = within(side === 'left' || side === 'right' ? p.x : p.y);
      if (next.right - next.left >= LEAST && next.bottom - next.top >= LEAST) this.kept = next;
    } else if (distance(e.screen, this.held.from.screen) >= CLICK) {
      const q = pageToShares(r, this.held.from.page);
      const next = {
        left: within(Math.min(p.x, q.x)),
        right: within(Math.max(p.x, q.x)),
        top: within(Math.min(p.y, q.y)),
        bottom: within(Math.max(p.y, q.y)),
      };
      if (next.right - next.left >= LEAST && next.bottom - next.top >= LEAST) this.kept = next;
    }
    this.context.repaint();
  }

  release(): void {
    const [r, kept] = [workedOn(this.bench), this.kept];
    this.held = null;
    this.kept = null;
    if (r && kept) {
      const crop = {
        ...this.own(),
        on: true,
        left: kept.left,
        top: kept.top,
        right: 1 - kept.right,
        bottom: 1 - kept.bottom,
      };
      this.bench.commit(setCorrection(this.bench.getState().drawing, r.id, crop, 'Crop picture'));
    }
    this.context.repaint();
  }

  cancel(): void {
    this.held = null;
    this.kept = null;
    this.context.repaint();
  }

  paint(ctx: CanvasRenderingContext2D, view: View): void {
    const r = this.before();
    if (!r) return;
    const kept = this.shown();
    const screen = (x: number, y: number): Point => toScreen(view, sharesToPage(r, { x, y }));
    const path = (k: Kept): void => {
      const corners = [
        screen(k.left, k.top),
        screen(k.right, k.top),
        screen(k.right, k.bottom),
        screen(k.left, k.bottom),
      ];
      pathThrough(ctx, corners);
      ctx.closePath();
    };
    ctx.save();
    ctx.beginPath();
    path({ left: 0, top: 0, right: 1, bottom: 1 });
    path(kept);
    ctx.fillStyle = 'rgba(39,36,29,0.45)';
    ctx.fill('evenodd');
    ctx.beginPath();
    path(kept);
    ctx.strokeStyle = '#fffefb';
    ctx.lineWidth = 1.5;
    ctx.stroke();
    for (const g of grips) paintBead(ctx, screen(g.at(kept).x, g.at(kept).y));
    ctx.restore();
  }

  pointer(): PointerShape {
    return this.held?.grip || (this.at && this.under(this.at)) ? 'move' : 'arrow';
  }

  hints(): Hint[] {
    if (!workedOn(this.bench)) return [{ keys: 'drop or paste a picture', what: 'lay it under the work' }];
    return [
      { keys: 'drag a side or a corner', what: 'cut there' },
      { keys: 'drag a box', what: 'keep what is in it' },
      { keys: 'Enter', what: 'see what is left' },
    ];
  }
}
