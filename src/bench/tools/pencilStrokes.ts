import type { Cubic, Point, Style } from '@/core';
import type { Mark } from '@/core/drawing/schema';
import type { RunPlace } from '@/core/drawing/walk';
import { nearestOnLine } from '@/core/drawing/run';
import { distance } from '@/core/geometry/point';
import { preferences } from '../state/preferences';
import { marksFromPressure, type Pressed } from '@/core/ink/pressure';
import { paintWet, strokeAlong } from '../canvas/wetInk';
import type { View } from '../state/view';
import type { Touched } from './penTarget';
import { GRIP, type Passed } from './tool';

/** A place on the chosen line, where a stroke that redraws it begins or ends. */
export type OnChosen = RunPlace & { line: string; run: number; point: Point };

/** A stroke under the hand, or on its way through the worker. */
export type Stroke = {
  readonly id: string;
  readonly passed: Passed[];
  /** Its pressure is kept as its width. */
  readonly pressed: boolean;
  readonly unit: number;
  readonly style: Style;
  readonly colour: string;
  readonly sheet: string;
  /** What its start is drawn to. */
  readonly start: Touched | null;
  readonly from: OnChosen | null;
  /** Redrawing was asked for with this very stroke, not by a switch that was set once. */
  readonly asked: boolean;
  ahead: readonly Point[];
};

/** A stroke that gains less distance from a line than this share of its way runs beside it (the sine of 24°). */
const BESIDE = 0.4;

/**
 * The place that one end of a stroke is drawn to; null where the stroke runs beside the line that is there, as strokes of
 * a hatching do. `places` lead away from that end; `unit` is what makes one CSS px.
 */
export function drawnTo(touched: Touched | null, places: Iterable<Point>, unit: number): Point | null {
  if (!touched) return null;
  let [first, next]: (Point | null)[] = [null, null];
  for (const p of places) {
    first ??= p;
    next = p;
    if (distance(first, p) > 4 * GRIP * unit) break;
  }
  if (!first || !next) return touched.at;
  const [before, after] = [first, next].map((p) => nearestOnLine(touched.line, p)!.distance);
  return after - before < BESIDE * distance(first, next) && before > 0.5 * unit ? null : touched.at;
}

/** The places of a stroke from its last to its first. */
export function* backAlong({ passed }: Stroke): Generator<Point> {
  for (let i = passed.length - 1; i >= 0; i--) yield passed[i].page;
}

/** Cubics whose first and last places are given ones (null leaves them); a fit smooths its ends as well. */
export function endsAt(cubics: Cubic[], start: Point | null, end: Point | null): Cubic[] {
  const moved = cubics.map((c): Cubic => [...c]);
  if (start) moved[0][0] = start;
  if (end) moved.at(-1)![3] = end;
  return moved;
}

/** How hard a pen was pressed along a stroke; nothing for a hand without pressure, or with that switched off. */
export function pressedAlong(g: Stroke): Pressed[] {
  if (!g.pressed) return [];
  let travelled = 0;
  return g.passed.map((p, i) => {
    if (i > 0) travelled += distance(p.page, g.passed[i - 1].page);
    return { travelled, pressure: p.pressure };
  });
}

/** The width marks that such a stroke gets, by the response that is set. */
export const marksByPressure = (pressed: readonly Pressed[], width: number, closed: boolean): Mark[] =>
  marksFromPressure(pressed, width, preferences.getState().response, closed);

/**
 * The ink as it was drawn, and thinner where the hand is about to be. The context is in CSS px; in another view than the
 * page's own (under a loupe) the stroke is drawn as a whole.
 */
export function paintStroke(ctx: CanvasRenderingContext2D, view: View, g: Stroke, isPage: boolean): void {
  if (isPage) paintWet(ctx, view, g);
  if (isPage && g.ahead.length === 0) return;
  ctx.save();
  ctx.translate(view.x, view.y);
  ctx.scale(view.scale, view.scale);
  if (!isPage) strokeAlong(ctx, view, g);
  if (g.ahead.length > 0) {
    ctx.globalAlpha = 0.5;
    strokeAlong(ctx, view, { ...g, passed: [g.passed.at(-1)!, ...g.ahead.map((page) => ({ page }))] });
  }
  ctx.restore();
}
