import type { Section } from '@/core/ink/nibs/nib';
import { toScreen, type View } from '../state/view';
import { strokeHaloed } from './marks';

const QUILL = '#f4c20d';
/** A rung stands out from the body by so much, CSS px, so that it can be seen and taken on thin lines. */
const OUT = 5;

type Look = { sharp: boolean; chosen: boolean; faint?: boolean };

/** A width mark: a rung across the stroke, with a round head on both sides, or a pointed one where the mark is sharp. */
export function paintRung(
  ctx: CanvasRenderingContext2D,
  view: View,
  { p, along, left, right }: Section,
  tag: string,
  { sharp, chosen, faint }: Look,
): void {
  const middle = toScreen(view, p);
  const across = { x: along.y, y: -along.x };
  const heads = [left * view.scale + OUT, -(right * view.scale + OUT)].map((k) => ({
    x: middle.x + across.x * k,
    y: middle.y + across.y * k,
  }));
  ctx.save();
  ctx.globalAlpha = faint ? 0.55 : 1;
  ctx.lineCap = 'round';
  ctx.beginPath();
  ctx.moveTo(heads[0].x, heads[0].y);
  ctx.lineTo(heads[1].x, heads[1].y);
  strokeHaloed(ctx, 1.4, tag);
  if (!faint)
    heads.forEach((h, i) => {
      const out = i === 0 ? across : { x: -across.x, y: -across.y };
      ctx.beginPath();
      if (sharp) {
        ctx.moveTo(h.x + out.x * 6, h.y + out.y * 6);
        ctx.lineTo(h.x + along.x * 4 - out.x * 2, h.y + along.y * 4 - out.y * 2);
        ctx.lineTo(h.x - along.x * 4 - out.x * 2, h.y - along.y * 4 - out.y * 2);
        ctx.closePath();
      } else ctx.arc(h.x, h.y, 3.4, 0, 2 * Math.PI);
      ctx.fillStyle = chosen ? QUILL : '#ffffff';
      strokeHaloed(ctx, 1.4, tag);
      ctx.fill();
    });
  ctx.restore();
}
