import type { Page } from '@/core';
import { PX_PER } from '@/core/drawing/unit';
import { formatNumber } from '@/ui/format';
import { toScreen, type Size, type View } from '../state/view';

/** How broad the rulers are, CSS px. */
export const RULER = 20;
const INK = '#27241d';
const SOFT = '#8d836c';
const GUIDE = '#0b6b66';
const GRID = 'rgba(39,36,29,0.13)';
/** Grid lines nearer to each other than this are left out, CSS px. */
const LEAST_GAP = 5;

/** The page's grid and guides, in CSS px of the canvas. */
export function paintGuides(ctx: CanvasRenderingContext2D, page: Page, view: View, window: Size): void {
  ctx.save();
  ctx.lineWidth = 1;
  const { spacing, visible } = page.grid;
  if (visible) {
    let step = spacing;
    while (step * view.scale < LEAST_GAP) step *= 5;
    ctx.strokeStyle = GRID;
    ctx.beginPath();
    for (let x = 0; x <= page.width + 1e-6; x += step) line(ctx, 'x', toScreen(view, { x, y: 0 }).x, page, view);
    for (let y = 0; y <= page.height + 1e-6; y += step) line(ctx, 'y', toScreen(view, { x: 0, y }).y, page, view);
    ctx.stroke();
  }
  ctx.strokeStyle = GUIDE;
  ctx.setLineDash([7, 3]);
  ctx.beginPath();
  for (const g of page.guides) {
    const at = crisp(toScreen(view, { x: g.at, y: g.at })[g.axis]);
    if (g.axis === 'x') {
      ctx.moveTo(at, 0);
      ctx.lineTo(at, window.height);
    } else {
      ctx.moveTo(0, at);
      ctx.lineTo(window.width, at);
    }
  }
  ctx.stroke();
  ctx.restore();
}

/** A grid line over the page alone. */
function line(ctx: CanvasRenderingContext2D, axis: 'x' | 'y', at: number, page: Page, view: View): void {
  const [a, b] = [toScreen(view, { x: 0, y: 0 }), toScreen(view, { x: page.width, y: page.height })];
  if (axis === 'x') {
    ctx.moveTo(crisp(at), a.y);
    ctx.lineTo(crisp(at), b.y);
  } else {
    ctx.moveTo(a.x, crisp(at));
    ctx.lineTo(b.x, crisp(at));
  }
}

const crisp = (v: number): number => Math.round(v) + 0.5;

/** Rulers along the upper and the left edge, in the page's unit, with a mark where the pointer is. */
export function paintRulers(
  ctx: CanvasRenderingContext2D,
  page: Page,
  view: View,
  window: Size,
  pointer: { x: number; y: number } | null,
): void {
  const perUnit = PX_PER[page.unit] * view.scale;
  const step = stepFor(perUnit);
  ctx.save();
  ctx.fillStyle = '#fdfbf5';
  ctx.fillRect(0, 0, window.width, RULER);
  ctx.fillRect(0, 0, RULER, window.height);
  ctx.strokeStyle = SOFT;
  ctx.fillStyle = INK;
  ctx.lineWidth = 1;
  ctx.font = '10px "Figtree Variable", sans-serif';
  ctx.beginPath();
  for (const [axis, offset, length] of [
    ['x', view.x, window.width],
    ['y', view.y, window.height],
  ] as const) {
    const first = Math.floor((RULER - offset) / perUnit / step);
    const last = Math.ceil((length - offset) / perUnit / step);
    for (let k = first; k <= last; k++) {
      for (let part = 0; part < 5; part++) {
        const at = crisp(offset + (k + part / 5) * step * perUnit);
        if (at < RULER || at > length) continue;
        const tick = part === 0 ? RULER : 5;
        if (axis === 'x') {
          ctx.moveTo(at, RULER);
          ctx.lineTo(at, RULER - tick);
        } else {
          ctx.moveTo(RULER, at);
          ctx.lineTo(RULER - tick, at);
        }
        if (part === 0) label(ctx, axis, at, formatNumber(k * step, 2));
      }
    }
  }
  ctx.stroke();
  if (pointer) {
    ctx.strokeStyle = '#8a6a00';
    ctx.lineWidth = 2;
    ctx.beginPath();
    ctx.moveTo(pointer.x, 0);
    ctx.lineTo(pointer.x, RULER);
    ctx.moveTo(0, pointer.y);
    ctx.lineTo(RULER, pointer.y);
    ctx.stroke();
  }
  ctx.fillStyle = '#fdfbf5';
  ctx.fillRect(0, 0, RULER, RULER);
  ctx.fillStyle = SOFT;
  ctx.fillText(page.unit, 3, 13);
  ctx.restore();
}

function label(ctx: CanvasRenderingContext2D, axis: 'x' | 'y', at: number, text: string): void {
  if (axis === 'x') {
    ctx.fillText(text, at + 2, 10);
    return;
  }
  ctx.save();
  ctx.translate(10, at + 2);
  ctx.rotate(Math.PI / 2);
  ctx.fillText(text, 0, 0);
  ctx.restore();
}

/** The step between figures, in units: 1, 2 or 5 times a power of ten, at least 60 px apart. */
export function stepFor(pxPerUnit: number): number {
  const least = 60 / pxPerUnit;
  const power = 10 ** Math.floor(Math.log10(least));
  return [1, 2, 5, 10].map((k) => k * power).find((s) => s >= least)!;
}
