import type { Box, Drawing, Point } from '@/core';
import type { AlignmentMark, Sides } from '@/core/drawing/alignment';
import { edit, type Edit } from '@/core/change/edit';
import { boxOfLines, transformLines } from '@/core/edits/transform';
import { frameGrips, frameMap, placeInBox, type Framed, type FrameGrip } from '@/core/geometry/frame';
import { mapPoint } from '@/core/geometry/matrix';
import { boxOfPoints } from '@/core/geometry/box';
import { add, distance, subtract } from '@/core/geometry/point';
import { formatNumber, formatShare } from '@/ui/format';
import { paintAlignment } from '../canvas/alignMarks';
import { paintFrame, paintGrip, paintOrigin, type ShownGrip } from '../canvas/frameMarks';
import { paintNote } from '../canvas/marks';
import { preferences } from '../state/preferences';
import { middleOrigin, type Origin } from '../state/slices/selection';
import { MANY, shownDrawing, type BenchState } from '../state/store';
import { toScreen, type View } from '../state/view';
import { Aligning } from './aligning';
import { CLICK, gripFor, SNAP, type HandEvent, type Hint, type PointerShape, type ToolContext } from './tool';

/** How far the frame stands off what is in it, and what turns and slants beyond it; and how near a grip is taken; CSS px. */
const [PAD, BEYOND, REACH] = [14, 17, 8];
/** Of more lines than this the box around them would be felt. */
const MOST = 2000;

type Held = {
  grip: FrameGrip | 'origin';
  from: HandEvent;
  to: HandEvent;
  moved: boolean;
  box: Box;
  aligning: Aligning;
  /** What the frame's side lies in line with. */
  marks: readonly AlignmentMark[];
};

/** Where the origin is for lines within a box. */
export const originIn = (origin: Origin, box: Box): Point =>
  'place' in origin ? origin.place : placeInBox(box, origin.share);

/** The frame around chosen lines: its grips scale, turn and slant them, its origin is dragged to where it is wanted. */
export class FrameHand {
  private held: Held | null = null;
  private known: { drawing: Drawing; lines: ReadonlySet<string>; box: Box | null } | null = null;

  constructor(private readonly context: ToolContext) {}

  get isBusy(): boolean {
    return this.held !== null;
  }

  private get state(): BenchState {
    return this.context.bench.getState();
  }

  private box(drawing: Drawing = this.state.drawing): Box | null {
    const { lines, reading } = this.state;
    if (reading || lines.size === 0 || lines.size > MOST || !preferences.getState().frame) return null;
    if (this.known?.drawing !== drawing || this.known.lines !== lines)
      this.known = { drawing, lines, box: boxOfLines(drawing, lines) };
    return this.known.box;
  }

  private grips(box: Box, view: View): ShownGrip[] {
    const unit = 1 / view.scale;
    return frameGrips(box, PAD * unit, BEYOND * unit).map(({ grip, at }) => ({ grip, at: toScreen(view, at) }));
  }

  /** What of the frame is under the hand; a grip before the origin, which may lie on it. */
  under(e: HandEvent): FrameGrip | 'origin' | null {
    const box = this.box();
    if (!box) return null;
    const { view, origin } = this.state;
    const reach = gripFor(e, REACH);
    const near = this.grips(box, view)
      .map(({ grip, at }) => ({ grip, off: distance(at, e.screen) }))
      .filter(({ off }) => off <= reach)
      .sort((a, b) => a.off - b.off);
    if (near.length > 0) return near[0].grip;
    return distance(this.ringAt(box, view, origin), e.screen) <= reach ? 'origin' : null;
  }

  /** Where the origin's ring is on the screen: until it is put somewhere it waits below the frame, in nobody's way. */
  private ringAt(box: Box, view: View, origin: Origin): Point {
    if (!isMiddle(origin) || this.held) return toScreen(view, originIn(origin, box));
    const { x, y } = toScreen(view, placeInBox(box, { x: 0.5, y: 1 }));
    return { x, y: y + PAD + BEYOND + 4 };
  }

  /** Takes hold of what is under the hand; whether there was anything. */
  press(e: HandEvent): boolean {
    const grip = this.under(e);
    const box = this.box();
    if (!grip || !box) return false;
    const { drawing, lines } = this.state;
    const aligning = new Aligning(this.context, drawing, lines, box);
    this.held = { grip, from: e, to: e, moved: false, box, aligning, marks: [] };
    return true;
  }

  move(e: HandEvent): void {
    const g = this.held;
    if (!g || (!g.moved && distance(e.screen, g.from.screen) < CLICK)) return;
    g.moved = true;
    g.to = e;
    if (g.grip === 'origin') this.context.bench.setState({ origin: this.originAt(g, e) });
    else if (this.state.lines.size <= MANY) this.context.bench.show(this.edit(g));
    else this.framed(g);
  }

  release(e: HandEvent): void {
    const g = this.held;
    this.held = null;
    if (!g?.moved || g.grip === 'origin') return;
    this.context.bench.commit(this.edit({ ...g, to: e }));
  }

  cancel(): void {
    this.held = null;
  }

  /** A second press on the origin brings it back to the middle. */
  twice(e: HandEvent): boolean {
    if (this.held?.grip !== 'origin' && this.under(e) !== 'origin') return false;
    this.held = null;
    this.context.bench.setState({ origin: middleOrigin });
    return true;
  }

  /** The origin keeps to the corners, sides and middle of the box, and to nodes. */
  private originAt(g: Held, e: HandEvent): Origin {
    const reach = gripFor(e, SNAP) * this.context.unit();
    if (e.mod) return { place: e.page };
    const shares = [0, 0.5, 1].flatMap((y) => [0, 0.5, 1].map((x) => ({ x, y })));
    const near = shares
      .map((share) => ({ share, off: distance(placeInBox(g.box, share), e.page) }))
      .sort((a, b) => a.off - b.off)[0];
    if (near.off <= reach) return { share: near.share };
    const node = this.context.picking.nearestNode(this.state.drawing, e.page, reach);
    return { place: node?.point ?? e.page };
  }

  private framed(g: Held): Framed {
    const grip = g.grip as FrameGrip;
    const isCorner = grip.deed === 'scale' && grip.x !== 0 && grip.y !== 0;
    const keeps = isCorner && preferences.getState().keepShape && !g.to.mod;
    const held = { keep: g.to.shift || keeps, steps: g.to.shift, aboutOrigin: g.to.alt };
    // A corner that keeps the shape goes along its diagonal, not to where it would be in line.
    const to = grip.deed === 'scale' && !(isCorner && held.keep) ? this.inLine(g, grip) : g.to.page;
    const origin = originIn(this.state.origin, g.box);
    return frameMap(grip, g.box, [g.from.page, to], origin, held);
  }

  /** Where the hand would be were the side that it drags in line with others. */
  private inLine(g: Held, { x, y }: Extract<FrameGrip, { deed: 'scale' }>): Point {
    g.marks = [];
    if (g.to.mod) return g.to.page;
    const side = placeInBox(g.box, { x: (x + 1) / 2, y: (y + 1) / 2 });
    const at = add(side, subtract(g.to.page, g.from.page));
    const place = { minX: at.x, minY: at.y, maxX: at.x, maxY: at.y };
    const sides: Sides = { x: x === 0 ? [] : ['low'], y: y === 0 ? [] : ['low'] };
    const { by, marks } = g.aligning.of(place, sides);
    g.marks = marks;
    return add(g.to.page, by);
  }

  private edit(g: Held): Edit {
    const { drawing, lines } = this.state;
    const { map, unit } = this.framed(g);
    const grip = g.grip as FrameGrip;
    const verb = grip.deed === 'scale' ? 'Scale' : grip.deed === 'turn' ? 'Turn' : 'Slant';
    if ([map.a - 1, map.b, map.c, map.d - 1, map.e, map.f].every((v) => Math.abs(v) < 1e-9)) return edit(verb);
    return transformLines(drawing, lines, map, unit === '%' && preferences.getState().scaleWidths, verb);
  }

  pointer(e: HandEvent): PointerShape | null {
    const grip = this.held?.grip ?? this.under(e);
    if (!grip) return null;
    if (grip === 'origin') return 'move';
    if (grip.deed === 'turn') return 'turn';
    if (grip.deed === 'slant') return grip.axis === 'across' ? 'stretch across' : 'stretch down';
    if (grip.x === 0) return 'stretch down';
    return grip.y === 0 ? 'stretch across' : grip.x === grip.y ? 'stretch falling' : 'stretch rising';
  }

  paint(ctx: CanvasRenderingContext2D, view: View, at: HandEvent | null): void {
    const s = this.state;
    const g = this.held;
    const isShape = g?.moved && g.grip !== 'origin';
    const box = isShape ? this.shownBox(g, s) : this.box();
    if (!box) return;
    paintFrame(ctx, view, box, PAD);
    const here = g?.grip ?? (at && this.under(at));
    if (!isShape) for (const shown of this.grips(box, view)) paintGrip(ctx, shown, isSame(shown.grip, here));
    paintOrigin(ctx, this.ringAt(g?.box ?? box, view, s.origin), here === 'origin');
    if (!isShape) return;
    paintAlignment(ctx, view, g.marks);
    const { x, y } = toScreen(view, g.to.page);
    paintNote(ctx, { x: x + 18, y: y - 16 }, figuresOf(this.framed(g)));
  }

  /** The box while it is changed: of few lines as they are shown, of very many that of its corners. */
  private shownBox(g: Held, s: BenchState): Box | null {
    if (s.lines.size <= MANY) return this.box(shownDrawing(s));
    const { map } = this.framed(g);
    const corners = [0, 1].flatMap((y) => [0, 1].map((x) => mapPoint(map, placeInBox(g.box, { x, y }))));
    return boxOfPoints(corners);
  }

  hints(at: HandEvent | null): Hint[] | null {
    const grip = this.held?.grip ?? (at && this.under(at));
    if (!grip) return null;
    if (grip === 'origin')
      return [
        { keys: 'drag', what: 'the place about which things turn; keeps to corners, middles and nodes' },
        { keys: 'double-click', what: 'back to the middle' },
        { keys: 'Ctrl', what: 'keep to nothing' },
      ];
    if (grip.deed === 'turn')
      return [
        { keys: 'drag', what: 'turn about the ringed place' },
        { keys: 'Shift', what: 'hold to 15° steps' },
      ];
    if (grip.deed === 'slant')
      return [
        { keys: 'drag', what: 'slant about the ringed place' },
        { keys: 'Shift', what: 'hold to 5° steps' },
      ];
    const isCorner = grip.x !== 0 && grip.y !== 0;
    const keeps = isCorner && preferences.getState().keepShape;
    return [
      { keys: 'drag', what: keeps ? 'scale, keep the shape' : isCorner ? 'scale' : 'scale one way' },
      keeps ? { keys: 'Ctrl', what: 'let the shape go' } : { keys: 'Shift', what: 'keep the shape' },
      { keys: 'Alt', what: 'about the ringed place' },
    ];
  }
}

const isMiddle = (o: Origin): boolean => 'share' in o && o.share.x === 0.5 && o.share.y === 0.5;

const isSame = (a: FrameGrip, b: FrameGrip | 'origin' | null | undefined): boolean =>
  !!b && b !== 'origin' && JSON.stringify(a) === JSON.stringify(b);

const figuresOf = ({ figures, unit }: Framed): string =>
  unit === '°' ? `${formatNumber(figures[0], 1)}°` : [...new Set(figures.map((k) => formatShare(k, 1)))].join(' × ');
