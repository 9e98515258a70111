import type { AlignmentMark } from '@/core/drawing/alignment';
import type { Point } from '@/core';
import { toScreen, type View } from '../state/view';
import { strokeHaloed } from './marks';

/** How far a line stands out beyond what it joins, and half a cross stroke at the ends of a gap; CSS px. */
const [OUT, CROSS] = [8, 5];
const COLOUR = '#a31f6b';

/** What a thing that is dragged has in common with others: a line through sides or middles, or two equal gaps. */
export function paintAlignment(ctx: CanvasRenderingContext2D, view: View, marks: readonly AlignmentMark[]): void {
  ctx.save();
  for (const mark of marks) {
    ctx.beginPath();
    if (mark.kind === 'line') {
      const [a, b] = [mark.from, mark.to].map((v) => toScreen(view, placed(mark.axis, mark.at, v)));
      const isUpright = mark.axis === 'x';
      ctx.moveTo(a.x - (isUpright ? 0 : OUT), a.y - (isUpright ? OUT : 0));
      ctx.lineTo(b.x + (isUpright ? 0 : OUT), b.y + (isUpright ? OUT : 0));
      ctx.setLineDash([7, 3, 2, 3]);
    } else {
      ctx.setLineDash([]);
      for (const gap of mark.gaps)
        paintGap(
          ctx,
          mark.axis,
          gap.map((v) => toScreen(view, placed(mark.axis, v, mark.across))),
        );
    }
    strokeHaloed(ctx, 1.4, COLOUR);
  }
  ctx.restore();
}

const placed = (axis: 'x' | 'y', along: number, across: number): Point =>
  axis === 'x' ? { x: along, y: across } : { x: across, y: along };

/** A gap as a measure: a line with a cross stroke at both ends. */
function paintGap(ctx: CanvasRenderingContext2D, axis: 'x' | 'y', [a, b]: Point[]): void {
  const [x, y] = axis === 'x' ? [0, CROSS] : [CROSS, 0];
  ctx.moveTo(a.x, a.y);
  ctx.lineTo(b.x, b.y);
  for (const p of [a, b]) {
    ctx.moveTo(p.x - x, p.y - y);
    ctx.lineTo(p.x + x, p.y + y);
  }
}
