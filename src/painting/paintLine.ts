import type { Cubic, Line } from '@/core';
import { traceCubics, traceLine } from '@/core/drawing/trace';
import { bodyOf } from '@/core/ink/body';
import { inverseOf, type Matrix } from '@/core/geometry/matrix';
import { beforeMap, ovalMap, type GradientInk, type Ink } from '@/core/scene/ink';
import { isFill } from '@/core/scene/halves';
import type { LineNode, Part } from '@/core/scene/scene';
import { distance } from '@/core/geometry/point';

const paths = new WeakMap<Line['runs'], Path2D>();

/** The outline of a line as a path in page units, made once for each shape. */
export function pathOf(line: Pick<Line, 'runs'>): Path2D {
  let path = paths.get(line.runs);
  if (!path) {
    path = new Path2D();
    traceLine(path, line);
    paths.set(line.runs, path);
  }
  return path;
}

type Body = { marks: Line['marks']; style: Line['style']; path: Path2D };
const bodies = new WeakMap<Line['runs'], Body>();

/** What of a style changes a stroke's body. */
const isSameStroke = (a: Line['style'], b: Line['style']): boolean =>
  a === b || JSON.stringify({ ...a, stroke: '', fill: '' }) === JSON.stringify({ ...b, stroke: '', fill: '' });

/** The body of a line with a living width, made once for each shape, set of marks and style. */
export function bodyPath(line: Line): Path2D {
  let known = bodies.get(line.runs);
  if (!known || known.marks !== line.marks || !isSameStroke(known.style, line.style)) {
    known = { marks: line.marks, style: line.style, path: pathOfOutlines(bodyOf(line)) };
    bodies.set(line.runs, known);
  }
  return known.path;
}

function pathOfOutlines(outlines: readonly (readonly Cubic[])[]): Path2D {
  const path = new Path2D();
  for (const cubics of outlines) traceCubics(path, cubics, true);
  return path;
}

export type Context = CanvasRenderingContext2D | OffscreenCanvasRenderingContext2D;

/** How lines are seen: in their sheet's tag colour, with fills let through, or bare: a hair line each and no fill. */
export type Looks = { readonly draft: boolean; readonly seeThrough: boolean; readonly bare: boolean };
export const plainLooks: Looks = { draft: false, seeThrough: false, bare: false };

const SEEN_THROUGH = 0.35;

/** Paints a line; the context is in page units. Widths under half a device pixel are drawn as that. */
export function paintLine(
  ctx: Context,
  { line, parts, tag }: LineNode,
  scale: number,
  looks: Looks = plainLooks,
): void {
  if (looks.bare) return paintBare(ctx, line, parts, scale, looks.draft ? tag : null);
  for (const part of parts) {
    const ink = looks.draft && !isFill(part) ? tag : part.ink;
    const alpha = ctx.globalAlpha;
    if (isFill(part) && looks.seeThrough) ctx.globalAlpha = alpha * SEEN_THROUGH;
    paintPart(ctx, line, part, ink, scale);
    ctx.globalAlpha = alpha;
  }
}

function paintBare(ctx: Context, line: Line, parts: readonly Part[], scale: number, tag: string | null): void {
  const own = parts.find((p) => p.kind === 'stroke' || p.within === 'body') ?? parts[0];
  ctx.strokeStyle = tag ?? (own ? styleOf(ctx, own.ink) : BARE);
  ctx.lineWidth = 1 / scale;
  ctx.lineJoin = 'round';
  ctx.stroke(pathOf(line));
}

/** A hair line that has no colour of its own, for nothing of it is painted. */
const BARE = '#27241d';

function paintPart(ctx: Context, line: Line, part: Part, ink: Ink, scale: number): void {
  const oval = typeof ink === 'string' ? null : ovalMap(ink);
  if (oval) return paintOval(ctx, line, part, ink as GradientInk, oval);
  if (part.kind === 'area') {
    ctx.fillStyle = styleOf(ctx, ink);
    ctx.fill(part.within === 'line' ? pathOf(line) : bodyPath(line), part.evenOdd ? 'evenodd' : 'nonzero');
    return;
  }
  ctx.strokeStyle = styleOf(ctx, ink);
  ctx.lineWidth = Math.max(part.width, 0.5 / scale);
  ctx.lineCap = part.cap;
  ctx.lineJoin = part.join;
  ctx.miterLimit = part.miterLimit ?? 4;
  if (part.dash) {
    ctx.setLineDash([...part.dash.lengths]);
    ctx.lineDashOffset = part.dash.offset;
  }
  ctx.stroke(pathOf(line));
  if (part.dash) ctx.setLineDash([]);
}

/** A canvas has round rings only: what is painted is mapped so that they are, and the page back. A stroke is its body then. */
function paintOval(ctx: Context, line: Line, part: Part, ink: GradientInk, map: Matrix): void {
  const isBody = part.kind === 'stroke' || part.within === 'body';
  const path = new Path2D();
  path.addPath(isBody ? bodyPath(line) : pathOf(line), inverseOf(map));
  ctx.save();
  ctx.transform(map.a, map.b, map.c, map.d, map.e, map.f);
  ctx.fillStyle = gradient(ctx, beforeMap(ink, map));
  ctx.fill(path, part.kind === 'area' && part.evenOdd ? 'evenodd' : 'nonzero');
  ctx.restore();
}

const styleOf = (ctx: Context, ink: Ink): string | CanvasGradient =>
  typeof ink === 'string' ? ink : gradient(ctx, ink);

function gradient(ctx: Context, { kind, from, to, focus = from, stops }: GradientInk): CanvasGradient {
  const made =
    kind === 'linear'
      ? ctx.createLinearGradient(from.x, from.y, to.x, to.y)
      : ctx.createRadialGradient(focus.x, focus.y, 0, from.x, from.y, distance(from, to));
  for (const { at, colour } of stops) made.addColorStop(at, colour);
  return made;
}

/** Marks a line that is chosen: a thin line in its sheet's tag colour along its middle. */
export function paintMark(ctx: Context, line: Line, scale: number, tag: string): void {
  const path = pathOf(line);
  ctx.lineJoin = 'round';
  ctx.strokeStyle = tag;
  ctx.lineWidth = 1.8 / scale;
  ctx.stroke(path);
}
