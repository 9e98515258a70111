import type { Line } from '@/core';
import { BREAK, combOf, jointsOf, stepOf } from '@/core/check/flow';
import { formatNumber } from '@/ui/format';
import { toScreen, type View } from '../state/view';
import { paintNote, pathThrough, strokeHaloed } from './marks';

/** How lines bend along their length, and how they go through their nodes. */

const EACH = 24;
/** A bend of a radius of so many CSS px has a tooth of half the longest. */
const RADIUS = 60;
const LONGEST = 70;

/** The curvature comb: teeth at right angles to the line, the longer the more it bends. */
export function paintComb(ctx: CanvasRenderingContext2D, view: View, line: Pick<Line, 'runs'>, tag: string): void {
  ctx.save();
  ctx.strokeStyle = tag;
  for (const run of line.runs) {
    for (const teeth of combOf(run, EACH)) {
      const tips = teeth.map(({ at, normal, curvature }) => {
        const p = toScreen(view, at);
        const bend = (curvature / view.scale) * RADIUS;
        // Outwards, away from the bend's middle.
        const length = (-LONGEST * bend) / (1 + Math.abs(bend));
        return { p, tip: { x: p.x + normal.x * length, y: p.y + normal.y * length } };
      });
      ctx.globalAlpha = 0.4;
      ctx.lineWidth = 1;
      ctx.beginPath();
      for (const { p, tip } of tips) {
        ctx.moveTo(p.x, p.y);
        ctx.lineTo(tip.x, tip.y);
      }
      ctx.stroke();
      ctx.globalAlpha = 0.9;
      ctx.lineWidth = 1.4;
      ctx.beginPath();
      pathThrough(
        ctx,
        tips.map((t) => t.tip),
      );
      ctx.stroke();
    }
  }
  ctx.restore();
}

const STEP = 0.5;

/** A sign at each joint: a break by its angle, a step of the bend by its share, a dot where the line flows on. */
export function paintFlow(ctx: CanvasRenderingContext2D, view: View, line: Pick<Line, 'runs'>, tag: string): void {
  ctx.save();
  for (const run of line.runs) {
    for (const joint of jointsOf(run)) {
      const p = toScreen(view, run.nodes[joint.node].point);
      const isBreak = joint.turn > BREAK;
      const step = stepOf(joint);
      ctx.beginPath();
      if (isBreak) {
        ctx.rect(p.x - 7, p.y - 7, 14, 14);
        strokeHaloed(ctx, 1.8, '#a5361c');
        paintNote(ctx, { x: p.x + 14, y: p.y + 14 }, `${formatNumber(joint.turn, 0)}°`);
      } else if (step > STEP) {
        ctx.moveTo(p.x - 8, p.y + 6);
        ctx.lineTo(p.x, p.y + 6);
        ctx.lineTo(p.x, p.y - 6);
        ctx.lineTo(p.x + 8, p.y - 6);
        strokeHaloed(ctx, 1.8, '#c8860a');
        paintNote(ctx, { x: p.x + 14, y: p.y + 14 }, `the bend jumps by ${formatNumber(100 * step, 0)} %`);
      } else {
        ctx.arc(p.x, p.y, 3.5, 0, 2 * Math.PI);
        ctx.fillStyle = tag;
        ctx.fill();
      }
    }
  }
  ctx.restore();
}
