import type { Point } from '@/core';
import type { Bench } from '../state/store';
import { panned, toPage } from '../state/view';
import type { HandEvent, Tool } from '../tools/tool';
import type { Held } from './heldKeys';

/** How far an arrow key moves the cross, px: by itself, and with Shift. */
const STEP = 8;
const FINE = 1;
/** The cross keeps so far from the edges of what is seen of the page, px: the page moves instead. */
const MARGIN = 40;

const directions: Record<string, Point> = {
  ArrowLeft: { x: -1, y: 0 },
  ArrowRight: { x: 1, y: 0 },
  ArrowUp: { x: 0, y: -1 },
  ArrowDown: { x: 0, y: 1 },
};

type Reach = {
  readonly element: HTMLElement;
  readonly bench: Bench;
  readonly tool: () => Tool;
  readonly held: (e: KeyboardEvent) => Held;
};

/**
 * The hand of who works by keys alone. Once the page has been reached by Tab, arrows move a cross over it, and Space is the
 * button: a tap presses, held while arrows move it drags. All other keys are what they are with a pointer.
 */
export class KeyHand {
  private readonly cross = document.createElement('div');
  private at: Point | null = null;
  private isDown = false;
  private readonly stop = new AbortController();

  constructor(private readonly reach: Reach) {
    const { element } = reach;
    const { signal } = this.stop;
    this.cross.className = 'key-cross';
    this.cross.hidden = true;
    element.parentElement?.append(this.cross);
    element.tabIndex = 0;
    // A press of the pointer is no arrival by keys.
    element.addEventListener('mousedown', (e) => e.preventDefault(), { signal });
    element.addEventListener('focus', () => this.begin(), { signal });
    element.addEventListener('blur', () => this.end(), { signal });
    element.addEventListener('keydown', (e) => this.key(e), { signal });
    element.addEventListener('keyup', (e) => this.keyUp(e), { signal });
    element.addEventListener('pointermove', () => this.element.blur(), { signal });
  }

  dispose(): void {
    this.stop.abort();
    this.cross.remove();
  }

  private get element(): HTMLElement {
    return this.reach.element;
  }

  private begin(): void {
    const { clientWidth: width, clientHeight: height } = this.element;
    this.at ??= { x: width / 2, y: height / 2 };
    this.cross.hidden = false;
    this.place();
  }

  private end(): void {
    this.cross.hidden = true;
    if (this.isDown) this.reach.tool().cancel();
    this.isDown = false;
    this.reach.tool().hover(null);
  }

  private place(): void {
    if (this.at) this.cross.style.transform = `translate(${this.at.x}px, ${this.at.y}px)`;
  }

  private hand(e: KeyboardEvent, held: Held = this.reach.held(e)): HandEvent {
    const screen = this.at!;
    const page = toPage(this.reach.bench.getState().view, screen);
    const trail = [{ page, pressure: 0.5 }];
    return { screen, page, ...held, pressure: 0.5, kind: 'mouse', again: false, trail, ahead: [] };
  }

  private key(e: KeyboardEvent): void {
    if (!this.at || e.ctrlKey || e.metaKey) return;
    const way = directions[e.key];
    const isButton = e.key === ' ';
    if (!way && !isButton) return;
    e.preventDefault();
    e.stopPropagation();
    // With Alt arrows nudge what is chosen, as they do when a pointer is in the hand.
    if (way && e.altKey) return void this.reach.tool().key(e.key, { shift: e.shiftKey, alt: false });
    if (isButton) {
      if (e.repeat || this.isDown) return;
      this.isDown = true;
      return this.reach.tool().press(this.hand(e));
    }
    this.move(way, e.shiftKey ? FINE : STEP);
    // Shift is for the fine steps: it constrains nothing here.
    const hand = this.hand(e, { ...this.reach.held(e), shift: false, more: false });
    if (this.isDown) this.reach.tool().move(hand);
    else this.reach.tool().hover(hand);
  }

  private keyUp(e: KeyboardEvent): void {
    if (e.key !== ' ' || !this.isDown) return;
    e.preventDefault();
    e.stopPropagation();
    this.isDown = false;
    this.reach.tool().release(this.hand(e));
  }

  /** Moves the cross; at the edge of what is seen, the page beneath it. */
  private move(way: Point, by: number): void {
    const { bench } = this.reach;
    const { clientWidth: width, clientHeight: height } = this.element;
    const to = { x: this.at!.x + way.x * by, y: this.at!.y + way.y * by };
    const kept = {
      x: Math.max(MARGIN, Math.min(width - MARGIN, to.x)),
      y: Math.max(MARGIN, Math.min(height - MARGIN, to.y)),
    };
    if (kept.x !== to.x || kept.y !== to.y)
      bench.setState((s) => ({ view: panned(s.view, { x: kept.x - to.x, y: kept.y - to.y }) }));
    this.at = kept;
    this.place();
  }
}
