import { outlineBox } from '@/core/drawing/outline';
import { toneDistances } from '@/core/edits/toneDistance';
import { seenFlats } from '@/core/edits/flats';
import { boxesMeet } from '@/core/geometry/box';
import { findItem } from '@/core/drawing/find';
import { paintArea } from './areaMarks';
import { pathOf } from '@/painting/paintLine';
import { tonesBeneath } from '../state/beneath';
import { preferences } from '../state/preferences';
import { shownDrawing, type BenchState } from '../state/store';
import { toPage, toScreen } from '../state/view';

/** What is nearer than this is left bare. */
const LEAST = 0.02;
/** At this distance hatching is as close as it gets. */
const FAR = 0.25;
const SPACING = { close: 4, wide: 14 };
const [LIGHT, DARK] = ['#a8461f', '#20304f'];
/** More are not hatched at once: the worst are. */
const MOST = 300;
/** Smaller flats, px of the screen, get no figure. */
const ROOM = 26;

/**
 * How far the flats' tones are from the picture's: hatched the closer the further, falling where they are too dark, rising
 * where too light, with the figure; and the rim of the flat that is pointed at beside the page. The context is in CSS px.
 */
export function paintToneDistances(ctx: CanvasRenderingContext2D, s: BenchState): void {
  if (s.stage !== 'colour' || s.lifted) return;
  const drawing = shownDrawing(s);
  const { view } = s;
  const { found, pointed } = tonesBeneath.getState();
  const one = pointed === null ? undefined : findItem(drawing, pointed)?.item;
  if (one?.kind === 'flat') paintArea(ctx, view, one.runs, null, false);
  if (!preferences.getState().toneWash) return;
  const [from, to] = [toPage(view, { x: 0, y: 0 }), toPage(view, { x: s.window.width, y: s.window.height })];
  const seen = { minX: from.x, minY: from.y, maxX: to.x, maxY: to.y };
  const near = seenFlats(drawing).filter((f) => boxesMeet(outlineBox(f), seen));
  const far = toneDistances(drawing, near, found).filter((t) => Math.abs(t.distance) >= LEAST);
  for (const { flat, distance } of far.slice(0, MOST)) {
    const share = Math.min(1, Math.abs(distance) / FAR);
    const colour = distance > 0 ? LIGHT : DARK;
    ctx.save();
    ctx.translate(view.x, view.y);
    ctx.scale(view.scale, view.scale);
    ctx.clip(pathOf(flat), 'evenodd');
    ctx.setTransform(new DOMMatrix([window.devicePixelRatio, 0, 0, window.devicePixelRatio, 0, 0]));
    const points = flat.runs.flatMap((r) => r.nodes.map((n) => toScreen(view, n.point)));
    const [xs, ys] = [points.map((p) => p.x), points.map((p) => p.y)];
    const [left, right] = [Math.max(0, Math.min(...xs) - 40), Math.min(s.window.width, Math.max(...xs) + 40)];
    const [top, bottom] = [Math.max(0, Math.min(...ys) - 40), Math.min(s.window.height, Math.max(...ys) + 40)];
    ctx.beginPath();
    const step = SPACING.wide + (SPACING.close - SPACING.wide) * share;
    const tall = bottom - top;
    for (let x = left - tall; x < right + tall; x += step * Math.SQRT2) {
      ctx.moveTo(x, distance > 0 ? bottom : top);
      ctx.lineTo(x + tall, distance > 0 ? top : bottom);
    }
    ctx.lineWidth = 1;
    ctx.strokeStyle = colour;
    ctx.stroke();
    ctx.restore();
    if (Math.min(right - left, tall) - 80 < ROOM) continue;
    const at = toScreen(view, flat.at);
    ctx.save();
    ctx.font = '600 11px Figtree Variable, sans-serif';
    ctx.textAlign = 'center';
    ctx.textBaseline = 'middle';
    ctx.lineWidth = 4;
    ctx.lineJoin = 'round';
    ctx.strokeStyle = '#fffefb';
    const text = `${distance > 0 ? '+' : '−'}${Math.abs(distance).toFixed(2)}`;
    ctx.strokeText(text, at.x, at.y);
    ctx.fillStyle = colour;
    ctx.fillText(text, at.x, at.y);
    ctx.restore();
  }
}
