import type { Drawing } from '@/core';
import { leafAt, momentsOf, penOver, spanOf, type Moments } from '@/core/replay/sceneAt';
import type { Timeline } from '@/core/replay/timing';
import { leavesOf, sceneOf, type Leaf } from '@/core/scene/scene';
import { paintLeaves, type Pictures } from '@/painting/paintLeaves';
import type { Looks } from '@/painting/paintLine';
import type { BenchState } from '../state/store';

/** A thing to be seen, where it lies in the stack, and when. */
type Piece = { readonly leaf: Leaf; readonly place: number; readonly begin: number; readonly whole: number };
type Score = { readonly pieces: readonly Piece[]; readonly moments: Moments };

/**
 * Paints a replay. What is whole is kept as a picture of the window, which what comes is painted onto where it lies on top, so
 * that a frame costs what changes in it; what is under way is painted above.
 */
export class ReplayPainter {
  private readonly canvas = document.createElement('canvas');
  private of: readonly unknown[] = [];
  private score: Score = { pieces: [], moments: { lines: new Map(), colours: new Map() } };
  private scored: { drawing: Drawing; timeline: Timeline } | null = null;
  private at = -1;
  private top = -1;

  /** The context is in page units. */
  paint(ctx: CanvasRenderingContext2D, s: BenchState, ratio: number, looks: Looks, pictures: Pictures): void {
    const { replay, view } = s;
    const scale = view.scale * ratio;
    if (!replay) return;
    if (replay.kind === 'history') return paintLeaves(ctx, leavesOf(sceneOf(replay.drawing)), scale, pictures, looks);
    const { timeline, at } = replay;
    this.read(s.drawing, timeline);
    this.bringUp(s, ratio, looks, pictures, at);
    ctx.save();
    ctx.resetTransform();
    ctx.drawImage(this.canvas, 0, 0);
    ctx.restore();
    const { pieces, moments } = this.score;
    const active = pieces.filter((p) => p.begin <= at && p.whole > at);
    paintLeaves(
      ctx,
      active.flatMap((p) => leafAt(p.leaf, moments, at)),
      scale,
      pictures,
      looks,
    );
    paintPen(ctx, penOver(timeline, at), 1 / view.scale);
  }

  private read(drawing: Drawing, timeline: Timeline): void {
    if (this.scored?.drawing === drawing && this.scored.timeline === timeline) return;
    this.scored = { drawing, timeline };
    const moments = momentsOf(timeline);
    const pieces = leavesOf(sceneOf(drawing)).map((leaf, place) => ({ leaf, place, ...spanOf(leaf, moments) }));
    this.score = { pieces, moments };
  }

  /** The picture of all that is whole by now. */
  private bringUp(s: BenchState, ratio: number, looks: Looks, pictures: Pictures, at: number): void {
    const { view } = s;
    const [width, height] = [Math.round(s.window.width * ratio), Math.round(s.window.height * ratio)];
    const of = [this.score, looks, width, height, view.x, view.y, view.scale];
    const isSame = of.every((v, i) => v === this.of[i]);
    const fresh = this.score.pieces.filter((p) => p.whole <= at && !(isSame && p.whole <= this.at));
    const isOnTop = fresh.every((p) => p.place > this.top);
    if (!isSame || at < this.at || !isOnTop) {
      this.canvas.width = Math.max(1, width);
      this.canvas.height = Math.max(1, height);
      this.top = -1;
      this.lay(
        this.score.pieces.filter((p) => p.whole <= at),
        s,
        ratio,
        looks,
        pictures,
      );
    } else this.lay(fresh, s, ratio, looks, pictures);
    this.of = of;
    this.at = at;
  }

  private lay(pieces: readonly Piece[], { view }: BenchState, ratio: number, looks: Looks, pictures: Pictures): void {
    if (pieces.length === 0) return;
    const own = this.canvas.getContext('2d')!;
    const scale = view.scale * ratio;
    own.setTransform(scale, 0, 0, scale, view.x * ratio, view.y * ratio);
    paintLeaves(
      own,
      pieces.map((p) => p.leaf),
      scale,
      pictures,
      looks,
    );
    this.top = pieces.at(-1)!.place;
  }
}

/** The pen's point: full while it draws, a ring while it is lifted. */
function paintPen(ctx: CanvasRenderingContext2D, pen: ReturnType<typeof penOver>, px: number): void {
  if (!pen) return;
  ctx.beginPath();
  ctx.arc(pen.point.x, pen.point.y, 5 * px, 0, 2 * Math.PI);
  ctx.lineWidth = 1.5 * px;
  ctx.strokeStyle = '#27241d';
  ctx.fillStyle = pen.isDown ? '#f4c20d' : '#fffefb';
  ctx.fill();
  ctx.stroke();
}
