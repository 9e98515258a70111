import { moveLines, removeLines } from '@/core/change/lineEdits';
import { findLine } from '@/core/drawing/find';
import { skeletonBox } from '@/core/drawing/run';
import { snapOfBox } from '@/core/drawing/snap';
import { boxOfPoints, emptyBox, joinBoxes, movedBox } from '@/core/geometry/box';
import { add, distance, snapDirection, subtract, type Box, type Point } from '@/core/geometry/point';
import { paintMarquee, paintSkeleton } from '../canvas/marks';
import { shownDrawing } from '../state/store';
import { toScreen, type View } from '../state/view';
import { arrowOffset } from './nudge';
import {
  CLICK,
  gripFor,
  LINE_GRIP,
  SNAP,
  type HandEvent,
  type Hint,
  type PointerShape,
  type Reach,
  type Tool,
} from './tool';

type Gesture = {
  for: 'lines' | 'marquee';
  from: HandEvent;
  to: HandEvent;
  moved: boolean;
  releaseOnly: string | null;
  /** Around what is moved, as it was. */
  box?: Box;
};

/** Select: whole lines; choose, move, nudge, delete. */
export class SelectTool implements Tool {
  private gesture: Gesture | null = null;
  private at: HandEvent | null = null;

  constructor(private readonly reach: Reach) {}

  private get bench() {
    return this.reach.bench;
  }

  private under(e: HandEvent): string | null {
    const hit = this.reach.picking.under(
      this.bench.getState().drawing,
      e.page,
      gripFor(e, LINE_GRIP) * this.reach.unit(),
    );
    return hit?.line.id ?? null;
  }

  press(e: HandEvent): void {
    const { lines } = this.bench.getState();
    const id = this.under(e);
    const gesture = { from: e, to: e, moved: false, releaseOnly: null };
    if (id === null) this.gesture = { for: 'marquee', ...gesture };
    else {
      const isChosen = lines.has(id);
      if (e.shift) this.bench.choose(isChosen ? [...lines].filter((l) => l !== id) : [...lines, id]);
      else if (!isChosen) this.bench.choose([id]);
      this.gesture = { for: 'lines', ...gesture, releaseOnly: isChosen && !e.shift ? id : null };
    }
    this.reach.repaint();
  }

  move(e: HandEvent): void {
    this.at = e;
    const g = this.gesture;
    if (!g) return;
    if (!g.moved && distance(e.screen, g.from.screen) < CLICK) return;
    g.moved = true;
    g.to = e;
    if (g.for === 'lines') this.bench.show(this.moved(g, e));
    this.reach.repaint();
  }

  private moved(g: Gesture, e: HandEvent) {
    const { drawing, lines } = this.bench.getState();
    const by = subtract(e.page, g.from.page);
    return moveLines(drawing, lines, e.shift ? snapDirection(by, 15) : this.snappedMove(g, by));
  }

  /** A move after which a side or the middle of what is moved lies on a guide or the grid, where one is near. */
  private snappedMove(g: Gesture, by: Point): Point {
    const { drawing, lines } = this.bench.getState();
    g.box ??= [...lines].reduce((box, id) => {
      const found = findLine(drawing, id);
      return found ? joinBoxes(box, skeletonBox(found.line)) : box;
    }, emptyBox);
    return add(by, snapOfBox(drawing.page, movedBox(g.box, by), SNAP * this.reach.unit()));
  }

  release(e: HandEvent): void {
    const g = this.gesture;
    this.gesture = null;
    if (!g) return;
    const { drawing, lines } = this.bench.getState();
    if (g.for === 'lines') {
      if (g.moved) this.bench.commit(this.moved(g, e));
      else if (g.releaseOnly) this.bench.choose([g.releaseOnly]);
    } else if (g.moved) {
      const found = this.reach.picking.touching(drawing, boxOfPoints([g.from.page, e.page]));
      this.bench.choose(e.shift ? [...lines, ...found] : found);
    } else if (!e.shift) this.bench.choose([]);
    this.reach.repaint();
  }

  hover(e: HandEvent | null): void {
    this.at = e;
    this.reach.repaint();
  }

  key(key: string, e: { shift: boolean }): boolean {
    const { drawing, lines } = this.bench.getState();
    if (lines.size === 0) return false;
    const by = arrowOffset(key, e.shift);
    if (by) this.bench.commit(moveLines(drawing, lines, by));
    else if (key === 'Delete' || key === 'Backspace') this.bench.commit(removeLines(drawing, lines));
    else if (key === 'Escape') {
      if (this.gesture) this.cancel();
      else this.bench.choose([]);
    } else return false;
    return true;
  }

  cancel(): void {
    this.gesture = null;
    this.bench.show(null);
    this.reach.repaint();
  }

  finish = (): void => this.cancel();

  pointer(): PointerShape {
    if (this.gesture?.for === 'lines') return 'move';
    return this.at && this.gesture?.for !== 'marquee' && this.under(this.at) ? 'over line' : 'arrow';
  }

  paint(ctx: CanvasRenderingContext2D, view: View): void {
    const s = this.bench.getState();
    const shown = shownDrawing(s);
    const hovered = this.at && !this.gesture ? this.under(this.at) : null;
    for (const id of new Set([...s.lines, ...(hovered ? [hovered] : [])])) {
      const found = findLine(shown, id);
      if (found) paintSkeleton(ctx, view, found.line, found.sheet.tag, s.lines.has(id) ? 1.8 : 1);
    }
    if (this.gesture?.for === 'marquee' && this.gesture.moved) {
      paintMarquee(ctx, toScreen(view, this.gesture.from.page), this.gesture.to.screen);
    }
  }

  hints(): Hint[] {
    const { lines } = this.bench.getState();
    if (this.gesture?.for === 'lines')
      return [
        { keys: 'Shift', what: 'hold to 15° steps' },
        { keys: 'Escape', what: 'leave it as it was' },
      ];
    const choose: Hint[] = [
      { keys: 'click a line', what: 'choose it' },
      { keys: 'drag a box', what: 'choose what it touches' },
    ];
    if (lines.size === 0) return [...choose, { keys: 'Space drag', what: 'pan' }, { keys: 'wheel', what: 'zoom' }];
    return [
      { keys: 'drag', what: lines.size === 1 ? 'move it' : `move ${lines.size} lines` },
      { keys: 'Shift click', what: 'add or take away' },
      { keys: 'arrows', what: 'nudge' },
      { keys: 'Delete', what: lines.size === 1 ? 'delete it' : 'delete them' },
    ];
  }
}
