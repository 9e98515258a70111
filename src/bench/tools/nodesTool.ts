import type { Line, Point, Sheet } from '@/core';
import { removeLines } from '@/core/edits/lines';
import { moveNodes, removeNodes, swayNodes, turnHandle } from '@/core/edits/nodes';
import { nodeAt, nodeKey, nodeOfKey, type NodeRef } from '@/core/drawing/nodeRef';
import { radiusAt, roundCorners } from '@/core/edits/round';
import { dropHandles, giveHandles } from '@/core/edits/segments';
import { findLine } from '@/core/drawing/find';
import { boxRegion } from '@/core/drawing/region';
import { snapped } from '@/core/drawing/snap';
import type { Side } from '@/core/drawing/node';
import { add, distance, snapDirection, subtract } from '@/core/geometry/point';
import { boxHolds, boxOfPoints } from '@/core/geometry/box';
import { paintHandles, paintMarquee, paintNode, paintRounding, paintSkeleton } from '../canvas/marks';
import { preferences } from '../state/preferences';
import { linesToMark, MANY, shownDrawing } from '../state/store';
import { toScreen, type View } from '../state/view';
import { addAtPointer, cutAtPointer } from './atPointer';
import { LineTool } from './lineTool';
import { heldBead, nodeHints, paintSway, roundingGrips } from './nodeMarks';
import { Nudge } from './nudge';
import { CLICK, GRIP, gripFor, LINE_GRIP, SNAP, type HandEvent, type Hint, type PointerShape, type Tool } from './tool';

type Target =
  | { on: 'rounding'; ref: NodeRef }
  | { on: 'bead'; ref: NodeRef; side: Side }
  | { on: 'node'; ref: NodeRef }
  | { on: 'line'; line: string }
  | { on: 'nothing' };

type Gesture =
  | { for: 'rounding'; refs: NodeRef[]; ref: NodeRef; from: HandEvent; moved: boolean }
  | { for: 'bead'; ref: NodeRef; side: Side; from: HandEvent; moved: boolean }
  | { for: 'nodes'; ref: NodeRef; from: HandEvent; moved: boolean; releaseOnly: NodeRef | null }
  | { for: 'marquee'; from: HandEvent; to: HandEvent; moved: boolean };

/** Nodes: choose them, move them and their beads, nudge, add and remove. */
export class NodesTool extends LineTool<Gesture> implements Tool {
  /** What the last press was on, and the one before it. */
  private pressed = '';
  private pressedFirst = '';
  private isDouble = false;

  /** The lines whose nodes are shown: those chosen. */
  private shownLines(): { line: Line; sheet: Sheet }[] {
    const s = this.bench.getState();
    return [...linesToMark(s)].flatMap((id) => findLine(shownDrawing(s), id) ?? []);
  }

  private refs = (): NodeRef[] => [...this.bench.getState().nodes].map(nodeOfKey);
  private readonly nudge = new Nudge(this.context, (by) => moveNodes(this.bench.getState().drawing, this.refs(), by));

  override finish(): void {
    this.nudge.finish();
    super.finish();
  }

  private targetOf(e: HandEvent): Target {
    const { view, drawing, nodes } = this.bench.getState();
    const grip = gripFor(e, GRIP);
    const near = (p: Point) => distance(toScreen(view, p), e.screen);
    let best: { target: Target; d: number } = { target: { on: 'nothing' }, d: grip };
    const consider = (target: Target, d: number) => d < best.d && (best = { target, d });
    for (const key of nodes) {
      const ref = nodeOfKey(key);
      const node = nodeAt(drawing, ref);
      if (!node) continue;
      // A node lies above its own beads, so that one can never be lost beneath them.
      for (const side of ['in', 'out'] as const) {
        if (node[side]) consider({ on: 'bead', ref, side }, near(add(node.point, node[side])) + 0.5);
      }
    }
    const { lines } = this.bench.getState();
    const reach = gripFor(e, GRIP) * this.context.unit();
    const hitNode =
      lines.size > MANY ? this.context.picking.nearestNode(drawing, e.page, reach, (l) => lines.has(l.id)) : null;
    if (hitNode)
      consider(
        { on: 'node', ref: { line: hitNode.line.id, run: hitNode.run, node: hitNode.node } },
        near(hitNode.point),
      );
    for (const { line } of this.shownLines()) {
      line.runs.forEach((run, r) =>
        run.nodes.forEach((n, i) => consider({ on: 'node', ref: { line: line.id, run: r, node: i } }, near(n.point))),
      );
    }
    for (const { ref, at } of roundingGrips(drawing, [...nodes].map(nodeOfKey)))
      consider({ on: 'rounding', ref }, near(at) + 1);
    if (best.target.on !== 'nothing') return best.target;
    const hit = this.context.picking.under(drawing, e.page, gripFor(e, LINE_GRIP) * this.context.unit());
    return hit ? { on: 'line', line: hit.line.id } : { on: 'nothing' };
  }

  press(e: HandEvent): void {
    const s = this.bench.getState();
    const target = this.targetOf(e);
    this.pressedFirst = this.pressed;
    this.pressed = keyOf(target);
    this.isDouble = false;
    if (target.on === 'rounding') {
      const refs = e.alt ? [target.ref] : this.refs();
      this.gesture = { for: 'rounding', refs, ref: target.ref, from: e, moved: false };
    } else if (target.on === 'bead') {
      this.gesture = { for: 'bead', ref: target.ref, side: target.side, from: e, moved: false };
    } else if (target.on === 'node') {
      const key = nodeKey(target.ref);
      const isChosen = s.nodes.has(key);
      if (e.more) {
        const nodes = new Set(s.nodes);
        if (isChosen) nodes.delete(key);
        else nodes.add(key);
        this.bench.choose(s.lines, nodes);
      } else if (!isChosen) this.bench.choose(s.lines, [key]);
      this.gesture = {
        for: 'nodes',
        ref: target.ref,
        from: e,
        moved: false,
        releaseOnly: isChosen && !e.more ? target.ref : null,
      };
    } else if (target.on === 'line') {
      if (e.more) {
        const lines = new Set(s.lines);
        if (lines.has(target.line)) lines.delete(target.line);
        else lines.add(target.line);
        this.bench.choose(
          lines,
          [...s.nodes].filter((k) => lines.has(nodeOfKey(k).line)),
        );
      } else if (!s.lines.has(target.line)) this.bench.choose([target.line]);
      else this.bench.choose(s.lines);
    } else {
      this.gesture = { for: 'marquee', from: e, to: e, moved: false };
    }
    this.context.repaint();
  }

  move(e: HandEvent): void {
    this.at = e;
    const g = this.gesture;
    if (!g) return;
    if (!g.moved && distance(e.screen, g.from.screen) < CLICK) return;
    g.moved = true;
    if (g.for === 'marquee') g.to = e;
    else this.bench.show(this.editOf(g, e));
    this.context.repaint();
  }

  private editOf(g: Exclude<Gesture, { for: 'marquee' }>, e: HandEvent) {
    const { drawing } = this.bench.getState();
    if (g.for === 'rounding') {
      const run = findLine(drawing, g.ref.line)!.line.runs[g.ref.run];
      return roundCorners(drawing, g.refs, radiusAt(run, g.ref.node, e.page));
    }
    if (g.for === 'nodes') {
      const free = subtract(e.page, g.from.page);
      const by = e.shift ? snapDirection(free, 15) : this.snappedMove(g, free);
      const { sway, swayReach } = preferences.getState();
      return sway ? swayNodes(drawing, this.refs(), by, swayReach) : moveNodes(drawing, this.refs(), by);
    }
    const node = nodeAt(drawing, g.ref)!;
    const was = node[g.side] ?? { x: 0, y: 0 };
    // The bead keeps its place under the hand, however it was taken hold of.
    const offset = heldBead(was, add(was, subtract(e.page, g.from.page)), e);
    return turnHandle(drawing, g.ref, g.side, e.shift ? snapDirection(offset, 15) : offset, e.alt);
  }

  /** A second press on what the first was on, let go without a move, is a double-click; else the hand was only quick. */
  twice(): void {
    this.isDouble = this.gesture !== null && this.pressed !== '' && this.pressed === this.pressedFirst;
  }

  /** A double-click on a bead drops the handle; on a node it drops both, or gives them back where there are none. */
  private doubled(g: Gesture): boolean {
    const { drawing } = this.bench.getState();
    if (g.for !== 'bead' && g.for !== 'nodes') return false;
    const node = nodeAt(drawing, g.ref);
    if (!node) return false;
    if (g.for === 'bead') this.bench.commit(turnHandle(drawing, g.ref, g.side, null));
    else this.bench.commit((node.in || node.out ? dropHandles : giveHandles)(drawing, [g.ref]));
    return true;
  }

  /** A move after which the node that was taken hold of lies on a guide or the grid, where one is near. */
  private snappedMove(g: Extract<Gesture, { for: 'nodes' }>, by: Point): Point {
    const { drawing } = this.bench.getState();
    const at = nodeAt(drawing, g.ref)?.point;
    if (!at) return by;
    return subtract(snapped(drawing.page, add(at, by), SNAP * this.context.unit()), at);
  }

  release(e: HandEvent): void {
    const g = this.gesture;
    this.gesture = null;
    if (!g) return;
    if (g.for === 'marquee') this.chooseWithin(g, e);
    else if (!g.moved && this.isDouble && this.doubled(g)) this.pressed = '';
    else if (g.moved) this.bench.commit(this.editOf(g, e));
    else if (g.for === 'nodes' && g.releaseOnly)
      this.bench.choose(this.bench.getState().lines, [nodeKey(g.releaseOnly)]);
    this.context.repaint();
  }

  /** The nodes in the box, of the chosen lines, or of any line that reaches into it when none is chosen. */
  private chooseWithin(g: Extract<Gesture, { for: 'marquee' }>, e: HandEvent): void {
    const s = this.bench.getState();
    if (!g.moved) {
      if (!e.more) this.bench.choose(s.nodes.size > 0 ? s.lines : []);
      return;
    }
    const box = boxOfPoints([g.from.page, e.page]);
    const lines = s.lines.size > 0 ? [...s.lines] : this.context.picking.inRegion(s.drawing, boxRegion(box));
    const found = lines.flatMap((id) => {
      const line = findLine(s.drawing, id)?.line;
      return line
        ? line.runs.flatMap((run, r) =>
            run.nodes.flatMap((n, i) => (boxHolds(box, n.point) ? nodeKey({ line: id, run: r, node: i }) : [])),
          )
        : [];
    });
    this.bench.choose(lines, e.more ? [...s.nodes, ...found] : found);
  }

  key(key: string, e: { shift: boolean }): boolean {
    const s = this.bench.getState();
    if (s.nodes.size > 0 && this.nudge.key(key, e.shift)) return true;
    if ((key === 'Delete' || key === 'Backspace') && s.lines.size > 0) {
      this.bench.commit(
        s.nodes.size > 0 ? removeNodes(s.drawing, this.refs(), e.shift) : removeLines(s.drawing, s.lines),
      );
      if (s.nodes.size > 0) this.bench.choose([...s.lines].filter((id) => findLine(this.bench.getState().drawing, id)));
      return true;
    }
    if (key === 'n' && this.at) {
      addAtPointer(this.context, this.at);
      return true;
    }
    if (key === 'cut' && this.at) {
      cutAtPointer(this.context, this.at);
      return true;
    }
    if (key === 'Escape' && (this.gesture || s.nodes.size > 0 || s.lines.size > 0)) {
      if (this.gesture) this.cancel();
      else this.bench.choose(s.nodes.size > 0 ? s.lines : []);
      return true;
    }
    return false;
  }

  pointer(): PointerShape {
    if (this.gesture?.for === 'marquee' || !this.at) return 'arrow';
    const { on } = this.targetOf(this.at);
    return on === 'nothing' ? 'arrow' : on === 'line' ? 'over line' : 'over node';
  }

  paint(ctx: CanvasRenderingContext2D, view: View): void {
    const s = this.bench.getState();
    const hovered = this.at && !this.gesture ? this.targetOf(this.at) : null;
    if (hovered?.on === 'line' && !s.lines.has(hovered.line)) {
      const found = findLine(s.drawing, hovered.line);
      if (found) paintSkeleton(ctx, view, found.line, found.sheet.tag);
    }
    const shown = this.shownLines();
    const { showSkeleton, showHandles, showNodes, sway, swayReach } = preferences.getState();
    if (showSkeleton) for (const { line, sheet } of shown) paintSkeleton(ctx, view, line, sheet.tag);
    for (const key of showHandles ? s.nodes : []) {
      const node = nodeAt(shownDrawing(s), nodeOfKey(key));
      if (node) paintHandles(ctx, view, node);
    }
    for (const { at } of roundingGrips(shownDrawing(s), this.refs())) paintRounding(ctx, toScreen(view, at));
    if (sway && s.nodes.size > 0) paintSway(ctx, view, s.drawing, this.refs(), swayReach);
    for (const { line, sheet } of showNodes ? shown : []) {
      line.runs.forEach((run, r) =>
        run.nodes.forEach((_, i) =>
          paintNode(ctx, view, run, i, sheet.tag, s.nodes.has(nodeKey({ line: line.id, run: r, node: i }))),
        ),
      );
    }
    if (this.gesture?.for === 'marquee' && this.gesture.moved) {
      paintMarquee(ctx, toScreen(view, this.gesture.from.page), this.gesture.to.screen);
    }
  }

  hints(): Hint[] {
    const on = this.at && !this.gesture ? this.targetOf(this.at).on : 'nothing';
    return nodeHints(this.bench.getState(), this.gesture?.for ?? null, on, preferences.getState().sway);
  }
}

const keyOf = (t: Target): string =>
  t.on === 'bead' ? `${t.side} ${nodeKey(t.ref)}` : t.on === 'node' ? nodeKey(t.ref) : '';
