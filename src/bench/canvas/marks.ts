import type { Cubic, Line, Node, Point, Run } from '@/core';
import { neighbours } from '@/core/drawing/node';
import { pathOf } from '@/painting/paintLine';
import { toScreen, type View } from '../state/view';

/** The marks over the page: our own signs for nodes and handles. All sizes are CSS px. */

const INK = '#27241d';
const PAPER = '#ffffff';
const QUILL = '#f4c20d';
const FULL_TURN = Math.PI * 2;

/** The inside of a closed line in a colour. */
export function paintInside(ctx: CanvasRenderingContext2D, view: View, line: Pick<Line, 'runs'>, colour: string): void {
  ctx.save();
  ctx.translate(view.x, view.y);
  ctx.scale(view.scale, view.scale);
  ctx.globalAlpha = 0.85;
  ctx.fillStyle = colour;
  ctx.fill(pathOf(line), 'evenodd');
  ctx.restore();
}

/** A line's skeleton: a hair line in its sheet's tag colour. */
export function paintSkeleton(
  ctx: CanvasRenderingContext2D,
  view: View,
  line: Pick<Line, 'runs'>,
  tag: string,
  width = 1.3,
): void {
  ctx.save();
  ctx.translate(view.x, view.y);
  ctx.scale(view.scale, view.scale);
  ctx.lineJoin = 'round';
  ctx.lineWidth = width / view.scale;
  ctx.strokeStyle = tag;
  ctx.stroke(pathOf(line));
  ctx.restore();
}

/** One segment of a line, so that it stands out from the others. */
export function paintSegment(ctx: CanvasRenderingContext2D, view: View, cubic: Cubic, tag: string): void {
  const [a, b, c, d] = cubic.map((p) => toScreen(view, p));
  ctx.save();
  ctx.lineCap = 'round';
  ctx.beginPath();
  ctx.moveTo(a.x, a.y);
  ctx.bezierCurveTo(b.x, b.y, c.x, c.y, d.x, d.y);
  strokeHaloed(ctx, 3, tag);
  ctx.restore();
}

/** Adds places of the screen to the path at hand, by straight lines. */
export function pathThrough(ctx: CanvasRenderingContext2D, places: readonly Point[]): void {
  places.forEach((p, i) => (i === 0 ? ctx.moveTo(p.x, p.y) : ctx.lineTo(p.x, p.y)));
}

/** Strokes the path at hand with a rim of paper, so that it is seen on anything. */
export function strokeHaloed(ctx: CanvasRenderingContext2D, width: number, colour = INK): void {
  ctx.lineWidth = width + 2;
  ctx.strokeStyle = PAPER;
  ctx.stroke();
  ctx.lineWidth = width;
  ctx.strokeStyle = colour;
  ctx.stroke();
}

/** All nodes of a line, as signs for reading only. */
export function paintNodes(ctx: CanvasRenderingContext2D, view: View, line: Pick<Line, 'runs'>, tag: string): void {
  line.runs.forEach((run) => run.nodes.forEach((_, i) => paintNode(ctx, view, run, i, tag, false)));
}

const angleOf = (p: Point): number => Math.atan2(p.y, p.x);
const isLong = (p: Point | null | undefined): p is Point => !!p && Math.hypot(p.x, p.y) > 1e-9;

/** The directions in which a run leaves a node, back and ahead, as angles; null where it ends. */
export function directionsAt(run: Run, index: number): [number | null, number | null] {
  const node = run.nodes[index];
  const [before, after] = neighbours(run, index);
  const towards = (handle: Point | null, other: Node | undefined, far: 'in' | 'out'): number | null => {
    if (!other) return null;
    if (isLong(handle)) return angleOf(handle);
    const control = other[far];
    const aim = {
      x: other.point.x + (control?.x ?? 0) - node.point.x,
      y: other.point.y + (control?.y ?? 0) - node.point.y,
    };
    return isLong(aim) ? angleOf(aim) : null;
  };
  return [towards(node.in, before, 'out'), towards(node.out, after, 'in')];
}

/** A node's sign: which kind it is, how the line runs through it, whether it is chosen. */
export function paintNode(
  ctx: CanvasRenderingContext2D,
  view: View,
  run: Run,
  index: number,
  tag: string,
  chosen: boolean,
): void {
  const node = run.nodes[index];
  const at = toScreen(view, node.point);
  const [back, ahead] = directionsAt(run, index);
  ctx.save();
  ctx.translate(at.x, at.y);
  ctx.lineWidth = 1.6;
  ctx.strokeStyle = tag;
  ctx.fillStyle = chosen ? tag : PAPER;
  ctx.lineJoin = 'round';
  if (node.kind === 'corner') paintWedge(ctx, back, ahead, chosen);
  else if (node.kind === 'flowing') paintRing(ctx, chosen);
  else paintCapsule(ctx, ahead ?? (back ?? 0) + Math.PI, node.kind === 'even', chosen);
  ctx.restore();
}

/** A wedge whose sides follow the two directions; a small triangle that points along the line at an end. */
function paintWedge(ctx: CanvasRenderingContext2D, back: number | null, ahead: number | null, chosen: boolean): void {
  const size = chosen ? 10 : 8.5;
  let [a, b] = [back ?? (ahead ?? 0) + 0.45, ahead ?? (back ?? 0) + 0.45];
  if (back === null && ahead !== null) [a, b] = [ahead - 0.45, ahead + 0.45];
  if (ahead === null && back !== null) [a, b] = [back - 0.45, back + 0.45];
  let opening = ((b - a + 3 * Math.PI) % FULL_TURN) - Math.PI;
  // Sides that run the same way, or straight on, would leave nothing to see.
  if (Math.abs(opening) < 0.5) opening = 0.5 * (opening < 0 ? -1 : 1);
  if (Math.abs(opening) > 2.5) opening = 2.5 * Math.sign(opening);
  const middle = a + (((b - a + 3 * Math.PI) % FULL_TURN) - Math.PI) / 2;
  ctx.beginPath();
  ctx.moveTo(0, 0);
  ctx.lineTo(size * Math.cos(middle - opening / 2), size * Math.sin(middle - opening / 2));
  ctx.lineTo(size * Math.cos(middle + opening / 2), size * Math.sin(middle + opening / 2));
  ctx.closePath();
  ctx.fill();
  ctx.stroke();
}

function paintCapsule(ctx: CanvasRenderingContext2D, angle: number, even: boolean, chosen: boolean): void {
  const [half, thick] = chosen ? [8, 4] : [7, 3];
  ctx.rotate(angle);
  ctx.beginPath();
  ctx.roundRect(-half, -thick, half * 2, thick * 2, thick);
  ctx.fill();
  ctx.stroke();
  if (!even) return;
  ctx.beginPath();
  ctx.moveTo(0, -thick - 3);
  ctx.lineTo(0, thick + 3);
  ctx.strokeStyle = chosen ? INK : ctx.strokeStyle;
  ctx.stroke();
}

function paintRing(ctx: CanvasRenderingContext2D, chosen: boolean): void {
  ctx.beginPath();
  ctx.arc(0, 0, chosen ? 6 : 5, 0, FULL_TURN);
  ctx.fill();
  ctx.setLineDash([3, 2]);
  ctx.strokeStyle = chosen ? INK : ctx.strokeStyle;
  ctx.stroke();
}

/** A node's handles: hair stems, each with a yellow bead. */
export function paintHandles(ctx: CanvasRenderingContext2D, view: View, node: Node): void {
  const at = toScreen(view, node.point);
  for (const handle of [node.in, node.out]) {
    if (!isLong(handle)) continue;
    const bead = { x: at.x + handle.x * view.scale, y: at.y + handle.y * view.scale };
    ctx.lineWidth = 1;
    ctx.strokeStyle = INK;
    ctx.beginPath();
    ctx.moveTo(at.x, at.y);
    ctx.lineTo(bead.x, bead.y);
    ctx.stroke();
    paintBead(ctx, bead);
  }
}

export function paintBead(ctx: CanvasRenderingContext2D, at: Point): void {
  ctx.beginPath();
  ctx.arc(at.x, at.y, 4.5, 0, FULL_TURN);
  ctx.fillStyle = QUILL;
  ctx.fill();
  ctx.lineWidth = 1.2;
  ctx.strokeStyle = INK;
  ctx.stroke();
}

/** The box that a marquee spans. */
export function paintMarquee(ctx: CanvasRenderingContext2D, a: Point, b: Point): void {
  ctx.save();
  ctx.fillStyle = 'rgba(244,194,13,0.12)';
  ctx.strokeStyle = INK;
  ctx.lineWidth = 1;
  ctx.setLineDash([5, 4]);
  const box: [number, number, number, number] = [
    Math.min(a.x, b.x),
    Math.min(a.y, b.y),
    Math.abs(a.x - b.x),
    Math.abs(a.y - b.y),
  ];
  ctx.fillRect(...box);
  ctx.strokeRect(...box);
  ctx.restore();
}

/** The figure that a lasso has drawn so far, in page units. */
export function paintLasso(ctx: CanvasRenderingContext2D, view: View, lasso: readonly Point[]): void {
  if (lasso.length < 2) return;
  ctx.save();
  ctx.beginPath();
  pathThrough(
    ctx,
    lasso.map((p) => toScreen(view, p)),
  );
  ctx.closePath();
  ctx.fillStyle = 'rgba(244,194,13,0.16)';
  ctx.fill();
  ctx.setLineDash([5, 4]);
  ctx.strokeStyle = INK;
  ctx.lineWidth = 1;
  ctx.stroke();
  ctx.restore();
}

/** What a node would be drawn to: a ring about the place, and a short word beside it. */
export function paintSnapMark(ctx: CanvasRenderingContext2D, at: Point, word: string): void {
  ctx.save();
  ctx.beginPath();
  ctx.arc(at.x, at.y, 9, 0, FULL_TURN);
  ctx.moveTo(at.x - 13, at.y);
  ctx.lineTo(at.x - 9, at.y);
  ctx.moveTo(at.x + 9, at.y);
  ctx.lineTo(at.x + 13, at.y);
  strokeHaloed(ctx, 1.8);
  ctx.restore();
  paintNote(ctx, { x: at.x + 16, y: at.y - 12 }, word);
}

/** A few words on a slip of paper, its left end at a place. */
export function paintNote(ctx: CanvasRenderingContext2D, at: Point, words: string): void {
  ctx.save();
  ctx.font = '12px "Figtree Variable", sans-serif';
  ctx.textBaseline = 'middle';
  const width = ctx.measureText(words).width;
  ctx.fillStyle = 'rgba(255,254,251,0.92)';
  ctx.strokeStyle = 'rgba(39,36,29,0.35)';
  ctx.lineWidth = 1;
  ctx.beginPath();
  ctx.roundRect(at.x - 5, at.y - 10, width + 10, 20, 4);
  ctx.fill();
  ctx.stroke();
  ctx.fillStyle = INK;
  ctx.fillText(words, at.x, at.y + 0.5);
  ctx.restore();
}

/** The grip that rounds a corner: a quarter arc in a ring. */
export function paintRounding(ctx: CanvasRenderingContext2D, at: Point): void {
  ctx.save();
  ctx.beginPath();
  ctx.arc(at.x, at.y, 6, 0, FULL_TURN);
  ctx.fillStyle = PAPER;
  ctx.fill();
  ctx.lineWidth = 1.2;
  ctx.strokeStyle = INK;
  ctx.stroke();
  ctx.beginPath();
  ctx.arc(at.x + 2.5, at.y + 2.5, 5, Math.PI, 1.5 * Math.PI);
  ctx.strokeStyle = QUILL;
  ctx.lineWidth = 2;
  ctx.stroke();
  ctx.restore();
}
