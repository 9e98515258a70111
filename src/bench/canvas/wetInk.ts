import type { Box, Point, Style } from '@/core';
import { boxOfPoints, emptyBox, growBox, joinBoxes } from '@/core/geometry/box';
import { scale as scaled } from '@/core/geometry/point';
import { toScreen, type View } from '../state/view';

/** A stroke under the hand, which grows: where it passed, in page units, and with what. */
export type Wet = {
  readonly passed: readonly { readonly page: Point }[];
  readonly style: Pick<Style, 'width'>;
  /** What it is seen in. */
  readonly colour: string;
};

/** What is painted of a stroke: up to which place, in which view, and which of its px (device px). */
type Painted = { canvas: HTMLCanvasElement; view: View; to: number; box: Box };

const painted = new WeakMap<Wet, Painted>();

/**
 * Paints a stroke under the hand onto the page's canvas, whose context is in CSS px. What is painted once stays on a
 * canvas of its own for as long as the view does not change: a frame costs what the hand has added, however long the
 * stroke has become.
 */
export function paintWet(ctx: CanvasRenderingContext2D, view: View, stroke: Wet): void {
  const ratio = ctx.getTransform().a;
  const { width, height } = ctx.canvas;
  let on = painted.get(stroke);
  if (!on || on.view !== view || on.canvas.width !== width || on.canvas.height !== height) {
    const canvas = on?.canvas ?? document.createElement('canvas');
    // Another size, or the same again, wipes it.
    Object.assign(canvas, { width, height });
    painted.set(stroke, (on = { canvas, view, to: 0, box: emptyBox }));
  }
  const own = on.canvas.getContext('2d')!;
  const last = stroke.passed.length - 1;
  if (on.to < last) {
    const scale = view.scale * ratio;
    own.setTransform(scale, 0, 0, scale, view.x * ratio, view.y * ratio);
    strokeAlong(own, view, stroke, on.to);
    const reach = penWidth(view, stroke) * scale;
    const added = stroke.passed.slice(on.to).map(({ page }) => scaled(toScreen(view, page), ratio));
    on.box = joinBoxes(on.box, growBox(boxOfPoints(added), reach));
    on.to = last;
  }
  const [left, top] = [Math.max(0, Math.floor(on.box.minX)), Math.max(0, Math.floor(on.box.minY))];
  const [w, h] = [Math.min(width, Math.ceil(on.box.maxX)) - left, Math.min(height, Math.ceil(on.box.maxY)) - top];
  if (!(w > 0 && h > 0)) return;
  ctx.save();
  ctx.setTransform(1, 0, 0, 1, 0, 0);
  ctx.drawImage(on.canvas, left, top, w, h, left, top, w, h);
  ctx.restore();
}

/** Strokes it from one of its places on; the context is in page units. */
export function strokeAlong(ctx: CanvasRenderingContext2D, view: View, stroke: Wet, from = 0): void {
  ctx.strokeStyle = stroke.colour;
  ctx.lineCap = ctx.lineJoin = 'round';
  ctx.lineWidth = penWidth(view, stroke);
  ctx.beginPath();
  const { page } = stroke.passed[from];
  ctx.moveTo(page.x, page.y);
  for (let i = from + 1; i < stroke.passed.length; i++) ctx.lineTo(stroke.passed[i].page.x, stroke.passed[i].page.y);
  ctx.stroke();
}

/** In page units; a hair at the least. */
const penWidth = (view: View, { style }: Wet): number => Math.max(style.width, 0.5 / view.scale);
