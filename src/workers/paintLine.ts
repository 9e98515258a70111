import type { Line } from '@/core';
import { pathData, ringData } from '@/core/formats/pathData';
import { bodyOf } from '@/core/ink/body';

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

const bodies = new WeakMap<Line['runs'], { marks: Line['marks']; path: Path2D | null }>();

/** The body of a line with width marks, made once for each shape and set of marks. */
function bodyPath(line: Line): Path2D | null {
  if (!line.marks?.length) return null;
  let known = bodies.get(line.runs);
  if (known?.marks !== line.marks) {
    const ring = bodyOf(line);
    known = { marks: line.marks, path: ring && new Path2D(ringData(ring, 4)) };
    bodies.set(line.runs, known);
  }
  return known!.path;
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
  if (style.fill) {
    ctx.globalAlpha = looks.seeThrough ? SEEN_THROUGH : 1;
    ctx.fillStyle = style.fill;
    ctx.fill(path);
    ctx.globalAlpha = 1;
  }
  const body = bodyPath(line);
  if (body) {
    ctx.fillStyle = colour;
    ctx.fill(body);
    return;
  }
  if (style.width <= 0) return;
  ctx.strokeStyle = colour;
  ctx.lineWidth = Math.max(style.width, 0.5 / scale);
  ctx.lineCap = style.cap;
  ctx.lineJoin = style.join;
  ctx.miterLimit = 4;
  ctx.stroke(path);
}
