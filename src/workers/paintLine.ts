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

/** Paints a line with its style; the context is in page units. Widths under half a device pixel are drawn as that. */
export function paintLine(ctx: Context, line: Line, scale: number): void {
  const path = pathOf(line);
  const { style } = line;
  if (style.fill) {
    ctx.fillStyle = style.fill;
    ctx.fill(path);
  }
  const body = bodyPath(line);
  if (body) {
    ctx.fillStyle = style.colour;
    ctx.fill(body);
    return;
  }
  if (style.width <= 0) return;
  ctx.strokeStyle = style.colour;
  ctx.lineWidth = Math.max(style.width, 0.5 / scale);
  ctx.lineCap = style.cap;
  ctx.lineJoin = style.join;
  ctx.miterLimit = 4;
  ctx.stroke(path);
}
