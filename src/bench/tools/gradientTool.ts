import { nanoid } from 'nanoid';
import type { Item, Point } from '@/core';
import { findItem } from '@/core/drawing/find';
import type { Gradient } from '@/core/drawing/paint';
import { boxOfItem, fillWithGradient, fromItem, gradientOfItem, intoItem, setGradient } from '@/core/edits/fills';
import { shapeAt } from '@/core/edits/keepInside';
import { fillOf } from '@/core/edits/shades';
import { add, distance, mix, snapDirection, subtract } from '@/core/geometry/point';
import { mixed } from '@/core/colour/colour';
import { opaqueColourOf } from '@/core/scene/ink';
import type { Edit } from '@/core/change/edit';
import { sheetToDraw } from '../commands/sheetToDraw';
import { paintGradientMarks } from '../canvas/gradientMarks';
import { preferences } from '../state/preferences';
import { onlyChosen } from '../state/chosen';
import { toScreen, type View } from '../state/view';
import { PointedTool } from './pointedTool';
import { CLICK, GRIP, type HandEvent, type Hint, type PointerShape, type Tool } from './tool';

/** What is taken hold of: an end of the gradient's way, or one of its stops. */
type Grip = 'from' | 'to' | { readonly stop: number };

/** A gradient as it lies on the page. */
type Laid = { readonly item: Item; readonly gradient: Gradient; readonly from: Point; readonly to: Point };

/** Gradients pulled across filled shapes; their ends and stops moved by hand. */
export class GradientTool extends PointedTool implements Tool {
  private held: { grip: Grip; laid: Laid } | { shape: string; from: HandEvent } | null = null;
  private edit: Edit | null = null;

  /** The gradient of the shape in hand: the flat, or the one chosen line. */
  private laid(): Laid | null {
    const s = this.bench.getState();
    const d = s.preview ?? s.drawing;
    const id = onlyChosen(s);
    const item = id === null ? undefined : findItem(d, id)?.item;
    const gradient = item && gradientOfItem(d, item);
    const box = item && boxOfItem(item);
    if (!item || !gradient || !box) return null;
    const onPage = (p: Point): Point => (gradient.space === 'page' ? p : fromItem(box, p));
    return { item, gradient, from: onPage(gradient.from), to: onPage(gradient.to) };
  }

  private gripAt(laid: Laid, at: Point): Grip | null {
    const reach = GRIP * this.context.unit();
    // The stops at the ends lie beneath these.
    const middle = laid.gradient.stops.findIndex(
      (s) => s.at > 0 && s.at < 1 && distance(mix(laid.from, laid.to, s.at), at) < reach,
    );
    if (middle >= 0) return { stop: middle };
    if (distance(laid.to, at) < reach) return 'to';
    return distance(laid.from, at) < reach ? 'from' : null;
  }

  press(e: HandEvent): void {
    this.at = e;
    this.edit = null;
    const laid = this.laid();
    const grip = laid && this.gripAt(laid, e.page);
    if (laid && grip) {
      this.held = { grip, laid };
      this.pick(laid, grip);
      return;
    }
    if (laid && this.addStop(laid, e.page)) return;
    const { drawing } = this.bench.getState();
    const shape = shapeAt(drawing, e.page);
    const item = shape === null ? undefined : findItem(drawing, shape)?.item;
    if (!item || !fillOf(item)) {
      this.bench.tell('There is no filled shape here. Pour a flat first, or fill a closed line.');
      return;
    }
    const { sheet } = findItem(drawing, item.id)!;
    if (!sheetToDraw(this.bench, sheet.id, 'nothing is filled on it')) return;
    this.take(item);
    if (!gradientOfItem(drawing, item)) this.held = { shape: item.id, from: e };
  }

  /** Takes a shape in hand: a flat, or a line. */
  private take(item: Item): void {
    if (item.kind === 'flat') this.bench.chooseFlats([item.id]);
    else this.bench.choose([item.id]);
    this.bench.setState({ stop: null });
  }

  private pick({ gradient }: Laid, grip: Grip): void {
    const { stops } = gradient;
    const stop = typeof grip === 'object' ? grip.stop : grip === 'from' ? 0 : stops.length - 1;
    this.bench.setState({ stop });
  }

  /** A press on the way puts a stop there, of the colour that is seen there. */
  private addStop({ gradient, from, to }: Laid, p: Point): boolean {
    const { drawing } = this.bench.getState();
    const long = distance(from, to);
    if (long < 1e-6) return false;
    const at = ((p.x - from.x) * (to.x - from.x) + (p.y - from.y) * (to.y - from.y)) / long ** 2;
    if (at < 0.02 || at > 0.98 || distance(mix(from, to, at), p) > (GRIP / 2) * this.context.unit()) return false;
    const colour = (c: Gradient['stops'][number]['colour']): string => opaqueColourOf(drawing, c);
    const after = gradient.stops.findIndex((s) => s.at > at);
    const [a, b] = [gradient.stops[Math.max(0, after - 1)], gradient.stops[after] ?? gradient.stops.at(-1)!];
    const stops = [...gradient.stops, { at, colour: mixed(colour(a.colour), colour(b.colour)) }];
    this.bench.commit(setGradient(drawing, gradient.id, { stops }));
    this.bench.setState({ stop: after < 0 ? stops.length - 1 : after });
    return true;
  }

  move(e: HandEvent): void {
    this.at = e;
    const { held } = this;
    if (!held) return;
    this.edit = 'grip' in held ? this.moved(held, e) : this.pulled(held, e);
    this.bench.show(this.edit);
  }

  private moved({ grip, laid }: { grip: Grip; laid: Laid }, e: HandEvent): Edit {
    const { drawing } = this.bench.getState();
    const { gradient, from, to, item } = laid;
    const box = boxOfItem(item)!;
    const own = (p: Point): Point => (gradient.space === 'page' ? p : intoItem(box, p));
    if (typeof grip !== 'object') {
      const p = e.shift ? inSteps(grip === 'from' ? to : from, e.page) : e.page;
      return setGradient(drawing, gradient.id, { [grip]: own(p) });
    }
    const long = distance(from, to) ** 2 || 1;
    const at = ((e.page.x - from.x) * (to.x - from.x) + (e.page.y - from.y) * (to.y - from.y)) / long;
    const held = Math.min(0.99, Math.max(0.01, at));
    const stops = gradient.stops.map((s, i) => (i === grip.stop ? { ...s, at: held } : s));
    return setGradient(drawing, gradient.id, { stops });
  }

  private pulled({ shape, from }: { shape: string; from: HandEvent }, e: HandEvent): Edit | null {
    const { drawing } = this.bench.getState();
    const item = findItem(drawing, shape)?.item;
    const box = item && boxOfItem(item);
    if (!box || distance(from.screen, e.screen) < CLICK) return null;
    const to = e.shift ? inSteps(from.page, e.page) : e.page;
    const way = { kind: preferences.getState().gradientKind, from: intoItem(box, from.page), to: intoItem(box, to) };
    return fillWithGradient(drawing, [shape], way, nanoid(12));
  }

  release(): void {
    this.held = null;
    if (this.edit) this.bench.commit(this.edit);
    else this.bench.show(null);
    this.edit = null;
  }

  key(key: string): boolean {
    if (key !== 'Delete' && key !== 'Backspace') return false;
    const laid = this.laid();
    const { stop, drawing } = this.bench.getState();
    if (!laid || stop === null || laid.gradient.stops.length < 3) return false;
    const stops = laid.gradient.stops.filter((_, i) => i !== stop);
    this.bench.commit(setGradient(drawing, laid.gradient.id, { stops }));
    this.bench.setState({ stop: null });
    return true;
  }

  cancel(): void {
    this.held = this.edit = null;
    this.bench.show(null);
  }

  finish(): void {
    if (this.held) this.cancel();
    this.bench.setState({ stop: null });
  }

  paint(ctx: CanvasRenderingContext2D, view: View): void {
    const laid = this.laid();
    if (!laid) return;
    const { drawing, stop } = this.bench.getState();
    paintGradientMarks(
      ctx,
      toScreen(view, laid.from),
      toScreen(view, laid.to),
      laid.gradient.stops.map((s) => ({ at: s.at, colour: opaqueColourOf(drawing, s.colour) })),
      stop,
      laid.gradient.kind === 'radial',
    );
  }

  pointer(): PointerShape {
    const laid = this.laid();
    return laid && this.at && this.gripAt(laid, this.at.page) ? 'move' : 'shape';
  }

  hints(): Hint[] {
    return this.laid()
      ? [
          { keys: 'drag', what: 'an end or a stop of the gradient; Shift in 15° steps' },
          { keys: 'click', what: 'on its way: another stop' },
          { keys: 'Delete', what: 'the stop in hand goes' },
        ]
      : [{ keys: 'drag', what: 'across a filled shape: fill it with a gradient' }];
  }
}

/** A place as far off, in a direction of whole steps of 15°. */
const inSteps = (from: Point, to: Point): Point => add(from, snapDirection(subtract(to, from), 15));
