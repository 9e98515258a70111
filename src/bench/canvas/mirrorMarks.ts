import type { Point } from '@/core';
import type { Mirror } from '@/core/edits/mirrored';
import { mirrorInHand } from '../state/mirroring';
import type { BenchState } from '../state/store';
import { toScreen } from '../state/view';
import { paintBead, strokeHaloed } from './marks';

const COLOUR = '#2d3a8c';
/** Where the bead stays away from the window's edges, and how far it is from what it moves; CSS px. */
const [INSET, BESIDE] = [26, 18];

type Shown = Pick<BenchState, 'mirror' | 'tool' | 'view' | 'window' | 'drawing'>;

/** Where the bead is by which the axis, or the point that is turned about, is moved; CSS px. */
export function mirrorBead(s: Omit<Shown, 'mirror' | 'tool'>, mirror: Mirror): Point {
  const { page } = s.drawing;
  const at = toScreen(s.view, mirror.at);
  if (mirror.kind === 'round') return { x: at.x + BESIDE, y: at.y + BESIDE };
  const within = (v: number, size: number): number => Math.min(Math.max(v, INSET), size - INSET);
  // Just beyond the page's far end, where no line is drawn, as far as that is seen.
  const far = toScreen(s.view, { x: page.width, y: page.height });
  return mirror.kind === 'across'
    ? { x: at.x, y: within(far.y + BESIDE, s.window.height) }
    : { x: within(far.x + BESIDE, s.window.width), y: at.y };
}

/** The axis of the mirror, or the point that is turned about and the rays between its places. */
export function paintMirror(ctx: CanvasRenderingContext2D, s: Shown): void {
  const mirror = mirrorInHand(s);
  if (!mirror) return;
  const at = toScreen(s.view, mirror.at);
  const bead = mirrorBead(s, mirror);
  ctx.save();
  ctx.beginPath();
  ctx.setLineDash([10, 4, 2, 4]);
  if (mirror.kind === 'across') {
    ctx.moveTo(at.x, 0);
    ctx.lineTo(at.x, s.window.height);
  } else if (mirror.kind === 'down') {
    ctx.moveTo(0, at.y);
    ctx.lineTo(s.window.width, at.y);
  } else {
    const far = s.window.width + s.window.height;
    for (let k = 0; k < mirror.count; k++) {
      const a = (2 * Math.PI * (k + 0.5)) / mirror.count - Math.PI / 2;
      ctx.moveTo(at.x + 14 * Math.cos(a), at.y + 14 * Math.sin(a));
      ctx.lineTo(at.x + far * Math.cos(a), at.y + far * Math.sin(a));
    }
  }
  ctx.globalAlpha = 0.65;
  strokeHaloed(ctx, 1, COLOUR);
  ctx.globalAlpha = 1;
  ctx.setLineDash([]);
  if (mirror.kind === 'round') {
    ctx.beginPath();
    ctx.moveTo(at.x, at.y);
    ctx.lineTo(bead.x, bead.y);
    strokeHaloed(ctx, 1, COLOUR);
  }
  paintBead(ctx, bead);
  ctx.restore();
}
