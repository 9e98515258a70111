import { nanoid } from 'nanoid';
import type { Line, Node, Point, Sheet } from '@/core';
import { addLine, reshapeLines, removeLines } from '@/core/change/lineEdits';
import { extendLine, turnHandle } from '@/core/change/nodeEdits';
import type { Edit } from '@/core/change/edit';
import { setSheet } from '@/core/change/sheetEdits';
import { findLine, isOpenSheet, sheetOf } from '@/core/drawing/find';
import { cornerAt } from '@/core/drawing/run';
import { snapped } from '@/core/drawing/snap';
import { add, distance, scale, snapDirection, subtract } from '@/core/geometry/point';
import { shownDrawing } from '../state/store';
import { toScreen, type View } from '../state/view';
import { nextHints, refusedHints, shapingHints, startHints } from './penHints';
import { paintPenLine } from './penMarks';
import {
  CLICK,
  GRIP,
  SNAP,
  gripFor,
  type HandEvent,
  type Hint,
  type PointerShape,
  type Reach,
  type Tool,
} from './tool';

const STEP = 15;

/** A press that is under way: what it is for, and the node as it stands. */
type Gesture =
  | { for: 'start' | 'add' | 'close'; node: Node; line: string; pressed: Point; last: Point; frozenIn: Point | null }
  | { for: 'drop'; pressed: Point; out: Point | null; pulled: boolean };

/**
 * The pen: a click lays a corner, a press that is dragged a smooth node. Each node is a change of its own, so that undo
 * takes back one node and nothing drawn is lost. The line goes on until it is closed or ended; a double-click does
 * neither.
 */
export class PenTool implements Tool {
  private line: string | null = null;
  private gesture: Gesture | null = null;
  private at: HandEvent | null = null;

  constructor(private readonly reach: Reach) {}

  private get bench() {
    return this.reach.bench;
  }

  /** The line being drawn, as committed; null when there is none (any more: undo may have taken it). */
  private current(): { line: Line; sheet: Sheet; nodes: readonly Node[] } | null {
    const found = this.line === null ? undefined : findLine(this.bench.getState().drawing, this.line);
    const run = found?.line.runs[0];
    if (!found || !run || run.closed) return null;
    return { line: found.line, sheet: found.sheet, nodes: run.nodes };
  }

  press(e: HandEvent): void {
    this.at = e;
    const current = this.current();
    const sheet = this.openSheet(current?.sheet.id);
    if (!sheet) return;
    const target = this.targetOf(e);
    if (target === 'drop') {
      const out = current!.nodes.at(-1)!.out;
      this.gesture = { for: 'drop', pressed: e.screen, out, pulled: false };
      return;
    }
    const place = target === 'close' ? current!.nodes[0].point : this.placeFor(e);
    const node = target === 'close' ? current!.nodes[0] : cornerAt(place);
    this.gesture = {
      for: current ? (target === 'close' ? 'close' : 'add') : 'start',
      node,
      line: current?.line.id ?? nanoid(10),
      pressed: e.screen,
      last: e.page,
      frozenIn: node.in,
    };
    this.preview();
  }

  move(e: HandEvent): void {
    this.at = e;
    const g = this.gesture;
    if (!g) return;
    if (g.for === 'drop') {
      if (!g.pulled && distance(e.screen, g.pressed) < CLICK) return;
      g.pulled = true;
      const last = this.current()?.nodes.at(-1);
      if (last) g.out = this.offsetFor(e, last.point);
      this.preview();
      return;
    }
    if (e.space && g.for !== 'close') {
      g.node = { ...g.node, point: add(g.node.point, subtract(e.page, g.last)) };
    } else if (distance(e.screen, g.pressed) >= CLICK || g.node.out || g.node.in !== g.frozenIn) {
      g.node = this.drawnNode(g, e);
    }
    g.last = e.page;
    this.preview();
  }

  /** The node with its handles drawn to the pointer: both ways, or with Alt only the outgoing one. */
  private drawnNode(g: Exclude<Gesture, { for: 'drop' }>, e: HandEvent): Node {
    const offset = this.offsetFor(e, g.node.point);
    if (g.for === 'close') {
      // The first node keeps its way out; what is drawn shapes the last curve, which comes in.
      const into = scale(offset, -1);
      const isSmooth = !e.alt && g.node.kind !== 'corner';
      return {
        ...g.node,
        in: into,
        out:
          isSmooth && g.node.out
            ? scale(offset, Math.hypot(g.node.out.x, g.node.out.y) / (Math.hypot(offset.x, offset.y) || 1))
            : g.node.out,
      };
    }
    if (e.alt) return { ...g.node, out: offset, kind: 'corner' };
    const isFirst = g.for === 'start';
    return { ...g.node, in: isFirst ? null : scale(offset, -1), out: offset, kind: 'smooth' };
  }

  private offsetFor(e: HandEvent, from: Point): Point {
    const offset = subtract(e.page, from);
    return e.shift ? snapDirection(offset, STEP) : offset;
  }

  release(): void {
    const g = this.gesture;
    this.gesture = null;
    if (!g) return;
    const edit = this.editOf(g);
    if (!edit) {
      this.bench.show(null);
      return;
    }
    this.bench.commit(edit);
    if (g.for !== 'drop') this.line = g.line;
    if (this.line) this.bench.choose([this.line]);
    if (g.for === 'close') this.line = null;
    this.reach.repaint();
  }

  private preview(): void {
    const edit = this.gesture && this.editOf(this.gesture);
    this.bench.show(edit);
    this.reach.repaint();
  }

  private editOf(g: Gesture): Edit | null {
    const { drawing, sheet } = this.bench.getState();
    const current = this.current();
    if (g.for === 'drop') {
      if (!current) return null;
      const ref = { line: current.line.id, run: 0, node: current.nodes.length - 1 };
      return turnHandle(drawing, ref, 'out', g.pulled ? g.out : null, true);
    }
    if (g.for === 'start') {
      const style = sheetOf(drawing, sheet)!.style;
      return addLine(
        drawing,
        sheet,
        { id: g.line, style: { ...style, fill: null }, runs: [{ closed: false, nodes: [g.node] }] },
        'Start line',
      );
    }
    if (!current) return null;
    if (g.for === 'add') return extendLine(drawing, current.line, 0, g.node);
    const runs = [{ closed: true, nodes: [g.node, ...current.nodes.slice(1)] }];
    return reshapeLines(drawing, new Map([[current.line.id, runs]]), 'Close line');
  }

  hover(e: HandEvent | null): void {
    this.at = e;
    this.reach.repaint();
  }

  key(key: string): boolean {
    if (!this.current()) return false;
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
    const { line, nodes } = this.current()!;
    const { drawing } = this.bench.getState();
    const edit =
      nodes.length === 1
        ? removeLines(drawing, [line.id], 'Take back node')
        : reshapeLines(drawing, new Map([[line.id, [{ closed: false, nodes: nodes.slice(0, -1) }]]]), 'Take back node');
    this.bench.commit(edit);
    this.reach.repaint();
  }

  cancel(): void {
    this.gesture = null;
    this.bench.show(null);
    this.reach.repaint();
  }

  /** Ends the line and keeps it. A start without a second node is no line, and goes. */
  finish(): void {
    const current = this.current();
    this.line = null;
    this.gesture = null;
    if (current && current.nodes.length < 2) {
      const { undoable, drawing } = this.bench.getState();
      const last = undoable.at(-1);
      const wasJustStarted =
        last?.steps.length === 1 && last.steps[0].step === 'insertLine' && last.steps[0].line.id === current.line.id;
      if (!wasJustStarted || !this.bench.dropLast(last))
        this.bench.commit(removeLines(drawing, [current.line.id], 'Take back node'));
    }
    this.reach.repaint();
  }

  /** The sheet that can be drawn on; else the reason is told, with the way out. */
  private openSheet(id = this.bench.getState().sheet): Sheet | null {
    const { drawing, reading } = this.bench.getState();
    if (reading) return null;
    const sheet = sheetOf(drawing, id);
    if (!sheet) {
      this.bench.tell('There is no sheet to draw on. Add one with the plus above the sheets.', undefined, 'warning');
      return null;
    }
    if (isOpenSheet(sheet)) return sheet;
    const way = sheet.locked
      ? ({ label: 'Unlock it', after: { locked: false, visible: true } } as const)
      : ({ label: 'Show it', after: { visible: true } } as const);
    this.bench.tell(
      `“${sheet.name}” is ${sheet.locked ? 'locked' : 'hidden'}, so the pen leaves it alone.`,
      {
        label: way.label,
        run: () => this.bench.commit(setSheet(this.bench.getState().drawing, sheet.id, way.after, way.label)),
      },
      'warning',
    );
    return null;
  }

  /** Where a node would go: at the pointer; with Shift, in 15° steps from the last node. */
  private placeFor(e: HandEvent): Point {
    const last = this.current()?.nodes.at(-1);
    if (last && e.shift) return add(last.point, snapDirection(subtract(e.page, last.point), STEP));
    return snapped(this.bench.getState().drawing.page, e.page, SNAP * this.reach.unit());
  }

  private targetOf(e: HandEvent): 'place' | 'close' | 'drop' {
    const current = this.current();
    if (!current) return 'place';
    const { view } = this.bench.getState();
    const onto = (n: Node) => distance(toScreen(view, n.point), e.screen) <= gripFor(e, GRIP);
    if (onto(current.nodes.at(-1)!)) return 'drop';
    return current.nodes.length > 1 && onto(current.nodes[0]) ? 'close' : 'place';
  }

  pointer(): PointerShape {
    const { sheet, drawing, reading } = this.bench.getState();
    const target = sheetOf(drawing, sheet);
    if (reading || !target || !isOpenSheet(target)) return 'refuse';
    if (!this.current()) return 'pen start';
    const on = this.at ? this.targetOf(this.at) : 'place';
    return on === 'close' ? 'pen close' : on === 'drop' ? 'pen drop' : 'pen add';
  }

  paint(ctx: CanvasRenderingContext2D, view: View): void {
    const found = findLine(shownDrawing(this.bench.getState()), this.activeId() ?? '');
    if (!found) return;
    const on = this.at && !this.gesture ? this.targetOf(this.at) : 'drop';
    const { nodes } = found.line.runs[0];
    const coming =
      on === 'drop'
        ? null
        : { next: on === 'close' ? nodes[0] : cornerAt(this.placeFor(this.at!)), closes: on === 'close' };
    paintPenLine(ctx, view, found, coming);
  }

  private activeId = (): string | null => (this.gesture && this.gesture.for !== 'drop' ? this.gesture.line : this.line);

  hints(): Hint[] {
    const g = this.gesture;
    if (g && g.for !== 'drop') return shapingHints(g.for === 'close');
    if (this.pointer() === 'refuse') return refusedHints;
    if (!this.current()) return startHints;
    return nextHints[this.at ? this.targetOf(this.at) : 'place'];
  }
}
