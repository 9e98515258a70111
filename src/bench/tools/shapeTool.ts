import { nanoid } from 'nanoid';
import type { Box, Line, Point, Run } from '@/core';
import { addLine, reshapeLines } from '@/core/edits/lines';
import type { NodeRef } from '@/core/drawing/nodeRef';
import { arcMiddle, inwardAt, radiusAt, roundable, roundCorners } from '@/core/edits/round';
import { findLine, sheetOf } from '@/core/drawing/find';
import * as shapes from '@/core/drawing/shapes';
import { boxOfPoints, middleOfBox } from '@/core/geometry/box';
import { add, distance, scale, snapDirection, subtract, unit } from '@/core/geometry/point';
import { formatLength } from '@/ui/format';
import { paintNote, paintRounding, paintSkeleton } from '../canvas/marks';
import { sheetToDraw } from '../commands/sheetToDraw';
import { preferences, preferIn, type ShapeFigures } from '../state/preferences';
import { shownDrawing } from '../state/store';
import { toScreen, type View } from '../state/view';
import { LineTool } from './lineTool';
import { ruled } from './ruled';
import { CLICK, GRIP, gripFor, type HandEvent, type Hint, type PointerShape, type Tool } from './tool';

type Gesture =
  | { for: 'shape'; id: string; from: Point; pressed: HandEvent; last: HandEvent; sheet: string }
  | { for: 'rounding'; ref: NodeRef; refs: NodeRef[]; last: HandEvent };

/** A shape as it was drawn: as long as its line is that, the figures are its own. */
type Made = { id: string; runs: Line['runs']; box: Box; drawn: Drawn | null };
/** One drawn from its middle, and where its first corner points. */
type Drawn = { middle: Point; to: Point; step: boolean };

/** Roundings that are still sharp have their grip this far in, CSS px. */
const REST = 18;

/** Shapes: dragged from corner to corner, or with Alt from the middle; a click lays one of the figures in the tray. */
export class ShapeTool extends LineTool<Gesture> implements Tool {
  private made: Made | null = null;
  private stop: () => void = () => undefined;

  begin(): void {
    this.stop = preferences.subscribe(({ shape }, { shape: before }) => {
      if (shape !== before && shape.kind === before.kind) this.refigure(shape);
    });
  }

  override finish(): void {
    this.stop();
    this.made = null;
    super.finish();
  }

  /** Other figures are those of the shape just drawn, as long as it is what is chosen and nothing else was done to it. */
  private refigure(figures: ShapeFigures): void {
    const { drawing, lines, reading } = this.bench.getState();
    const made = this.made;
    const line = made && lines.size === 1 && lines.has(made.id) ? findLine(drawing, made.id)?.line : undefined;
    if (!made || line?.runs !== made.runs || reading) return;
    const { minX, minY } = made.box;
    const box = { minX, minY, maxX: minX + figures.width, maxY: minY + figures.height };
    const [first, second] = line.runs[0].nodes;
    const run =
      figures.kind === 'straight line'
        ? shapes.straight(first.point, towardsAt(first.point, second.point, figures.width))
        : shapeIn(box, figures, made.drawn && turnedTo(made.drawn, made.box, box));
    this.bench.commit(reshapeLines(drawing, new Map([[made.id, [run]]]), `Change ${figures.kind}`), [made.id]);
    this.remember(made.id, box, made.drawn && turnedTo(made.drawn, made.box, box));
  }

  private remember(id: string, box: Box, drawn: Drawn | null): void {
    const line = findLine(this.bench.getState().drawing, id)?.line;
    this.made = line ? { id, runs: line.runs, box, drawn } : null;
  }

  press(e: HandEvent): void {
    this.at = e;
    const grip = this.roundingUnder(e);
    if (grip) {
      const line = this.chosen().find((l) => l.id === grip.line)!;
      this.gesture = { for: 'rounding', ref: grip, refs: e.alt ? [grip] : roundable([line]), last: e };
      return;
    }
    const sheet = sheetToDraw(this.bench, this.bench.getState().sheet, 'no shape is drawn there');
    if (!sheet) return;
    this.gesture = { for: 'shape', id: nanoid(10), from: this.place(e), pressed: e, last: e, sheet: sheet.id };
  }

  private place = (e: HandEvent): Point => ruled(this.context, e);

  private chosen(): Line[] {
    const s = this.bench.getState();
    return s.lines.size > 20 ? [] : [...s.lines].flatMap((id) => findLine(shownDrawing(s), id)?.line ?? []);
  }

  /** The grips that round corners, inside each corner that can be rounded. */
  private grips(): { ref: NodeRef; at: Point }[] {
    const { view } = this.bench.getState();
    return this.chosen().flatMap((line) =>
      roundable([line]).flatMap((ref) => {
        const run = line.runs[ref.run];
        const radius = run.nodes[ref.node].radius ?? 0;
        const inward = inwardAt(run, ref.node);
        const middle = radius > 0 ? arcMiddle(run, ref.node, radius) : null;
        const at = middle ?? (inward && add(run.nodes[ref.node].point, scale(inward.direction, REST / view.scale)));
        return at ? [{ ref, at: toScreen(view, at) }] : [];
      }),
    );
  }

  private roundingUnder(e: HandEvent): NodeRef | null {
    const near = this.grips().filter((g) => distance(g.at, e.screen) <= gripFor(e, GRIP));
    near.sort((a, b) => distance(a.at, e.screen) - distance(b.at, e.screen));
    return near[0]?.ref ?? null;
  }

  move(e: HandEvent): void {
    this.at = e;
    if (!this.gesture) return;
    this.gesture.last = e;
    this.bench.show(this.edit(this.gesture));
    this.context.repaint();
  }

  release(e: HandEvent): void {
    const g = this.gesture;
    this.gesture = null;
    if (!g) return;
    g.last = e;
    const edit = this.edit(g);
    if (edit) this.bench.commit(edit);
    else this.bench.show(null);
    if (g.for === 'shape') {
      const found = findLine(this.bench.getState().drawing, g.id);
      this.made = null;
      if (found) {
        const box = this.boxOf(g);
        const { x: width, y: height } = sizeOf(box);
        const isStraight = preferences.getState().shape.kind === 'straight line';
        preferIn('shape', isStraight ? { width: Math.hypot(width, height) } : { width, height });
        this.bench.choose([g.id]);
        this.remember(g.id, box, this.drawnFromMiddle(g));
      } else this.bench.choose([g.id]);
    }
    this.context.repaint();
  }

  private edit(g: Gesture) {
    const { drawing } = this.bench.getState();
    if (g.for === 'rounding') {
      const run = findLine(drawing, g.ref.line)?.line.runs[g.ref.run];
      return run ? roundCorners(drawing, g.refs, radiusAt(run, g.ref.node, g.last.page)) : null;
    }
    const run = this.shape(g);
    if (!run) return null;
    const style = { ...sheetOf(drawing, g.sheet)!.style, fill: null };
    return addLine(drawing, g.sheet, { id: g.id, style, runs: [run] }, `Draw ${preferences.getState().shape.kind}`);
  }

  private isClick = (g: Extract<Gesture, { for: 'shape' }>): boolean =>
    distance(g.last.screen, g.pressed.screen) < CLICK;

  /** The box that a drag spans; a click, one of the figures' size. */
  private boxOf(g: Extract<Gesture, { for: 'shape' }>): Box {
    const { shape } = preferences.getState();
    const { from, last } = g;
    if (this.isClick(g)) {
      const corner = last.alt ? subtract(from, { x: shape.width / 2, y: shape.height / 2 }) : from;
      return boxOfPoints([corner, add(corner, { x: shape.width, y: shape.height })]);
    }
    let by = subtract(this.place(last), from);
    if (last.shift) {
      const side = Math.max(Math.abs(by.x), Math.abs(by.y));
      by = { x: side * (by.x < 0 ? -1 : 1), y: side * (by.y < 0 ? -1 : 1) };
    }
    return boxOfPoints(last.alt ? [subtract(from, by), add(from, by)] : [from, add(from, by)]);
  }

  private shape(g: Extract<Gesture, { for: 'shape' }>): Run | null {
    const figures = preferences.getState().shape;
    const { from, last } = g;
    if (figures.kind === 'straight line') {
      if (this.isClick(g)) return shapes.straight(from, add(from, { x: figures.width, y: 0 }));
      const to = last.shift ? add(from, snapDirection(subtract(last.page, from), 15)) : this.place(last);
      return shapes.straight(last.alt ? subtract(scale(from, 2), to) : from, to);
    }
    const box = this.boxOf(g);
    const { x: width, y: height } = sizeOf(box);
    if (width < 1e-6 || height < 1e-6) return null;
    return shapeIn(box, figures, this.drawnFromMiddle(g));
  }

  private drawnFromMiddle = (g: Extract<Gesture, { for: 'shape' }>): Drawn | null =>
    !this.isClick(g) && g.last.alt ? { middle: g.from, to: g.last.page, step: g.last.shift } : null;

  key = (key: string): boolean => key === 'Escape' && this.escape();

  pointer(): PointerShape {
    if (this.gesture?.for === 'rounding' || (this.at && !this.gesture && this.roundingUnder(this.at))) return 'move';
    return this.canDraw ? 'shape' : 'refuse';
  }

  paint(ctx: CanvasRenderingContext2D, view: View): void {
    const s = this.bench.getState();
    for (const line of this.chosen()) paintSkeleton(ctx, view, line, findLine(shownDrawing(s), line.id)!.sheet.tag);
    if (this.gesture?.for !== 'shape') for (const { at } of this.grips()) paintRounding(ctx, at);
    const g = this.gesture;
    if (!g) return;
    const { unit } = s.drawing.page;
    const size = g.for === 'shape' ? sizeOf(this.boxOf(g)) : null;
    const radius = g.for === 'rounding' ? this.chosen()[0]?.runs[g.ref.run]?.nodes[g.ref.node]?.radius : undefined;
    const words = size
      ? `${formatLength(size.x, unit)} × ${formatLength(size.y, unit)}`
      : `radius ${formatLength(radius ?? 0, unit)}`;
    paintNote(ctx, { x: g.last.screen.x + 20, y: g.last.screen.y + 26 }, words);
  }

  hints(): Hint[] {
    if (this.gesture?.for === 'rounding')
      return [
        { keys: 'drag inwards', what: 'round the corners off' },
        { keys: 'Escape', what: 'leave them as they were' },
      ];
    if (this.pointer() === 'refuse')
      return [{ keys: 'locked or hidden', what: 'nothing is drawn on this sheet; a click offers the way out' }];
    if (this.gesture)
      return [
        { keys: 'Shift', what: 'equal sides, or 15° steps' },
        { keys: 'Alt', what: 'from the middle' },
        { keys: 'Ctrl', what: 'keep to nothing' },
        { keys: 'Escape', what: 'drop it' },
      ];
    if (this.at && this.roundingUnder(this.at))
      return [
        { keys: 'drag', what: 'round all corners of the line' },
        { keys: 'Alt drag', what: 'this corner alone' },
      ];
    const { kind } = preferences.getState().shape;
    return [
      {
        keys: 'drag',
        what: `${kind === 'straight line' ? 'a' : kind === 'rectangle' || kind === 'polygon' || kind === 'star' ? 'a' : 'an'} ${kind}`,
      },
      { keys: 'Alt drag', what: 'from the middle' },
      { keys: 'click', what: 'one of the size in the tray' },
      { keys: 'Space drag', what: 'pan' },
    ];
  }
}

/** The place in the direction of another, at a distance. */
function towardsAt(from: Point, to: Point, length: number): Point {
  return add(from, scale(unit(subtract(to, from)) ?? { x: 1, y: 0 }, length));
}

/** One drawn from its middle, in another box: as much larger, pointing where it did. */
function turnedTo({ middle, to, step }: Drawn, before: Box, after: Box): Drawn {
  const by = Math.min(sizeOf(after).x, sizeOf(after).y) / Math.min(sizeOf(before).x, sizeOf(before).y);
  return { middle, to: add(middle, scale(subtract(to, middle), by)), step };
}

const sizeOf = (b: Box): Point => ({ x: b.maxX - b.minX, y: b.maxY - b.minY });

/** A shape in a box; one drawn from the middle that has corners all around turns its first to the hand. */
function shapeIn(box: Box, f: ShapeFigures, drawn: Drawn | null): Run {
  if (f.kind === 'rectangle') return shapes.rectangle(box, f.rounding);
  if (f.kind === 'ellipse') return shapes.ellipse(box);
  if (f.kind === 'arc') return shapes.arc(box, f.from, f.to);
  const side = Math.min(box.maxX - box.minX, box.maxY - box.minY);
  let middle: Point = middleOfBox(box);
  let [radius, turn] = [side / 2, 0];
  if (drawn) {
    const direction = drawn.step
      ? snapDirection(subtract(drawn.to, drawn.middle), 15)
      : subtract(drawn.to, drawn.middle);
    middle = drawn.middle;
    radius = Math.hypot(direction.x, direction.y);
    turn = (Math.atan2(direction.y, direction.x) * 180) / Math.PI + 90;
  }
  return f.kind === 'star'
    ? shapes.star(middle, radius, f.sides, f.depth, turn, f.rounding)
    : shapes.polygon(middle, radius, f.sides, turn, f.rounding);
}
