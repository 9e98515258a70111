import { nanoid } from 'nanoid';
import type { Change, Cubic, Node, Point, Sheet } from '@/core';
import { extendByCurves } from '@/core/edits/follow';
import type { End } from '@/core/drawing/end';
import { replacedRun } from '@/core/edits/join';
import { removeLines, reshapeLines } from '@/core/edits/lines';
import { addNode, removeNodes } from '@/core/edits/nodes';
import { findLine } from '@/core/drawing/find';
import { arriving } from '@/core/drawing/node';
import { cornerAt } from '@/core/drawing/run';
import { add, distance, snapDirection, subtract } from '@/core/geometry/point';
import { sheetToDraw } from '../commands/sheetToDraw';
import { FollowInWorker, type Follow } from '../state/follow';
import { prefer, preferences } from '../state/preferences';
import { shownDrawing } from '../state/store';
import type { View } from '../state/view';
import { PenFollow } from './penFollow';
import { drawnNode, editOf, farEnd, nodeGesture, type Gesture } from './penGesture';
import { pointsAway, penHints, penPointer } from './penHints';
import { paintAlong, paintFigures, paintPenLine, paintTarget } from './penMarks';
import { PenPressure } from './penPressure';
import { currentAt, penTarget, placeFor, type Current, type PenTarget } from './penTarget';
import { LineTool } from './lineTool';
import { CLICK, type HandEvent, type Hint, type PointerShape, type ToolContext, type Tool } from './tool';

const STEP = 15;

/** Whether a change laid the first node of a line, and no more than that: in a mirror, of its images as well. */
const isStartOf = (line: string, change: Change | undefined): change is Change =>
  !!change?.steps.every((s, i) => s.step === 'insertItem' && (i > 0 || s.item.id === line));

/** One worker follows for all pens of this page. */
let shared: Follow | null = null;
const followInk = (): Follow => (shared ??= new FollowInWorker());

/**
 * The pen: a click lays a corner, a press that is dragged a smooth node. Each node is a change of its own, so that undo
 * takes back one node and nothing drawn is lost. The line goes on until it is closed, joined, or ended; a double-click
 * does none of these. A line begins freely anywhere; other lines are changed only by a press with Alt.
 */
export class PenTool extends LineTool<Gesture> implements Tool {
  private readonly following: PenFollow;
  private readonly pressure = new PenPressure();
  private isTaking = false;
  /** The last press closed, joined or changed a line: pressed twice at once, that is done once. */
  private isDone = false;

  constructor(context: ToolContext, follow: Follow = followInk()) {
    super(context);
    this.following = new PenFollow(context, follow);
  }

  begin(): void {
    this.following.keepReady();
  }

  private get end(): End | null {
    return this.bench.getState().underPen;
  }

  private set end(underPen: End | null) {
    if (underPen !== this.end) this.bench.setState({ underPen });
  }

  private current = (): Current | null => currentAt(this.bench.getState(), this.end);

  private target(e: HandEvent): PenTarget {
    return penTarget(this.context, e, this.current());
  }

  press(e: HandEvent): void {
    this.at = e;
    this.pressure.press(e);
    const current = this.current();
    if (!this.openSheet(current?.sheet.id)) return;
    if (e.again && this.isDone) return;
    const target = this.target(e);
    this.isDone = !['place', 'node', 'segment', 'drop'].includes(target.on);
    const { drawing } = this.bench.getState();
    if (target.on === 'remove node') {
      this.bench.commit(removeNodes(drawing, [target.ref]));
    } else if (target.on === 'add node') {
      this.bench.commit(addNode(drawing, target.line, target.run, target.segment, target.t));
    } else if (target.on === 'drop') {
      const out = current!.nodes.at(-1)!.out;
      this.gesture = { for: 'drop', end: current!.end, pressed: e.screen, out, pulled: false };
    } else if (target.on === 'continue') {
      this.gesture = { for: 'take', end: target.end, pressed: e.screen, out: null, pulled: false };
      this.end = target.end;
    } else if (current && this.follows(e, target)) {
      void this.takeFollowed(current, target);
    } else {
      this.gesture = nodeGesture(drawing, e, target, current, nanoid(10));
      this.preview();
    }
    this.context.repaint();
  }

  /** Whether a press here takes the curve along the ink. With Shift or Alt held the pen is its plain self. */
  private follows(e: HandEvent, target: PenTarget): boolean {
    const leads = target.on === 'place' || target.on === 'node' || target.on === 'segment' || target.on === 'close';
    return this.following.isOn && leads && !e.shift && !e.alt;
  }

  private placeOf = (target: PenTarget, { nodes }: Current): Point =>
    target.on === 'close' ? nodes[0].point : 'at' in target ? target.at : nodes.at(-1)!.point;

  /** Takes the curve along the ink as nodes; a straight segment where nothing leads to the place. */
  private async takeFollowed(current: Current, target: PenTarget): Promise<void> {
    if (this.isTaking) return;
    this.isTaking = true;
    const [from, to] = [current.nodes.at(-1)!.point, this.placeOf(target, current)];
    const found = await this.following.take(from, to);
    this.isTaking = false;
    const now = this.current();
    if (!now || now.line.id !== current.line.id || now.nodes.length !== current.nodes.length) return;
    const cubics: Cubic[] = found ?? [[from, from, to, to]];
    // Onto another line, and back to the first node, it leads exactly.
    if (target.on !== 'place') cubics[cubics.length - 1] = [...cubics.at(-1)!.slice(0, 3), to] as Cubic;
    const closes = target.on === 'close';
    const { drawing } = this.bench.getState();
    this.bench.commit(extendByCurves(drawing, now.end, cubics, closes, closes ? 'Close line' : 'Follow the ink'));
    this.following.forget();
    this.bench.choose([now.line.id]);
    if (closes) this.end = null;
    this.context.repaint();
  }

  private farEnd = (end: End): Node | undefined => farEnd(this.bench.getState().drawing, end);

  move(e: HandEvent): void {
    this.at = e;
    const g = this.gesture;
    if (!g) return;
    this.pressure.feel(e);
    g.pulled ||= distance(e.screen, g.pressed) >= CLICK;
    if (!('node' in g)) {
      const last = this.current()?.nodes.at(-1);
      if (g.pulled && last) g.out = this.offsetFor(e, last.point);
    } else if (e.space && (g.for === 'start' || g.for === 'add')) {
      g.node = { ...g.node, point: add(g.node.point, subtract(e.page, g.last)) };
    } else if (g.pulled && preferences.getState().straightFirst) {
      // A straight-first press only places the node; it can still be moved until the hand lets go.
      const isFar = g.for === 'close' || g.for === 'join';
      if (!isFar) g.node = cornerAt(placeFor(this.context, e, this.current()?.nodes.at(-1)));
    } else if (g.pulled) {
      g.plain = false;
      g.node = drawnNode(g, this.offsetFor(e, g.node.point), e.alt);
    }
    if ('node' in g) g.last = e.page;
    this.preview();
  }

  private offsetFor(e: HandEvent, from: Point): Point {
    const offset = subtract(e.page, from);
    return e.shift ? snapDirection(offset, STEP) : offset;
  }

  release(): void {
    const g = this.gesture;
    if (!g) return;
    const { drawing, sheet } = this.bench.getState();
    const edit = editOf(g, drawing, sheet, this.current());
    this.gesture = null;
    if (g.for === 'start') this.pressure.forget();
    if (edit) this.bench.commit('node' in g ? this.pressure.marked(edit, drawing, g.end.line, g.node.point) : edit);
    else this.bench.show(null);
    if (g.for === 'start') this.end = g.end;
    this.bench.choose([g.end.line]);
    if (g.for === 'close' || g.for === 'join') this.end = null;
    this.context.repaint();
  }

  private preview(): void {
    const { drawing, sheet } = this.bench.getState();
    this.bench.show(this.gesture && editOf(this.gesture, drawing, sheet, this.current()));
    this.context.repaint();
  }

  override hover(e: HandEvent | null): void {
    const current = e && this.current();
    if (e) this.following.keepReady();
    if (current && this.following.isOn) {
      const target = this.target(e);
      if (this.follows(e, target)) this.following.point(current.nodes.at(-1)!.point, this.placeOf(target, current));
    }
    super.hover(e);
  }

  key(key: string): boolean {
    if (!this.current()) return false;
    if (key === 'Escape' && this.following.isOn) {
      prefer({ follow: false });
      this.following.forget();
      this.context.repaint();
      return true;
    }
    if (key === 'Enter' || key === 'Escape') {
      this.cancel();
      this.finish();
      return true;
    }
    if (key === 'Backspace') {
      this.cancel();
      this.takeBack();
      return true;
    }
    return false;
  }

  /** Takes back the last node; with the only node, the line. */
  private takeBack(): void {
    const { line, nodes, end } = this.current()!;
    const { drawing } = this.bench.getState();
    const runs =
      nodes.length === 1 ? line.runs.filter((_, i) => i !== end.run) : replacedRun(line, end, nodes.slice(0, -1));
    this.bench.commit(reshapeLines(drawing, new Map([[line.id, runs]]), 'Take back node'));
    this.context.repaint();
  }

  override cancel(): void {
    if (this.gesture?.for === 'take') this.end = null;
    super.cancel();
  }

  /** Ends the line and keeps it. A start without a second node is no line, and goes. */
  override finish(): void {
    const current = this.current();
    this.end = null;
    this.gesture = null;
    if (current && current.nodes.length < 2 && current.line.runs.length === 1) {
      const { undoable, drawing } = this.bench.getState();
      const last = undoable.at(-1);
      if (!isStartOf(current.line.id, last) || !this.bench.dropLast(last))
        this.bench.commit(removeLines(drawing, [current.line.id], 'Take back node'));
    } else if (current) this.bench.joinHalves(current.line.id);
    this.context.repaint();
  }

  /** The sheet that can be drawn on; else the reason is told, with the way out. */
  private openSheet(id = this.bench.getState().sheet): Sheet | null {
    return sheetToDraw(this.bench, id, 'the pen leaves it alone');
  }

  private refuses = (): boolean => this.bench.getState().reading || (!this.canDraw && !this.current());

  pointer(): PointerShape {
    if (this.refuses()) return 'refuse';
    return penPointer(this.at && this.target(this.at), this.current() !== null);
  }

  paint(ctx: CanvasRenderingContext2D, view: View): void {
    const s = this.bench.getState();
    const { at, gesture } = this;
    const end = gesture?.end ?? this.end;
    const found = end && findLine(shownDrawing(s), end.line);
    const target = at && !gesture && !this.refuses() ? this.target(at) : null;
    if (end && found) {
      const current = this.current();
      const along = at && target && current && this.follows(at, target) ? this.along(current) : null;
      const coming = target && current && !along ? this.comingNode(target) : null;
      if (along) paintAlong(ctx, view, along, found.sheet.tag);
      paintPenLine(ctx, view, found, end, coming, this.current() !== null && pointsAway(this.current()!, at));
      if (coming && at && preferences.getState().figures)
        paintFigures(ctx, at.screen, this.current()!.nodes, coming.next, s.drawing.page.unit);
    }
    if (target) paintTarget(ctx, view, target, (e) => this.farEnd(e)?.point ?? null);
  }

  private along = ({ nodes }: Current): Cubic[] | null => this.following.proposal(nodes.at(-1)!.point);

  /** The node that a press would lay; null where it would lay none. */
  private comingNode(target: PenTarget): { next: Node; closes: boolean } | null {
    if (target.on === 'drop') return null;
    const last = this.current()!.nodes.at(-1)!;
    const far =
      target.on === 'close' ? this.current()!.nodes[0] : target.on === 'join' ? this.farEnd(target.end)! : null;
    if (far) return { next: arriving(far, last.point), closes: true };
    return 'at' in target ? { next: cornerAt(target.at), closes: false } : null;
  }

  hints(): Hint[] {
    if (this.refuses()) return penHints.refused;
    const current = this.current();
    if (this.following.isPreparing) return penHints.preparing;
    if (current && this.at && this.following.isOn && this.follows(this.at, this.target(this.at)))
      return penHints.follow;
    return penHints.for(this.gesture, this.at && this.target(this.at), current, this.at);
  }
}
