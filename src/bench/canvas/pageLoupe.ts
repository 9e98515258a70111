import type { Drawing, Point } from '@/core';
import { boxesMeet } from '@/core/geometry/box';
import { lineBox } from '@/core/drawing/run';
import { placedBox } from '@/core/drawing/placement';
import { leavesOf, sceneOf, type Leaf } from '@/core/scene/scene';
import { paintLeaves } from '@/painting/paintLeaves';
import type { Looks } from '@/painting/paintLine';
import { preferences } from '../state/preferences';
import { shownDrawing, type BenchState } from '../state/store';
import { toPage, type Size, type View } from '../state/view';
import { paintCross } from './loupe';
import { paintReferences } from './pageGround';
import type { PictureStore } from './pictures';

const RADIUS = 92;
/** From the pointer to the rim. */
const APART = 26;
/** The pills lie along the window's upper and lower edge: so far the loupe keeps away from them. */
const PILLS = 46;

export type LoupeScene = {
  looks: Looks;
  pictures: PictureStore;
  /** Paints the tool's marks for a view. */
  marks: (ctx: CanvasRenderingContext2D, view: View) => void;
};

/**
 * The loupe at the pointer, where it is wanted: reference, lines and marks around it, so many times as large. It stands
 * above and to the side that the drawing hand leaves free, and gives way at the window's edges. The context is in CSS px.
 */
export function paintPageLoupe(
  ctx: CanvasRenderingContext2D,
  s: BenchState,
  ratio: number,
  pointer: Point | null,
  scene: LoupeScene,
): void {
  const { loupe, loupeTimes: times, mirrored } = preferences.getState();
  if (!loupe || !pointer || s.stage === 'prepare') return;
  const { view, window } = s;
  const drawing = shownDrawing(s);
  const middle = loupeMiddle(pointer, window, mirrored);
  const at = toPage(view, pointer);
  const scale = view.scale * times;
  const inside: View = { scale, x: middle.x - at.x * scale, y: middle.y - at.y * scale };
  const rim = new Path2D();
  rim.arc(middle.x, middle.y, RADIUS, 0, Math.PI * 2);
  ctx.save();
  ctx.fillStyle = drawing.page.ground ?? '#fffefb';
  ctx.fill(rim);
  ctx.save();
  ctx.clip(rim);
  ctx.save();
  ctx.setTransform(1, 0, 0, 1, 0, 0);
  if (!s.peek) paintReferences(ctx, drawing, inside, window, ratio, scene.pictures, { still: true, moving: false });
  ctx.setTransform(scale * ratio, 0, 0, scale * ratio, inside.x * ratio, inside.y * ratio);
  const reach = RADIUS / scale;
  const seen = { minX: at.x - reach, minY: at.y - reach, maxX: at.x + reach, maxY: at.y + reach };
  const near = leavesFor(drawing, s.solo).filter(({ node }) =>
    boxesMeet(node.kind === 'line' ? lineBox(node.line) : placedBox(node.placed), seen),
  );
  paintLeaves(ctx, near, scale * ratio, scene.pictures.at(scale * ratio), scene.looks);
  ctx.restore();
  scene.marks(ctx, inside);
  ctx.restore();
  ctx.strokeStyle = '#27241d';
  ctx.lineWidth = 1.5;
  ctx.stroke(rim);
  paintCross(ctx, middle);
  ctx.fillStyle = '#27241d';
  ctx.font = '11px "Figtree Variable", sans-serif';
  ctx.textAlign = 'center';
  ctx.fillText(`${times}×`, middle.x, middle.y + RADIUS - 8);
  ctx.restore();
}

let last: { drawing: Drawing; solo: string | null; leaves: Leaf[] } | null = null;

/** All that is painted; made once for each state: the loupe is painted with every move of the hand. */
function leavesFor(drawing: Drawing, solo: string | null): Leaf[] {
  if (last?.drawing !== drawing || last.solo !== solo)
    last = { drawing, solo, leaves: leavesOf(sceneOf(drawing, { solo })) };
  return last.leaves;
}

/** Where the loupe stands, CSS px. */
export function loupeMiddle(pointer: Point, window: Size, leftHanded: boolean): Point {
  const off = RADIUS + APART;
  const fits = (side: number): boolean =>
    pointer.x + side * off - RADIUS > 0 && pointer.x + side * off + RADIUS < window.width;
  const free = leftHanded ? 1 : -1;
  const side = fits(free) ? free : -free;
  const above = pointer.y - off - RADIUS > -RADIUS / 2;
  const y = above ? pointer.y - off * 0.7 : pointer.y + off * 0.7;
  const most = window.height - RADIUS - PILLS;
  return { x: pointer.x + side * off, y: Math.max(RADIUS + PILLS, Math.min(most, y)) };
}
