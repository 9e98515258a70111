import { allLines } from '@/core/drawing/items';
import type { Drawing, Line, Point } from '@/core';
import { wanderingDrawing } from '@/core/test/drawings';
import { Picking } from '../canvas/picking';
import { desk } from '../stages/desk';
import { createBench, type Bench } from '../state/store';
import type { HandEvent, ToolContext, Tool } from '../tools/tool';

/** A bench without a page on the screen, and a hand that works a tool on it. One page unit is one px. */
export function benchWith(drawing: Drawing = wanderingDrawing(0, 1, 1)): Bench {
  return createBench({ id: 'd', title: 'Test', stage: 'trace', drawing, revision: 0 }, desk);
}

type Held = Partial<Pick<HandEvent, 'shift' | 'alt' | 'mod' | 'space' | 'pressure' | 'more' | 'kind' | 'again'>>;

export class Hand<T extends Tool> {
  readonly tool: T;
  private readonly heldKeys: (() => void)[] = [];

  constructor(
    readonly bench: Bench,
    make: (context: ToolContext) => T,
  ) {
    this.tool = make({
      bench,
      picking: new Picking(),
      unit: () => 1 / bench.getState().view.scale,
      repaint: () => undefined,
      onKeyUp: (run) => this.heldKeys.push(run),
      takeTool: (tool) => bench.setState({ tool }),
      picture: () => null,
    });
  }

  private event(p: Point, held: Held): HandEvent {
    const pressure = held.pressure ?? 0.5;
    const free = { shift: false, alt: false, mod: false, space: false, kind: 'mouse' as const, again: false };
    const more = held.more ?? held.shift ?? false;
    return { page: p, screen: p, ...free, more, trail: [{ page: p, pressure }], ahead: [], ...held, pressure };
  }

  hover(p: Point, held: Held = {}): void {
    this.tool.hover(this.event(p, held));
  }

  click(p: Point, held: Held = {}): void {
    this.hover(p, held);
    this.tool.press(this.event(p, held));
    this.tool.release(this.event(p, held));
  }

  drag(from: Point, to: Point, held: Held = {}): void {
    this.hover(from, held);
    this.tool.press(this.event(from, held));
    for (const t of [0.3, 0.6, 1])
      this.tool.move(this.event({ x: from.x + (to.x - from.x) * t, y: from.y + (to.y - from.y) * t }, held));
    this.tool.release(this.event(to, held));
  }

  /** Presses at the first place, goes through the others, and lets go at the last. */
  stroke(points: readonly Point[], held: Held = {}): void {
    this.press(points[0], held);
    for (const p of points.slice(1)) this.move(p, held);
    this.release(points.at(-1)!, held);
  }

  twice = (p: Point, held: Held = {}): void => this.tool.twice?.(this.event(p, held));
  release = (p: Point, held: Held = {}): void => this.tool.release(this.event(p, held));
  press = (p: Point, held: Held = {}): void => this.tool.press(this.event(p, held));
  move = (p: Point, held: Held = {}): void => this.tool.move(this.event(p, held));
  /** A key pressed, held for so many repeats, and let go of. */
  key(key: string, shift = false, times = 1): boolean {
    let taken = false;
    for (let i = 0; i < times; i++) taken = this.tool.key(key, { shift, alt: false });
    for (const run of this.heldKeys.splice(0)) run();
    return taken;
  }

  get lines(): Line[] {
    return allLines(this.bench.getState().drawing);
  }
}
