import type { Drawing } from '@/core';
import { leavesOf, sceneOf } from '@/core/scene/scene';
import { paintLeaves, type Pictures } from '@/painting/paintLeaves';
import type { Looks } from '@/painting/paintLine';
import type { BenchState } from '../state/store';
import type { View } from '../state/view';

/** Painters of the page's parts; a view may lie elsewhere in the window than the bench's own. */
type Painters = {
  references(view: View, bright: boolean): void;
  ground(view: View): void;
  lines(): void;
};

/** What lies below the marks, as it is compared. The context is in device pixels. */
export function paintCompared(ctx: CanvasRenderingContext2D, s: BenchState, ratio: number, paint: Painters): void {
  const [width, height] = [s.window.width * ratio, s.window.height * ratio];
  const hidesLines = s.lifted || showsBefore(s) || s.replay !== null;
  if (s.compare?.kind === 'wipe') {
    const at = s.compare.at * width;
    within(ctx, 0, at, height, () => paint.references(s.view, true));
    within(ctx, at, width - at, height, paint.lines);
    return;
  }
  if (s.compare?.kind === 'beside') {
    const half = width / 2;
    within(ctx, half, half, height, () => {
      const view = { ...s.view, x: s.view.x + s.window.width / 2 };
      paint.ground(view);
      paint.references(view, true);
    });
    within(ctx, 0, half, height, () => {
      if (!s.peek) paint.references(s.view, false);
      if (!hidesLines) paint.lines();
    });
    ctx.fillStyle = '#27241d';
    ctx.fillRect(Math.round(half) - 1, 0, 2, height);
    return;
  }
  if (!s.peek) paint.references(s.view, s.lifted);
  if (!hidesLines) paint.lines();
}

function within(ctx: CanvasRenderingContext2D, x: number, width: number, height: number, paint: () => void): void {
  ctx.save();
  ctx.beginPath();
  ctx.rect(x, 0, width, height);
  ctx.clip();
  paint();
  ctx.restore();
}

/** Marks are kept to the side on which the work is. The context is in device pixels. */
export function clipToWork(ctx: CanvasRenderingContext2D, s: BenchState, ratio: number): void {
  if (s.compare?.kind !== 'wipe' && s.compare?.kind !== 'beside') return;
  const [width, height] = [s.window.width * ratio, s.window.height * ratio];
  ctx.setTransform(1, 0, 0, 1, 0, 0);
  ctx.beginPath();
  if (s.compare.kind === 'wipe') ctx.rect(s.compare.at * width, 0, width, height);
  else ctx.rect(0, 0, width / 2, height);
  ctx.clip();
}

/** Whether the lines are shown as they were before: the key is held where lines are refined, and nothing is being tried. */
export const showsBefore = (s: BenchState): boolean =>
  s.uncorrected && s.stage !== 'prepare' && s.preview === null && s.before.drawing !== s.drawing;

/** The art as it was; the context is in page units. */
export function paintBefore(
  ctx: CanvasRenderingContext2D,
  s: BenchState,
  scale: number,
  looks: Looks,
  pictures: Pictures,
): void {
  paintLeaves(ctx, leavesOf(sceneOf(s.before.drawing, { solo: s.solo })), scale, pictures, looks);
}

/** The drawing with its pictures as bright as they are. */
export const undimmed = (d: Drawing): Drawing => ({
  ...d,
  dim: 0,
  references: d.references.map((r) => ({ ...r, dim: 0 })),
});
