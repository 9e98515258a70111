import { flatAt, seenFlats } from '@/core/edits/flats';
import { boxOfLines } from '@/core/edits/transform';
import { isInGroup, isWithin, withGroup } from '@/core/edits/arrange';
import { moveLines, removeLines } from '@/core/edits/lines';
import { findLine, groupsAround } from '@/core/drawing/find';
import { boxRegion, figureRegion, regionHolds, type Region } from '@/core/drawing/region';
import type { AlignmentMark } from '@/core/drawing/alignment';
import { boxOfPoints, emptyBox, movedBox } from '@/core/geometry/box';
import { add, distance, snapDirection, subtract, type Box, type Point } from '@/core/geometry/point';
import { paintAlignment } from '../canvas/alignMarks';
import { paintLasso, paintMarquee, paintSkeleton } from '../canvas/marks';
import { preferences } from '../state/preferences';
import { linesToMark, MANY, shownDrawing } from '../state/store';
import { toScreen, type View } from '../state/view';
import { Aligning } from './aligning';
import { keyOnFlats, paintChosenFlats } from './chosenFlats';
import { FrameHand } from './frameHand';
import { Nudge } from './nudge';
import { LineTool } from './lineTool';
import { CLICK, gripFor, LINE_GRIP, type HandEvent, type Hint, type PointerShape, type Tool } from './tool';

type Gesture = {
  for: 'lines' | 'marquee';
  from: HandEvent;
  to: HandEvent;
  moved: boolean;
  /** What a click chooses on its release: one of several that are chosen might be about to be dragged with the others. */
  releaseOnly: string | null;
  lasso: Point[];
  /** Around what is moved, as it was. */
  box?: Box;
  /** What that can be brought into line with, and what it is in line with now. */
  aligning?: Aligning;
  marks?: readonly AlignmentMark[];
};

/** Select: whole lines, and groups as one; choose, move, nudge, delete. A double-click enters a group. */
export class SelectTool extends LineTool<Gesture> implements Tool {
  private readonly nudge = new Nudge(
    this.context,
    (by) => moveLines(this.bench.getState().drawing, this.bench.getState().lines, by),
    (by) => this.showBy(by),
  );

  private readonly frame = new FrameHand(this.context);

  private under(e: HandEvent): string | null {
    const reach = gripFor(e, LINE_GRIP) * this.context.unit();
    return this.context.picking.under(this.bench.getState().drawing, e.page, reach)?.line.id ?? null;
  }

  /** The lines that come with one: those of its group, unless that is entered. */
  private group(id: string): string[] {
    const { drawing, within } = this.bench.getState();
    return withGroup(drawing, id, within);
  }

  /** Leaves the groups that a line is not in. */
  private stepOut(id: string | null): void {
    const { drawing, within } = this.bench.getState();
    const found = id === null ? undefined : findLine(drawing, id);
    const groups = found ? groupsAround(found.sheet, found.line.id).map((g) => g.id) : [];
    const kept = within.filter((_, i) => within.slice(0, i + 1).every((h, k) => groups[k] === h));
    if (kept.length !== within.length) this.bench.setState({ within: kept });
  }

  press(e: HandEvent): void {
    if (this.frame.press(e)) return this.context.repaint();
    const { lines } = this.bench.getState();
    const id = e.alt ? this.nextUnder(e) : this.under(e);
    const gesture = { from: e, to: e, moved: false, releaseOnly: null, lasso: [e.page] };
    if (id === null) this.gesture = { for: 'marquee', ...gesture };
    else {
      this.bench.setState({ lookedAt: e.page });
      this.stepOut(id);
      const group = this.group(id);
      const isChosen = lines.has(id);
      if (e.more) this.bench.choose(isChosen ? [...lines].filter((l) => !group.includes(l)) : [...lines, ...group]);
      else if (!isChosen || e.alt) this.bench.choose(group);
      this.gesture = { for: 'lines', ...gesture, releaseOnly: isChosen && !e.more && !e.alt ? id : null };
    }
    this.context.repaint();
  }

  /** Of all that lies under the hand, what comes after what is chosen. */
  private nextUnder(e: HandEvent): string | null {
    const { drawing, lines } = this.bench.getState();
    const all = this.context.picking.allUnder(drawing, e.page, gripFor(e, LINE_GRIP) * this.context.unit());
    const now = all.findLastIndex((id) => lines.has(id));
    return all.length === 0 ? null : all[(now + 1) % all.length];
  }

  twice(e: HandEvent): void {
    if (this.frame.twice(e)) return this.context.repaint();
    const id = this.under(e);
    const { drawing, within } = this.bench.getState();
    const found = id === null ? undefined : findLine(drawing, id);
    const group = found && groupsAround(found.sheet, found.line.id)[within.length]?.id;
    if (id === null || !group) return;
    this.bench.setState({ within: [...within, group] });
    this.bench.choose(this.group(id));
    if (this.gesture) this.gesture.releaseOnly = null;
    this.context.repaint();
  }

  move(e: HandEvent): void {
    this.at = e;
    const g = this.gesture;
    if (this.frame.isBusy) {
      this.frame.move(e);
      return this.context.repaint();
    }
    if (!g) return;
    if (!g.moved && distance(e.screen, g.from.screen) < CLICK) return;
    g.moved = true;
    g.to = e;
    if (g.for === 'lines') this.showMoved(g, e);
    else g.lasso.push(...e.trail.map((p) => p.page));
    this.context.repaint();
  }

  private showMoved(g: Gesture, e: HandEvent): void {
    this.showBy(this.offsetOf(g, e));
  }

  private showBy(by: Point): void {
    const { drawing, lines } = this.bench.getState();
    if (lines.size > MANY) this.bench.showMoved(by);
    else this.bench.show(moveLines(drawing, lines, by));
  }

  private offsetOf(g: Gesture, e: HandEvent): Point {
    const by = subtract(e.page, g.from.page);
    g.marks = [];
    if (e.mod) return by;
    return e.shift ? snapDirection(by, 15) : this.movedIntoLine(g, by);
  }

  /** A move after which what is moved lies in line with a guide, with other things or the grid, where that is near. */
  private movedIntoLine(g: Gesture, by: Point): Point {
    const { drawing, lines } = this.bench.getState();
    // Of very many lines the hulls do: a snap to them would be to places that nobody sees.
    if (lines.size > MANY) g.box ??= this.context.picking.boxAround(drawing, lines) ?? emptyBox;
    g.box ??= boxOfLines(drawing, lines) ?? emptyBox;
    g.aligning ??= new Aligning(this.context, drawing, lines, g.box);
    const { by: further, marks } = g.aligning.of(movedBox(g.box, by));
    g.marks = marks;
    return add(by, further);
  }

  release(e: HandEvent): void {
    if (this.frame.isBusy) {
      this.frame.release(e);
      return this.context.repaint();
    }
    const g = this.gesture;
    this.gesture = null;
    if (!g) return;
    const { lines, drawing } = this.bench.getState();
    if (g.for === 'lines') {
      if (g.moved) this.bench.letGo(moveLines(drawing, lines, this.offsetOf(g, e)));
      else if (g.releaseOnly) this.bench.choose(this.group(g.releaseOnly));
    } else if (g.moved) this.chooseIn(this.regionOf(g, e), e.more);
    else {
      if (!e.more) this.stepOut(null);
      this.chooseFlatAt(e);
    }
    this.context.repaint();
  }

  /** Where no line is pressed, the flat that lies there is chosen; with Shift too, or no longer. */
  private chooseFlatAt(e: HandEvent): void {
    const { stage, drawing, flats, lines } = this.bench.getState();
    const flat = stage === 'colour' ? flatAt(drawing, e.page) : null;
    this.bench.setState({ lookedAt: e.page });
    if (e.more) {
      if (!flat) return;
      const next = flats.has(flat.id) ? [...flats].filter((id) => id !== flat.id) : [...flats, flat.id];
      this.bench.setState({ flats: new Set(next) });
    } else if (flat) this.bench.chooseFlats([flat.id]);
    else if (lines.size + flats.size > 0) this.bench.choose([]);
  }

  private regionOf(g: Gesture, e: HandEvent): Region {
    const isLasso = preferences.getState().marquee === 'lasso' && g.lasso.length > 2;
    return isLasso ? figureRegion(g.lasso) : boxRegion(boxOfPoints([g.from.page, e.page]));
  }

  /** Chooses what is in a region; with Shift, adds it to what is chosen, or takes it away if all of it was. */
  private chooseIn(region: Region, shift: boolean): void {
    const { drawing, lines, within } = this.bench.getState();
    const found = this.context.picking
      .inRegion(drawing, region, preferences.getState().enclosing)
      .filter((id) => within.length === 0 || isWithin(findLine(drawing, id)!.sheet, id, within))
      .flatMap((id) => this.group(id));
    const takesAway = shift && found.length > 0 && found.every((id) => lines.has(id));
    const gone = new Set(found);
    if (found.length === 0 && this.chooseFlatsIn(region, shift)) return;
    this.bench.choose(takesAway ? [...lines].filter((id) => !gone.has(id)) : shift ? [...lines, ...found] : found);
  }

  /** Flats whose places lie in a region that has no line; whether there are any. */
  private chooseFlatsIn(region: Region, shift: boolean): boolean {
    const { stage, drawing, flats } = this.bench.getState();
    if (stage !== 'colour') return false;
    const found = seenFlats(drawing)
      .filter((f) => regionHolds(region, f.at))
      .map((f) => f.id);
    if (found.length > 0) this.bench.chooseFlats(shift ? [...flats, ...found] : found);
    return found.length > 0;
  }

  key(key: string, e: { shift: boolean }): boolean {
    const { drawing, lines, within } = this.bench.getState();
    if (key === 'Escape' && (this.gesture || this.frame.isBusy)) {
      this.cancel();
      return true;
    }
    if (key === 'Escape' && within.length > 0) {
      this.bench.setState({ within: within.slice(0, -1) });
      this.bench.choose([...lines].flatMap((id) => this.group(id)));
      return true;
    }
    if (lines.size === 0) return keyOnFlats(this.bench, key);
    if (this.nudge.key(key, e.shift)) return true;
    if (key === 'Delete' || key === 'Backspace') this.bench.commit(removeLines(drawing, lines));
    else if (key === 'Escape') return this.escape();
    else return false;
    return true;
  }

  override cancel(): void {
    this.frame.cancel();
    super.cancel();
  }

  override finish(): void {
    this.nudge.finish();
    super.finish();
    if (this.bench.getState().within.length > 0) this.bench.setState({ within: [] });
  }

  pointer(): PointerShape {
    const framed = this.at && !this.gesture && this.frame.pointer(this.at);
    if (framed) return framed;
    if (this.gesture?.for === 'lines') return 'move';
    return this.at && this.gesture?.for !== 'marquee' && this.under(this.at) ? 'over line' : 'arrow';
  }

  paint(ctx: CanvasRenderingContext2D, view: View): void {
    const s = this.bench.getState();
    const shown = shownDrawing(s);
    const isOnFrame = this.frame.isBusy || (this.at !== null && this.frame.under(this.at) !== null);
    const hovered = this.at && !this.gesture && !isOnFrame ? this.under(this.at) : null;
    for (const id of new Set([...linesToMark(s), ...(hovered ? this.group(hovered) : [])])) {
      const found = findLine(shown, id);
      if (found) paintSkeleton(ctx, view, found.line, found.sheet.tag, s.lines.has(id) ? 1.8 : 1);
    }
    paintChosenFlats(ctx, this.bench, view);
    const g = this.gesture;
    if (!g?.moved) this.frame.paint(ctx, view, this.at);
    if (g?.moved && g.marks) paintAlignment(ctx, view, g.marks);
    if (g?.for !== 'marquee' || !g.moved) return;
    if (preferences.getState().marquee === 'lasso') paintLasso(ctx, view, g.lasso);
    else paintMarquee(ctx, toScreen(view, g.from.page), g.to.screen);
  }

  hints(): Hint[] {
    const { lines, within, drawing } = this.bench.getState();
    const framed = this.gesture ? null : this.frame.hints(this.at);
    if (framed) return framed;
    if (this.gesture?.for === 'lines')
      return [
        { keys: 'Ctrl', what: 'keep to nothing' },
        { keys: 'Shift', what: 'hold to 15° steps' },
        { keys: 'Escape', what: 'leave it as it was' },
      ];
    const { marquee, enclosing } = preferences.getState();
    const choose: Hint[] = [
      { keys: 'click a line', what: 'choose it' },
      {
        keys: marquee === 'lasso' ? 'draw around lines' : 'drag a box',
        what: enclosing ? 'choose what lies in it whole' : 'choose what it touches',
      },
    ];
    if (lines.size === 0) return [...choose, { keys: 'Space drag', what: 'pan' }, { keys: 'wheel', what: 'zoom' }];
    const inGroup = isInGroup(drawing, lines, within);
    return [
      { keys: 'drag', what: lines.size === 1 ? 'move it' : `move ${lines.size} lines` },
      { keys: 'Shift click', what: 'add or take away' },
      { keys: 'Alt click', what: 'what lies beneath' },
      ...(inGroup ? [{ keys: 'double-click', what: 'enter the group' }] : []),
      ...(within.length > 0 ? [{ keys: 'Escape', what: 'leave the group' }] : []),
      { keys: 'arrows', what: 'nudge' },
      { keys: 'Delete', what: lines.size === 1 ? 'delete it' : 'delete them' },
    ];
  }
}
