import type { Drawing, Point, Reference } from '@/core';
import type { Picking } from '../canvas/picking';
import type { Bench } from '../state/store';
import type { ToolId } from '../tools/registry';
import type { View } from '../state/view';

/** A place that the hand went through: page units, and the pen's pressure (0…1). */
export type Passed = { readonly page: Point; readonly pressure: number };

/** Where the hand is and what it holds. `page` is in page units, `screen` in CSS px of the canvas. */
export type HandEvent = {
  readonly page: Point;
  readonly screen: Point;
  readonly shift: boolean;
  readonly alt: boolean;
  /** Ctrl, or ⌘. */
  readonly mod: boolean;
  readonly space: boolean;
  /** What is pressed is to be added to what is chosen. */
  readonly more: boolean;
  readonly pressure: number;
  readonly kind: 'mouse' | 'pen' | 'touch';
  /** A press that follows another at once, at the same place. */
  readonly again: boolean;
  /** All places since the last event, this one the last: the hand is seen more often than the screen is drawn. */
  readonly trail: readonly Passed[];
  /** Where the hand is likely to be by the next frame. */
  readonly ahead: readonly Point[];
};

/** What a press would do here; each has a pointer of its own. */
export type PointerShape =
  | 'arrow'
  | 'over line'
  | 'over node'
  | 'pen start'
  | 'pen add'
  | 'pen close'
  | 'pen drop'
  | 'pen join'
  | 'pen touch'
  | 'pen node in'
  | 'pen node out'
  | 'pencil'
  | 'bend'
  | 'shape'
  | 'swell'
  | 'refuse'
  | 'move'
  | 'turn'
  | 'stretch across'
  | 'stretch down'
  | 'stretch falling'
  | 'stretch rising';

/** One thing the hand can do now: what it does with hand or key, and what comes of it. */
export type Hint = { readonly keys: string; readonly what: string };

/** What tools have at hand. */
export type ToolContext = {
  readonly bench: Bench;
  readonly picking: Picking;
  /** Page units that make one CSS px. */
  unit(): number;
  /** Asks for the marks over the page to be painted again. */
  repaint(): void;
  /** Runs something once, when a key is let go of, or the window left. */
  onKeyUp(run: () => void): void;
  /** Takes another tool in hand. */
  takeTool(tool: ToolId): void;
  /** The best bitmap at hand of a reference as it is corrected; null until there is one. */
  picture(r: Reference): ImageBitmap | null;
};

/** A tool: it hears of the hand, changes the drawing by commits, and says what it shows and what can be done. */
export interface Tool {
  press(e: HandEvent): void;
  /** The hand moves with the button down. */
  move(e: HandEvent): void;
  release(e: HandEvent): void;
  /** The hand moves with the button up; null when it has left the page. */
  hover(e: HandEvent | null): void;
  /** A key the tool may want; true when it took it. */
  key(key: string, e: { shift: boolean; alt: boolean }): boolean;
  /** The gesture is called off: what it showed is taken back. */
  cancel(): void;
  /** The tool is put down. What was drawn is kept. */
  finish(): void;
  /** Paints marks over the page. The context is in CSS px of the canvas. */
  paint(ctx: CanvasRenderingContext2D, view: View): void;
  pointer(): PointerShape;
  hints(): Hint[];
  /** The tool is taken in hand. */
  begin?(): void;
  /** The second press of a double one; it comes after `press`, which is told by `again`. */
  twice?(e: HandEvent): void;
  /** What the page shows while the tool is in hand, where that is not the drawing as it is. */
  shows?(drawing: Drawing): Drawing;
}

/** Nearer than this to a node or bead, in CSS px, the hand is on it. */
export const GRIP = 9;
/** Nearer than this to a line, it is on the line. */
export const LINE_GRIP = 7;
/** A place is drawn to a node and to a segment of another line from this near only: strokes of a hatching stay apart. */
export const NODE_PULL = 5;
export const LINE_PULL = 4;
/** Guides and grid draw a place to them from this near, CSS px. */
export const SNAP = 6;
/** A press that moves less than this is a click. */
export const CLICK = 3;

export const gripFor = (e: Pick<HandEvent, 'kind'>, px: number): number => (e.kind === 'touch' ? px * 2 : px);
