import { nanoid } from 'nanoid';
import type { Cubic, Line, Point } from '@/core';
import { endsDrawnTo, runOfStroke } from '@/core/assist/pencilStroke';
import { addLine } from '@/core/edits/lines';
import { ALONG, leadIn, redrawPart } from '@/core/edits/redraw';
import { findLine, sheetOf } from '@/core/drawing/find';
import { runsOnGrid } from '@/core/drawing/grid';
import { snapped } from '@/core/drawing/snap';
import { cubicsOf } from '@/core/drawing/run';
import { distance, dot, subtract, unit } from '@/core/geometry/point';
import { derivative } from '@/core/geometry/cubic';
import { paintNodes, paintSkeleton, paintSnapMark } from '../canvas/marks';
import { fitInWorker, keepDrawn, readyToFit, type Drawn, type Fit } from '../state/fitting';
import { sheetToDraw } from '../commands/sheetToDraw';
import { colourOf } from '@/core/scene/ink';
import { withAxis } from '../state/mirroring';
import { preferences } from '../state/preferences';
import { shownDrawing } from '../state/store';
import { toScreen, type View } from '../state/view';
import {
  backAlong,
  drawnTo,
  endsAt,
  marksByPressure,
  pressedAlong,
  paintStroke,
  type OnChosen,
  type Stroke,
} from './pencilStrokes';
import { touching } from './penTarget';
import { LineTool } from './lineTool';
import {
  CLICK,
  GRIP,
  gripFor,
  LINE_GRIP,
  SNAP,
  type HandEvent,
  type Hint,
  type PointerShape,
  type ToolContext,
  type Tool,
} from './tool';

/** What a stroke would come to if the hand let go now. */
type Outcome =
  | { for: 'redraw'; from: OnChosen; to: OnChosen; whole: boolean }
  | { for: 'close' }
  | { for: 'line'; end: Point | null };

/** Ends of a stroke are drawn to lines from here: a stroke that runs beside one is told from them as a whole. */
const ENDS = { node: GRIP, line: LINE_GRIP };

/** A stroke this much longer than the grip can come back to its start and close. */
const LEAST_ROUND = 4;

/** Pencil: what the hand draws becomes a line of few nodes. The ink stays under the hand; the fit follows it. */
export class PencilTool extends LineTool<Stroke> implements Tool {
  private readonly pending: Stroke[] = [];

  constructor(
    context: ToolContext,
    private readonly fit: Fit = fitInWorker,
  ) {
    super(context);
  }

  begin(): void {
    if (this.fit === fitInWorker) readyToFit();
  }

  press(e: HandEvent): void {
    const s = this.bench.getState();
    const sheet = sheetToDraw(this.bench, s.sheet, 'the pencil leaves it alone');
    if (!sheet) return;
    const start = e.mod ? null : touching(this.context, e, null, ENDS);
    this.gesture = {
      id: nanoid(10),
      passed: [{ page: e.page, pressure: e.pressure }],
      pressed: e.kind === 'pen' && preferences.getState().pressure,
      unit: this.context.unit(),
      style: { ...sheet.style, fill: null },
      colour: colourOf(s.drawing, sheet.style.stroke),
      sheet: sheet.id,
      start,
      from: this.asksToRedraw(e) ? this.onChosen(e) : null,
      asked: e.alt,
      ahead: [],
    };
    this.context.repaint();
  }

  /** Redrawing is asked for, by the switch or by Alt: no shape of a stroke can tell it from hatching. */
  private asksToRedraw = (e: HandEvent): boolean => !e.mod && (e.alt || preferences.getState().redraw);

  /** The place on the one chosen line under the pencil. */
  private onChosen(e: HandEvent): OnChosen | null {
    const { drawing, lines } = this.bench.getState();
    if (lines.size !== 1) return null;
    const reach = gripFor(e, GRIP) * this.context.unit();
    const hit = this.context.picking.nearest(drawing, e.page, reach, (l) => lines.has(l.id));
    if (!hit || hit.line.runs[hit.run].nodes.length < 2) return null;
    return { line: hit.line.id, run: hit.run, segment: hit.segment, t: hit.t, point: hit.point };
  }

  move(e: HandEvent): void {
    this.at = e;
    const g = this.gesture;
    if (!g) return;
    for (const p of e.trail) {
      if (distance(p.page, g.passed.at(-1)!.page) < 1e-9) continue;
      g.passed.push(p);
    }
    g.ahead = e.ahead;
    this.context.repaint();
  }

  release(e: HandEvent): void {
    const g = this.gesture;
    this.gesture = null;
    if (!g) return;
    g.ahead = [];
    const moved = g.passed.some((p) => distance(p.page, g.passed[0].page) >= CLICK * g.unit);
    if (moved) void this.lay(g, this.outcome(g, e));
    else if (!e.shift) this.bench.choose([]);
    this.context.repaint();
  }

  private outcome(g: Stroke, e: HandEvent): Outcome {
    const to = g.from && !e.mod ? this.onChosen(e) : null;
    if (g.from && to && this.redraws(g, g.from, to))
      return { for: 'redraw', from: g.from, to, whole: this.isEnd(g.from) && this.isEnd(to) };
    const [first, last] = [g.passed[0].page, g.passed.at(-1)!.page];
    const grip = gripFor(e, GRIP) * g.unit;
    const far = g.passed.some((p) => distance(p.page, first) > LEAST_ROUND * grip);
    if (far && !e.mod && distance(first, last) <= grip) return { for: 'close' };
    return { for: 'line', end: e.mod ? null : drawnTo(touching(this.context, e, null, ENDS), backAlong(g), g.unit) };
  }

  /** Whether a stroke from one place on the chosen line to another sets out along it, or carries it on from an end. */
  private redraws(g: Stroke, from: OnChosen, to: OnChosen): boolean {
    if (from.line !== to.line || from.run !== to.run || distance(from.point, to.point) < GRIP * g.unit) return false;
    const run = findLine(this.bench.getState().drawing, from.line)?.line.runs[from.run];
    if (!run) return false;
    if (g.asked || (this.isEnd(from) && this.isEnd(to))) return true;
    const places = g.passed.map((p) => p.page);
    const runsAlong = (place: OnChosen, list: Point[]): boolean => {
      const next = list.find((p) => distance(p, list[0]) > 2 * GRIP * g.unit) ?? list.at(-1)!;
      const [direction, line] = [
        unit(subtract(next, list[0])),
        unit(derivative(cubicsOf(run)[place.segment], place.t)),
      ];
      return !direction || !line || Math.abs(dot(direction, line)) > ALONG;
    };
    return runsAlong(from, places) && runsAlong(to, places.reverse());
  }

  private isEnd({ line, run, segment, t }: OnChosen): boolean {
    const r = findLine(this.bench.getState().drawing, line)?.line.runs[run];
    return !!r && !r.closed && ((segment === 0 && t < 0.02) || (segment === r.nodes.length - 2 && t > 0.98));
  }

  /** Has a stroke fitted, and lays it on the page. Until then it is shown as it was drawn; nothing of it is lost. */
  private async lay(g: Stroke, out: Outcome): Promise<void> {
    this.pending.push(g);
    const smoothing = preferences.getState().smoothing * g.unit;
    const { points, start, end, out: onto } = this.drawnOut(g, out, smoothing);
    const stroke = { points, closed: out.for === 'close' };
    try {
      const cubics = await this.fit(stroke, smoothing);
      if (cubics)
        this.commit(g, onto, stroke.closed ? cubics : endsAt(cubics, start, end), stroke.closed, () => ({
          stroke,
          unit: g.unit,
        }));
    } catch (error) {
      const straight = stroke.points.slice(1).map((p, i): Cubic => [stroke.points[i], stroke.points[i], p, p]);
      this.commit(g, onto, straight, false, () => null);
      this.bench.tell(
        `The stroke is kept as it was drawn, for it could not be smoothed (${String(error)}).`,
        undefined,
        'warning',
      );
    } finally {
      this.pending.splice(this.pending.indexOf(g), 1);
      this.context.repaint();
    }
  }

  /** A place on the axis of the mirror, for an end of a stroke near it. */
  private onAxis(p: Point, { unit }: Stroke): Point | null {
    const { drawing, mirror } = this.bench.getState();
    const at = snapped(withAxis({ ...drawing.page, guides: [] }, mirror), p, SNAP * unit);
    return mirror && at !== p && distance(at, p) > 0 ? at : null;
  }

  /** What is fitted: the stroke with its ends where they belong; one that redraws, with a piece of the line at both. */
  private drawnOut(g: Stroke, out: Outcome, smoothing: number) {
    const raw = g.passed.map((p) => p.page);
    if (out.for !== 'redraw') {
      const start = out.for === 'close' ? null : (drawnTo(g.start, raw, g.unit) ?? this.onAxis(raw[0], g));
      const end = out.for === 'line' ? (out.end ?? this.onAxis(raw.at(-1)!, g)) : null;
      return { points: endsDrawnTo(raw, start, end, smoothing), start, end, out };
    }
    const points = endsDrawnTo(raw, out.from.point, out.to.point, smoothing);
    const run = findLine(this.bench.getState().drawing, out.from.line)?.line.runs[out.from.run];
    if (!run || out.whole) return { points, start: out.from.point, end: out.to.point, out };
    const led = leadIn(run, out.from, out.to, points, 2 * GRIP * g.unit);
    const [start, end] = [led.points[0], led.points.at(-1)!];
    const onto: Outcome = { ...out, from: { ...out.from, ...led.from }, to: { ...out.to, ...led.to } };
    return { points: led.points, start, end, out: onto };
  }

  private commit(
    g: Stroke,
    out: Outcome,
    cubics: Cubic[],
    closed: boolean,
    drawn: () => Pick<Drawn, 'stroke' | 'unit'> | null,
  ): void {
    const { drawing, sheet } = this.bench.getState();
    const run = runOfStroke(cubics, closed);
    const pressed = pressedAlong(g);
    if (out.for === 'redraw' && findLine(drawing, out.from.line)) {
      const { from, to } = out;
      const { width } = findLine(drawing, from.line)!.line.style;
      const part = marksByPressure(pressed, width, false);
      this.bench.commit(redrawPart(drawing, from.line, from.run, from, to, run, part), [from.line]);
      return;
    }
    const marks = marksByPressure(pressed, g.style.width, closed);
    const line: Line = { id: g.id, style: g.style, runs: runsOnGrid([run]), ...(marks.length > 0 ? { marks } : {}) };
    const as = drawn();
    if (as) keepDrawn(line.runs, { ...as, pressed, made: [marks] });
    const onto = sheetOf(drawing, g.sheet) ? g.sheet : sheet;
    this.bench.commit(addLine(drawing, onto, line, 'Draw with the pencil'), [line.id]);
    this.bench.joinHalves(line.id);
  }

  key = (key: string): boolean => key === 'Escape' && this.escape();

  pointer = (): PointerShape => (this.canDraw ? 'pencil' : 'refuse');

  paint(ctx: CanvasRenderingContext2D, view: View): void {
    const s = this.bench.getState();
    // A stroke that does not redraw what is chosen has nothing to do with its nodes, and leaves no time for them.
    const isApart = this.gesture !== null && this.gesture.from === null;
    for (const id of s.lines) {
      const found = findLine(shownDrawing(s), id);
      if (!found || isApart || s.lines.size > 20) continue;
      paintSkeleton(ctx, view, found.line, found.sheet.tag);
      paintNodes(ctx, view, found.line, found.sheet.tag);
    }
    for (const g of [...this.pending, ...(this.gesture ? [this.gesture] : [])])
      paintStroke(ctx, view, g, view === s.view);
    if (!this.at) return;
    if (this.gesture) this.paintOutcome(ctx, view, this.gesture, this.at);
    else {
      const start = this.at.mod ? null : touching(this.context, this.at, null, ENDS);
      if (start) paintSnapMark(ctx, toScreen(view, start.at), start.on === 'node' ? 'on its node' : 'on the line');
    }
  }

  private paintOutcome(ctx: CanvasRenderingContext2D, view: View, g: Stroke, e: HandEvent): void {
    const out = this.outcome(g, e);
    if (out.for === 'redraw') paintSnapMark(ctx, toScreen(view, out.to.point), 'redraws this part');
    else if (out.for === 'close') paintSnapMark(ctx, toScreen(view, g.passed[0].page), 'close');
    else if (out.end) paintSnapMark(ctx, toScreen(view, out.end), 'on the line');
  }

  hints(): Hint[] {
    if (this.pointer() === 'refuse')
      return [{ keys: 'locked or hidden', what: 'the pencil leaves this sheet alone; a click offers the way out' }];
    if (this.gesture)
      return [
        this.gesture.from
          ? { keys: 'back onto the chosen line', what: 'redraws that part of it' }
          : { keys: 'back to its start', what: 'closes the line' },
        { keys: 'Ctrl', what: 'keep to nothing' },
        { keys: 'Escape', what: 'drop the stroke' },
      ];
    return [
      { keys: 'draw', what: 'a line' },
      ...(this.bench.getState().lines.size === 1
        ? [
            {
              keys: preferences.getState().redraw ? 'draw along the chosen line' : 'Alt draw along the chosen line',
              what: 'redraw that part of it',
            },
          ]
        : []),
      { keys: 'Space drag', what: 'pan' },
      { keys: 'hold V', what: 'lift the reference away' },
    ];
  }
}
