import { linesOf } from '@/core/drawing/items';
import { mixed } from '@/core/colour/colour';
import type { Drawing, Line } from '@/core';
import type { LineDistance } from '@/core/check/lineDistance';
import { findLine } from '@/core/drawing/find';
import { formatNumber } from '@/ui/format';
import type { Checked } from '../state/checked';
import { shownDrawing, type BenchState } from '../state/store';
import { toScreen, type View } from '../state/view';
import { paintNote, strokeHaloed } from './marks';

/** What the checks found, over the page. */

const AMBER = '#c8860a';
const BRICK = '#a5361c';
const INVENTED = 'rgba(39,36,29,0.55)';
/** From so many px on the colour of a distance changes: amber, brick, and what lies between. */
const LIMITS = [0.75, 1.5, 2.5, 4];
/** Lines are all coloured up to so many; of more only the chosen ones. */
const MOST_LINES = 400;
const MOST_RINGS = 12;
const MOST_FIGURES = 3;
const scales = new Map<string, string[]>();

/** The colours of a line from near to far, from its sheet's tag through amber to brick. */
function scaleOf(tag: string): string[] {
  let scale = scales.get(tag);
  if (!scale) {
    const between = (a: string, b: string): string => mixed(a, b);
    scales.set(tag, (scale = [tag, between(tag, AMBER), AMBER, between(AMBER, BRICK), BRICK]));
  }
  return scale;
}

export const bucketOf = (distance: number): number => LIMITS.filter((l) => distance > l).length;

const paths = new WeakMap<LineDistance, { gap: number; parts: (Path2D | null)[] }>();
/** Places nearer to each other than so many CSS px are one. */
const GAP = 3;

/** A line's parts by how far they lie from the ink, in page units; the last is what has none. */
function pathsOf(l: LineDistance, scale: number): (Path2D | null)[] {
  // The same for a range of scales, so that they are not made anew all through a zoom.
  const gap = GAP / 2 ** Math.ceil(Math.log2(scale));
  const known = paths.get(l);
  if (known?.gap === gap) return known.parts;
  const parts = new Array<Path2D | null>(LIMITS.length + 2).fill(null);
  let first = 0;
  for (const count of l.counts) {
    const end = 4 * (first + count - 1);
    let [bucket, from] = [-1, 4 * first];
    for (let b = from + 4; b <= end; b += 4) {
      const d = Math.max(l.places[b - 1], l.places[b + 3]);
      const next = Number.isNaN(d) ? LIMITS.length + 1 : bucketOf(d);
      if (next !== bucket) {
        // What went before ends here.
        if (bucket >= 0 && from < b - 4) parts[bucket]!.lineTo(l.places[b - 4], l.places[b - 3]);
        (parts[next] ??= new Path2D()).moveTo(l.places[b - 4], l.places[b - 3]);
        [bucket, from] = [next, b - 4];
      }
      if (b < end && l.places[b + 2] - l.places[from + 2] < gap) continue;
      parts[bucket]!.lineTo(l.places[b], l.places[b + 1]);
      from = b;
    }
    first += count;
  }
  paths.set(l, { gap, parts });
  return parts;
}

/** The lines whose distance is shown, with their sheets' tags: what is seen, and of very many what is chosen. */
export function colouredLines(s: BenchState, checked: Checked): { line: LineDistance; tag: string }[] {
  const sheets = shownDrawing(s).sheets.filter((x) => x.visible && (s.solo === null || s.solo === x.id));
  const isMany = sheets.reduce((n, x) => n + linesOf(x).length, 0) > MOST_LINES;
  return sheets.flatMap((sheet) =>
    linesOf(sheet).flatMap(({ id }) => {
      const line = isMany && !s.lines.has(id) ? undefined : checked.distances.get(id);
      return line ? [{ line, tag: sheet.tag }] : [];
    }),
  );
}

/** Lines coloured by their distance from the ink; what has none beneath is dotted. The context is in CSS px. */
export function paintDistances(
  ctx: CanvasRenderingContext2D,
  view: View,
  list: readonly { line: LineDistance; tag: string }[],
): void {
  ctx.save();
  ctx.translate(view.x, view.y);
  ctx.scale(view.scale, view.scale);
  ctx.lineCap = 'butt';
  // Places lie so close that their joins are not seen, and round ones take most of the time.
  ctx.lineJoin = 'miter';
  ctx.miterLimit = 2;
  for (const { line, tag } of list) {
    pathsOf(line, view.scale).forEach((path, bucket) => {
      if (!path) return;
      const isInvented = bucket === LIMITS.length + 1;
      ctx.setLineDash(isInvented ? [2 / view.scale, 4 / view.scale] : []);
      ctx.lineWidth = (isInvented ? 2 : bucket === 0 ? 1.6 : 3.2) / view.scale;
      ctx.strokeStyle = isInvented ? INVENTED : scaleOf(tag)[bucket];
      ctx.stroke(path);
    });
  }
  ctx.restore();
}

/** The worst places of the chosen lines, with their figures; where none is chosen, the worst of all. */
export function paintWorstPlaces(
  ctx: CanvasRenderingContext2D,
  view: View,
  list: readonly { line: LineDistance }[],
  chosen: ReadonlySet<string>,
  quiet: boolean,
): void {
  const lines = list.map((l) => l.line);
  const marked = chosen.size > 0 ? lines.filter((l) => chosen.has(l.id)) : worstOf(lines);
  // Of many the rings are enough: their figures would hide what they are about, as they would a note that is visited.
  const told = !quiet && marked.length <= MOST_FIGURES;
  for (const l of marked.slice(0, MOST_RINGS)) paintWorst(ctx, view, l, told);
}

const worstOf = (list: readonly LineDistance[]): LineDistance[] =>
  list.length === 0 ? [] : [list.reduce((a, b) => (b.max > a.max ? b : a))];

function paintWorst(ctx: CanvasRenderingContext2D, view: View, l: LineDistance, told: boolean): void {
  if (!l.worst || l.inked === 0 || l.max < 0.5) return;
  const at = toScreen(view, l.worst);
  ctx.save();
  ctx.beginPath();
  ctx.arc(at.x, at.y, 8, 0, 2 * Math.PI);
  strokeHaloed(ctx, 1.8, bucketOf(l.max) >= 3 ? BRICK : bucketOf(l.max) >= 1 ? AMBER : undefined);
  ctx.restore();
  if (told) paintNote(ctx, { x: at.x + 14, y: at.y - 14 }, `${formatNumber(l.max, 1)} px`);
}

/** The place that the plot points at. */
export function paintPointed(ctx: CanvasRenderingContext2D, view: View, at: { x: number; y: number }): void {
  const p = toScreen(view, at);
  ctx.save();
  ctx.beginPath();
  ctx.arc(p.x, p.y, 6, 0, 2 * Math.PI);
  ctx.fillStyle = '#f4c20d';
  ctx.fill();
  ctx.lineWidth = 1.5;
  ctx.strokeStyle = '#27241d';
  ctx.stroke();
  ctx.restore();
}

/** A wash over the ink that no line has yet. The context is in CSS px. */
export function paintWash(ctx: CanvasRenderingContext2D, view: View, drawing: Drawing, checked: Checked): void {
  for (const { reference, wash } of checked.uncovered) {
    const r = drawing.references.find((x) => x.id === reference);
    if (!r || !wash) continue;
    const at = toScreen(view, r.at);
    const [w, h] = [r.width * view.scale, r.height * view.scale];
    ctx.save();
    ctx.translate(at.x + w / 2, at.y + h / 2);
    ctx.rotate((r.turn * Math.PI) / 180);
    ctx.scale(r.flipX ? -1 : 1, r.flipY ? -1 : 1);
    ctx.drawImage(wash, -w / 2, -h / 2, w, h);
    ctx.restore();
  }
}

/** The lines that the views of bend and flow are for: those chosen, within reason. */
export const viewedLines = (drawing: Drawing, chosen: ReadonlySet<string>): { line: Line; tag: string }[] =>
  [...chosen].slice(0, 40).flatMap((id) => {
    const found = findLine(drawing, id);
    return found ? [{ line: found.line, tag: found.sheet.tag }] : [];
  });
