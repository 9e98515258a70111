import type { Point } from '@/core';
import { distance, mix, subtract } from '@/core/geometry/point';
import type { Bench } from '../state/store';
import { panned, toPage, zoomedAt } from '../state/view';
import type { HandEvent, Passed, Tool } from '../tools/tool';
import { Fingers } from './fingers';
import { HeldKeys, heldKey } from './heldKeys';
import { KeyHand } from './keyHand';
import { pointIn } from './pointIn';
import type { ReferencePlacer } from './referencePlacer';
import { WheelGesture } from './wheelGesture';

/** A second press that comes as soon and as near as this makes a double one. */
const TWICE_MS = 350;
const TWICE_PX = 6;

/** A finger on the page. */
type Touch = { id: number; at: Point };

/**
 * The hand on the page: mouse, pen, touch and wheel, sorted into what pans and zooms (which works in the middle of a
 * line as well) and what the tool hears of.
 */
export class HandInput {
  private pressed: number | null = null;
  private panFrom: { id: number; at: Point } | null = null;
  private touches: Touch[] = [];
  private readonly held: HeldKeys;
  private readonly keys: KeyHand;
  private readonly turned = new WheelGesture();
  private readonly fingers = new Fingers();
  /** Whether what has the focus got it from a press of the pointer, not from the keyboard. */
  private focusByPointer = false;
  private last: HandEvent | null = null;
  private hasLeft = true;
  private lastPress = { time: -Infinity, at: { x: 0, y: 0 } };
  private readonly stop = new AbortController();

  constructor(
    private readonly element: HTMLElement,
    private readonly bench: Bench,
    private readonly tool: () => Tool,
    private readonly placer: ReferencePlacer,
    private readonly onMoving: () => void,
  ) {
    const { signal } = this.stop;
    this.held = new HeldKeys(() => bench.getState().heldByFinger);
    this.keys = new KeyHand({ element, bench, tool, held: (e) => this.held.of(e) });
    element.style.touchAction = 'none';
    element.addEventListener('pointerdown', this.down, { signal });
    element.addEventListener('pointermove', this.move, { signal });
    element.addEventListener('pointerup', this.up, { signal });
    element.addEventListener('pointercancel', this.cancelled, { signal });
    element.addEventListener('pointerleave', this.leave, { signal });
    element.addEventListener('wheel', this.wheel, { signal, passive: false });
    element.addEventListener('contextmenu', (e) => e.preventDefault(), { signal });
    window.addEventListener('pointerdown', () => (this.focusByPointer = true), { signal, capture: true });
    window.addEventListener('keydown', (e) => this.modifier(e, true), { signal });
    window.addEventListener('keyup', (e) => this.modifier(e, false), { signal });
    window.addEventListener('blur', () => this.holdSpace(false), { signal });
  }

  get isPanning(): boolean {
    return this.panFrom !== null || (this.held.space && this.pressed === null);
  }

  dispose(): void {
    this.held.dispose();
    this.keys.dispose();
    this.stop.abort();
  }

  private hand(e: PointerEvent): HandEvent {
    const { view } = this.bench.getState();
    const screen = pointIn(this.element, e);
    const passed = (p: PointerEvent): Passed => ({
      page: toPage(view, pointIn(this.element, p)),
      pressure: p.pressure,
    });
    // A browser that tells of no events between says nothing, or gives an empty list.
    const between = e.type === 'pointermove' ? (e.getCoalescedEvents?.() ?? []) : [];
    const ahead = e.type === 'pointermove' ? (e.getPredictedEvents?.() ?? []) : [];
    return {
      screen,
      page: toPage(view, screen),
      ...this.held.of(e),
      pressure: e.pressure,
      kind: e.pointerType === 'touch' ? 'touch' : e.pointerType === 'pen' ? 'pen' : 'mouse',
      again: false,
      trail: (between.length > 0 ? between : [e]).map(passed),
      ahead: ahead.map((p) => toPage(view, pointIn(this.element, p))),
    };
  }

  private readonly down = (e: PointerEvent): void => {
    this.fingers.hear(e);
    const use = this.fingers.of(e);
    if (use === 'nothing') return;
    const hand = this.hand(e);
    if (e.pointerType === 'touch') {
      this.touches.push({ id: e.pointerId, at: hand.screen });
      if (this.touches.length === 2) return this.beginPinch();
      if (this.touches.length > 2) return;
    }
    if (this.pressed !== null || this.panFrom) return;
    if (e.button === 1 || (e.button === 0 && (this.held.space || use === 'pan'))) {
      e.preventDefault();
      this.panFrom = { id: e.pointerId, at: hand.screen };
      this.element.setPointerCapture(e.pointerId);
      this.element.style.cursor = 'grabbing';
      return;
    }
    if (e.button !== 0 || this.placer.holds(hand.screen.x, hand.screen.y)) return;
    (document.activeElement as HTMLElement | null)?.blur();
    this.element.setPointerCapture(e.pointerId);
    this.pressed = e.pointerId;
    this.last = hand;
    const again = e.timeStamp - this.lastPress.time < TWICE_MS && distance(hand.screen, this.lastPress.at) < TWICE_PX;
    this.lastPress = { time: again ? -Infinity : e.timeStamp, at: hand.screen };
    this.held.settle();
    const tool = this.tool();
    tool.press({ ...hand, again });
    if (again) tool.twice?.(hand);
  };

  private readonly move = (e: PointerEvent): void => {
    this.fingers.hear(e);
    const hand = this.hand(e);
    const touch = this.touches.find((t) => t.id === e.pointerId);
    if (touch && this.touches.length === 2) return this.pinch(touch, hand.screen);
    if (this.panFrom?.id === e.pointerId) {
      this.onMoving();
      const { view } = this.bench.getState();
      this.bench.setState({ view: panned(view, subtract(hand.screen, this.panFrom.at)) });
      this.panFrom.at = hand.screen;
      return;
    }
    this.last = hand;
    this.hasLeft = false;
    if (this.pressed === e.pointerId) this.tool().move(hand);
    else if (this.pressed === null && !this.placer.isBusy) this.tool().hover(hand);
  };

  private readonly up = (e: PointerEvent): void => {
    this.touches = this.touches.filter((t) => t.id !== e.pointerId);
    if (this.panFrom?.id === e.pointerId) {
      this.panFrom = null;
      this.element.style.cursor = this.held.space ? 'grab' : '';
      this.tool().hover(this.hand(e));
      return;
    }
    if (this.pressed !== e.pointerId) return;
    this.pressed = null;
    this.tool().release(this.hand(e));
    this.held.settle();
  };

  private readonly cancelled = (e: PointerEvent): void => {
    this.touches = this.touches.filter((t) => t.id !== e.pointerId);
    if (this.panFrom?.id === e.pointerId) this.panFrom = null;
    if (this.pressed !== e.pointerId) return;
    this.pressed = null;
    this.tool().cancel();
  };

  private readonly leave = (): void => {
    this.hasLeft = true;
    if (this.pressed === null) this.tool().hover(null);
  };

  /** A second finger turns what the first began into a pinch; what the tool showed is taken back. */
  private beginPinch(): void {
    if (this.pressed !== null) this.tool().cancel();
    this.pressed = null;
    this.panFrom = null;
  }

  private pinch(touch: Touch, to: Point): void {
    const other = this.touches.find((t) => t !== touch)!;
    const before = { middle: mix(touch.at, other.at, 0.5), apart: distance(touch.at, other.at) };
    touch.at = to;
    const after = { middle: mix(touch.at, other.at, 0.5), apart: distance(touch.at, other.at) };
    const { view } = this.bench.getState();
    this.onMoving();
    const zoomed = zoomedAt(view, before.middle, view.scale * (before.apart > 0 ? after.apart / before.apart : 1));
    this.bench.setState({ view: panned(zoomed, subtract(after.middle, before.middle)) });
  }

  /** A wheel zooms at the pointer, and so does a pinch on a trackpad; two fingers on a trackpad pan. */
  private readonly wheel = (e: WheelEvent): void => {
    e.preventDefault();
    this.onMoving();
    const { view } = this.bench.getState();
    const way = this.turned.turn(e);
    if (way !== 'pan') {
      const steps = e.deltaMode !== 0 ? e.deltaY * 30 : e.deltaY;
      const factor = Math.exp(-Math.max(-240, Math.min(240, steps)) * (way === 'zoom by steps' ? 0.0018 : 0.01));
      this.bench.setState({ view: zoomedAt(view, pointIn(this.element, e), view.scale * factor) });
    } else {
      this.bench.setState({ view: panned(view, { x: -e.deltaX, y: -e.deltaY }) });
    }
    if (this.last && this.pressed === null) {
      this.last = { ...this.last, page: toPage(this.bench.getState().view, this.last.screen) };
      this.tool().hover(this.last);
    }
  };

  private modifier(e: KeyboardEvent, down: boolean): void {
    if (e.key === 'Tab') this.focusByPointer = false;
    // Presses with a key between them (Enter, say) are two single ones.
    if (down && !['Shift', 'Alt', 'Control', 'Meta', ' '].includes(e.key)) this.lastPress.time = -Infinity;
    const target = e.target instanceof HTMLElement ? e.target : null;
    const isTyping = target?.closest('input, textarea, [contenteditable], [role="dialog"]');
    if (e.key === ' ' && !(down && isTyping)) {
      const control = target?.closest<HTMLElement>('button, [role="button"], [role="option"], [role="tree"], a');
      // Space presses a control that was reached by keys; one that was clicked lets go of it, for the hand wants to pan.
      if (control && down && this.pressed === null) {
        if (!this.focusByPointer) return;
        control.blur();
      }
      if (down) e.preventDefault();
      this.holdSpace(down);
    }
    const key = heldKey(e.key);
    if (!key) return;
    if (e.key === 'Alt') e.preventDefault();
    if (down) this.held.settle(key);
    else if (this.pressed !== null) this.held.letGo(key, () => this.again());
    this.again(e);
  }

  /** A held key changes what is being shown at once, not with the next move. */
  private again(e?: KeyboardEvent): void {
    if (!this.last) return;
    this.last = { ...this.last, ...this.held.of(e), trail: [], ahead: [] };
    if (this.pressed !== null) this.tool().move(this.last);
    else if (!this.panFrom && !this.held.space && !this.placer.isBusy && !this.hasLeft) this.tool().hover(this.last);
  }

  private holdSpace(down: boolean): void {
    if (this.held.space === down) return;
    this.held.space = down;
    if (this.pressed === null && !this.panFrom) this.element.style.cursor = down ? 'grab' : '';
  }
}
