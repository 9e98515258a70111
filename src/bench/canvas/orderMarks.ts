import type { Line } from '@/core';
import { penAt } from '@/core/replay/cut';
import { drawnLines, startOf, type Drawn } from '@/core/replay/order';
import type { Drawing } from '@/core';
import type { Point } from '@/core/geometry/point';
import { preferences } from '../state/preferences';
import type { BenchState } from '../state/store';
import type { View } from '../state/view';

/** Where lines begin, which way they go, and as the how many they are drawn. */

/** More would only cover each other. */
const MOST_ARROWS = 3_000;
const MOST_NUMBERS = 400;
const [ARROW, DOT, FONT] = [7, 3, '600 11px "Figtree Variable", sans-serif'];

type Way = { readonly start: Point; readonly middle: Point; readonly angle: number };
const ways = new WeakMap<Line['runs'], Way>();

function wayOf(line: Line): Way {
  let way = ways.get(line.runs);
  if (!way) {
    const [a, middle, b] = [penAt(line, 0.49), penAt(line, 0.5), penAt(line, 0.51)];
    ways.set(line.runs, (way = { start: startOf(line), middle, angle: Math.atan2(b.y - a.y, b.x - a.x) }));
  }
  return way;
}

let last: { drawing: Drawing; lines: readonly Drawn[] } | null = null;

/** The context is in px of the window. */
export function paintOrder(ctx: CanvasRenderingContext2D, s: BenchState): void {
  if (s.stage !== 'deliver' || s.replay || s.lifted || preferences.getState().deliverCards !== 'order') return;
  if (last?.drawing !== s.drawing) last = { drawing: s.drawing, lines: drawnLines(s.drawing) };
  const { lines } = last;
  if (lines.length > MOST_ARROWS) return;
  for (const [i, { line }] of lines.entries())
    paintWay(ctx, s.view, wayOf(line), lines.length > MOST_NUMBERS ? null : i + 1);
}

function paintWay(
  ctx: CanvasRenderingContext2D,
  view: View,
  { start, middle, angle }: Way,
  number: number | null,
): void {
  const at = (p: Point): Point => ({ x: p.x * view.scale + view.x, y: p.y * view.scale + view.y });
  const [m, b] = [at(middle), at(start)];
  ctx.save();
  ctx.lineWidth = 3;
  ctx.lineJoin = 'round';
  ctx.strokeStyle = '#fffefb';
  ctx.fillStyle = '#8a6a00';
  ctx.save();
  ctx.translate(m.x, m.y);
  ctx.rotate(angle);
  ctx.beginPath();
  ctx.moveTo(ARROW, 0);
  ctx.lineTo(-ARROW * 0.6, -ARROW * 0.65);
  ctx.lineTo(-ARROW * 0.25, 0);
  ctx.lineTo(-ARROW * 0.6, ARROW * 0.65);
  ctx.closePath();
  ctx.stroke();
  ctx.fill();
  ctx.restore();
  ctx.beginPath();
  ctx.arc(b.x, b.y, DOT, 0, 2 * Math.PI);
  ctx.stroke();
  ctx.fill();
  if (number !== null) {
    ctx.font = FONT;
    ctx.strokeText(String(number), b.x + 5, b.y - 4);
    ctx.fillText(String(number), b.x + 5, b.y - 4);
  }
  ctx.restore();
}
