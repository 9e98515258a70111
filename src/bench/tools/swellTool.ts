import type { Line, Point } from '@/core';
import { setMarks } from '@/core/edits/strokes';
import { findLine } from '@/core/drawing/find';
import type { Mark } from '@/core/drawing/schema';
import { distance, dot, subtract } from '@/core/geometry/point';
import { grownMark, markByKey, movedMark } from '@/core/ink/heldMark';
import { marksAround, withMark } from '@/core/ink/profiles';
import type { Section } from '@/core/ink/nibs/nib';
import { sectionAt, shareNear } from '@/core/ink/sections';
import { formatLength } from '@/ui/format';
import { paintNote, paintSkeleton } from '../canvas/marks';
import { paintRung } from '../canvas/rungs';
import { linesToMark, shownDrawing } from '../state/store';
import { toScreen, type View } from '../state/view';
import { LineTool } from './lineTool';
import { CLICK, gripFor, GRIP, LINE_GRIP, type HandEvent, type Hint, type PointerShape, type Tool } from './tool';

type Gesture = {
  line: string;
  /** Which of the line's runs the hand took hold of. */
  run: number;
  /** The marks as they were, and with the mark in hand. */
  marks: readonly Mark[];
  held: Mark;
  from: HandEvent;
  /** How far from the middle the hand took hold, page units. */
  reach: number;
  moved: boolean;
  /** It is the second press on a mark, which is turned if the hand lets go there. */
  turns?: boolean;
  last: HandEvent;
};

/** How far a place lies to the left of a line's section. */
const acrossOf = ({ p, along }: Section, at: Point): number => dot(subtract(at, p), { x: along.y, y: -along.x });

/** Swell: a line taken anywhere and pulled gets wider there, or thinner; its width marks are moved, copied, taken away. */
export class SwellTool extends LineTool<Gesture> implements Tool {
  /** The chosen line, if there is just one. */
  private get only(): Line | null {
    const { drawing, lines } = this.bench.getState();
    return lines.size === 1 ? (findLine(drawing, [...lines][0])?.line ?? null) : null;
  }

  /** The line under the hand, or within whose body it is: the chosen one first. */
  private under(e: HandEvent): Line | null {
    const { drawing } = this.bench.getState();
    const grip = gripFor(e, LINE_GRIP) * this.context.unit();
    const within = (line: Line): boolean => {
      const near = shareNear(line, e.page);
      const { left, right } = sectionAt(line, near.at, near.run);
      return near.distance <= Math.max(left, right) + grip;
    };
    const { only } = this;
    if (only && within(only)) return only;
    const hit = this.context.picking.under(drawing, e.page, grip, (l) => l.id !== only?.id);
    return hit?.line ?? null;
  }

  /** The number of the mark whose rung is under the hand, on the run nearest to it; -1 for none. */
  private markUnder(line: Line, e: HandEvent): number {
    const grip = gripFor(e, GRIP) * this.context.unit();
    const { run } = shareNear(line, e.page);
    const marks = line.marks ?? [];
    const off = marks.map((m) => {
      const section = sectionAt(line, m.at, run);
      const across = acrossOf(section, e.page);
      const beyond = Math.max(0, across - section.left, -across - section.right);
      return Math.hypot(dot(subtract(e.page, section.p), section.along), beyond);
    });
    const best = off.reduce((b, d, i) => (d < (off[b] ?? Infinity) ? i : b), -1);
    return best >= 0 && off[best] <= grip ? best : -1;
  }

  press(e: HandEvent): void {
    const line = this.under(e);
    const sheet = line && findLine(this.bench.getState().drawing, line.id)?.sheet;
    if (!line || !sheet || this.bench.getState().reading) {
      if (!e.shift) this.bench.choose([]);
      return this.context.repaint();
    }
    const index = this.markUnder(line, e);
    const { run, at } = shareNear(line, e.page);
    const section = sectionAt(line, at, run);
    const inHand = this.only?.id === line.id ? line.marks?.[this.bench.getState().mark ?? -1] : undefined;
    if (this.only?.id !== line.id) this.bench.choose([line.id]);
    const own = line.marks ?? [];
    const held: Mark =
      index >= 0 ? own[index] : e.mod && inHand ? { ...inHand, at } : { at, left: section.left, right: section.right };
    // A line without marks gets others, so that pulling at one place leaves it as it is further on.
    const rest = own.length > 0 ? own : marksAround(line, at);
    const marks = index >= 0 ? own : withMark(rest, held);
    this.bench.setState({ mark: index >= 0 ? index : null });
    const reach = Math.abs(acrossOf(sectionAt(line, held.at, run), e.page));
    this.gesture = { line: line.id, run, marks, held, from: e, reach, moved: false, last: e };
    this.context.repaint();
  }

  /** The marks as the hand would have them. */
  private marksOf(g: Gesture): Mark[] {
    const line = findLine(this.bench.getState().drawing, g.line)!.line;
    const others = g.marks.filter((m) => m !== g.held);
    if (g.last.shift) return withMark(others, movedMark(g.marks, g.held, shareNear(line, g.last.page, g.run).at));
    const across = acrossOf(sectionAt(line, g.held.at, g.run), g.last.page);
    const side = !g.last.alt ? 'both' : across >= 0 ? 'left' : 'right';
    // Away from the middle it gets wider, on whichever side; towards it thinner.
    return withMark(others, grownMark(g.held, Math.abs(across) - g.reach, side));
  }

  private edit(g: Gesture) {
    return setMarks(this.bench.getState().drawing, new Map([[g.line, this.marksOf(g)]]), 'Swell line');
  }

  move(e: HandEvent): void {
    this.at = e;
    const g = this.gesture;
    if (!g) return;
    g.last = e;
    g.moved ||= distance(e.screen, g.from.screen) >= CLICK;
    if (g.moved) this.bench.show(this.edit(g));
    this.context.repaint();
  }

  release(e: HandEvent): void {
    const g = this.gesture;
    this.gesture = null;
    if (!g) return;
    g.last = e;
    if (g.turns && !g.moved) this.turn(g);
    else if (g.moved || (e.mod && !findLine(this.bench.getState().drawing, g.line)?.line.marks?.includes(g.held))) {
      const marks = this.marksOf(g);
      this.bench.commit(setMarks(this.bench.getState().drawing, new Map([[g.line, marks]]), 'Swell line'));
      const near = marks.findIndex((m) => !g.marks.includes(m));
      this.bench.setState({ mark: near >= 0 ? near : null });
    } else if (e.shift) this.bench.choose([g.line]);
    this.context.repaint();
  }

  /** A second press on a mark makes it sharp, or soft again; one that is pulled pulls. */
  twice(e: HandEvent): void {
    const line = this.under(e);
    if (this.gesture && line) this.gesture.turns = this.markUnder(line, e) >= 0;
  }

  private turn(g: Gesture): void {
    const index = g.marks.indexOf(g.held);
    const turned = { ...g.held, sharp: !g.held.sharp };
    const marks = g.marks.with(index, turned);
    this.bench.commit(setMarks(this.bench.getState().drawing, new Map([[g.line, marks]]), 'Turn mark'));
    this.bench.setState({ mark: index });
  }

  key(key: string, { shift }: { shift: boolean }): boolean {
    if (key === 'Escape') return this.escape();
    const line = this.only;
    const { mark } = this.bench.getState();
    const done = line && mark !== null ? markByKey(line.marks ?? [], mark, key, shift) : null;
    if (!line || !done) return false;
    this.bench.commit(setMarks(this.bench.getState().drawing, new Map([[line.id, done.marks]]), done.label));
    this.bench.setState({ mark: done.isGone ? null : mark });
    this.context.repaint();
    return true;
  }

  pointer(): PointerShape {
    if (this.gesture) return this.gesture.last.shift ? 'move' : 'swell';
    if (!this.at) return 'arrow';
    const line = this.under(this.at);
    return line ? 'swell' : 'arrow';
  }

  paint(ctx: CanvasRenderingContext2D, view: View): void {
    const s = this.bench.getState();
    const shown = shownDrawing(s);
    for (const id of linesToMark(s)) {
      const found = findLine(shown, id);
      if (!found) continue;
      paintSkeleton(ctx, view, found.line, found.sheet.tag);
      if (s.lines.size > 20) continue;
      const inHand = this.gesture ? this.heldIn(found.line) : s.lines.size === 1 ? s.mark : null;
      const { runs, marks = [] } = found.line;
      for (const [run] of runs.entries())
        marks.forEach((m, i) =>
          paintRung(ctx, view, sectionAt(found.line, m.at, run), found.sheet.tag, {
            sharp: m.sharp === true,
            chosen: i === inHand,
            // Of many lines the marks are told, but do not hide what they are on.
            faint: s.lines.size > 1,
          }),
        );
    }
    this.paintHere(ctx, view);
  }

  private heldIn(line: Line): number {
    const g = this.gesture;
    if (!g || g.line !== line.id) return -1;
    return (line.marks ?? []).findIndex((m) => !g.marks.includes(m) || m === g.held);
  }

  /** The width where the hand is, with its figure. */
  private paintHere(ctx: CanvasRenderingContext2D, view: View): void {
    const e = this.gesture?.last ?? this.at;
    if (!e) return;
    const id = this.gesture?.line ?? this.under(e)?.id;
    const found = id === undefined ? null : findLine(shownDrawing(this.bench.getState()), id);
    if (!found) return;
    const { line, sheet } = found;
    const held = this.gesture && line.marks?.[this.heldIn(line)];
    const near = shareNear(line, e.page, this.gesture?.run);
    const section = sectionAt(line, held?.at ?? near.at, near.run);
    if (!this.gesture) paintRung(ctx, view, section, sheet.tag, { sharp: false, chosen: false, faint: true });
    const to: Point = toScreen(view, e.page);
    const isEven = Math.abs(section.left - section.right) < 0.005;
    const figure = isEven
      ? formatLength(section.left + section.right, 'pt')
      : `${formatLength(section.left, 'pt')} left, ${formatLength(section.right, 'pt')} right`;
    paintNote(ctx, { x: to.x + 16, y: to.y - 14 }, figure);
  }

  hints(): Hint[] {
    if (this.gesture)
      return [
        { keys: 'Alt', what: 'this side alone' },
        { keys: 'Shift', what: 'move it along the line' },
        { keys: 'Escape', what: 'leave it as it was' },
      ];
    const line = this.at && this.under(this.at);
    if (line && this.at && this.markUnder(line, this.at) >= 0)
      return [
        { keys: 'drag', what: 'wider or thinner; Alt: one side; Shift: along the line' },
        { keys: 'press twice', what: 'sharp or soft' },
        { keys: 'Delete', what: 'take the mark in hand away' },
      ];
    if (line)
      return [
        { keys: 'pull', what: 'swell the line here; Alt: one side alone' },
        { keys: 'Ctrl press', what: 'put a copy of the mark in hand here' },
      ];
    const { lines } = this.bench.getState();
    return [
      { keys: 'pull a line', what: 'it gets wider or thinner there' },
      ...(lines.size > 0 ? [{ keys: '+ −', what: 'wider or thinner on the whole' }] : []),
      { keys: 'Ctrl A', what: 'all lines' },
    ];
  }
}
