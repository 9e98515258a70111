import type { Cubic, Line } from '@/core';
import { pathData } from '@/core/formats/pathData';
import { bodyOf, isPlainStroke } from '@/core/ink/body';

const paths = new WeakMap<Line['runs'], Path2D>();

/** The outline of a line as a path in page units, made once for each shape. */
export function pathOf(line: Pick<Line, 'runs'>): Path2D {
  let path = paths.get(line.runs);
  if (!path) {
    path = new Path2D(pathData(line, 4));
    paths.set(line.runs, path);
  }
  return path;
}

type Body = { marks: Line['marks']; style: Line['style']; path: Path2D };
const bodies = new WeakMap<Line['runs'], Body>();

/** What of a style changes a stroke's body. */
const isSameStroke = (a: Line['style'], b: Line['style']): boolean =>
  a === b || JSON.stringify({ ...a, colour: '', fill: '' }) === JSON.stringify({ ...b, colour: '', fill: '' });

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
  for (const cubics of outlines) {
    path.moveTo(cubics[0][0].x, cubics[0][0].y);
    for (const [, b, c, d] of cubics) path.bezierCurveTo(b.x, b.y, c.x, c.y, d.x, d.y);
    path.closePath();
  }
  return path;
}

type Context = CanvasRenderingContext2D | OffscreenCanvasRenderingContext2D;

/** How lines are seen: in their sheet's tag colour, with fills let through, or bare: a hair line each and no fill. */
export type Looks = { readonly draft: boolean; readonly seeThrough: boolean; readonly bare: boolean };
export const plainLooks: Looks = { draft: false, seeThrough: false, bare: false };

const SEEN_THROUGH = 0.35;

/**
 * Paints a line with its style; the context is in page units. Widths under half a device pixel are drawn as that.
 * `tag` is the colour of its sheet.
 */
export function paintLine(ctx: Context, line: Line, scale: number, looks: Looks = plainLooks, tag?: string): void {
  const path = pathOf(line);
  const { style } = line;
  const colour = looks.draft && tag ? tag : style.colour;
  if (looks.bare) {
    ctx.strokeStyle = colour;
    ctx.lineWidth = 1 / scale;
    ctx.lineJoin = 'round';
    ctx.stroke(path);
    return;
  }
  const fill = (): void => {
    if (!style.fill) return;
    ctx.globalAlpha = looks.seeThrough ? SEEN_THROUGH : 1;
    ctx.fillStyle = style.fill;
    ctx.fill(path);
    ctx.globalAlpha = 1;
  };
  if (!style.strokeBelow) fill();
  paintStroke(ctx, line, path, colour, scale);
  if (style.strokeBelow) fill();
}

/** Marks a line that is chosen: a thin line in its sheet's tag colour along its middle. */
export function paintMark(ctx: Context, line: Line, scale: number, tag: string): void {
  const path = pathOf(line);
  ctx.lineJoin = 'round';
  ctx.strokeStyle = tag;
  ctx.lineWidth = 1.8 / scale;
  ctx.stroke(path);
}

function paintStroke(ctx: Context, line: Line, path: Path2D, colour: string, scale: number): void {
  const { style } = line;
  if (!isPlainStroke(line)) {
    ctx.fillStyle = colour;
    ctx.fill(bodyPath(line));
    return;
  }
  if (style.width <= 0) return;
  ctx.strokeStyle = colour;
  ctx.lineWidth = Math.max(style.width, 0.5 / scale);
  ctx.lineCap = style.cap;
  ctx.lineJoin = style.join;
  ctx.miterLimit = style.miterLimit ?? 4;
  if (style.dash) {
    ctx.setLineDash([...style.dash.lengths]);
    ctx.lineDashOffset = style.dash.offset;
  }
  ctx.stroke(path);
  if (style.dash) ctx.setLineDash([]);
}
