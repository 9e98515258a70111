import type { Drawing } from '@/core';
import type { Differences } from '@/core/scene/differences';
import type { Timeline } from '@/core/replay/timing';
import type { Size, View } from '../view';

/**
 * How the work is compared. Wipe: the reference to the left of a share of the window, the lines to the right of it.
 * Beside: the work on the left, the reference alone on the right. Blink: now one, now the other.
 */
export type Compare = { readonly kind: 'wipe'; readonly at: number } | { readonly kind: 'beside' | 'blink' };

/**
 * A replay under way: the lines of the drawing as far as they are drawn at a time, s; or the drawing as it was at a point of its
 * history, in place of what it is.
 */
export type Replay = (
  | { readonly kind: 'order'; readonly timeline: Timeline; readonly at: number }
  | { readonly kind: 'history'; readonly drawing: Drawing }
) & {
  /** Whether it goes on by itself. */
  readonly runs: boolean;
};

/** How the page is looked at. */
export type SeenState = {
  readonly view: View;
  readonly window: Size;
  /** The sheet that is seen alone; null when all are seen as they are set. */
  readonly solo: string | null;
  readonly compare: Compare | null;
  readonly peek: boolean;
  /** Drawing and picture are seen in the same few greys. */
  readonly squinting: boolean;
  readonly rulers: boolean;
  /** Things are seen as they were: pictures before their tones were corrected, lines before what is being tried. */
  readonly uncorrected: boolean;
  /** The lines are lifted away. */
  readonly lifted: boolean;
  /** Null when the drawing is seen as it is. */
  readonly replay: Replay | null;
  /** Two states of the drawing that are compared on the page: what differs, and which they are, in words. */
  readonly differences: { readonly found: Differences; readonly label: string } | null;
  /** The keys that a finger of the other hand holds on the page itself. */
  readonly heldByFinger: {
    readonly shift?: boolean;
    readonly alt?: boolean;
    readonly mod?: boolean;
    /** What is pressed is added to what is chosen. */
    readonly more?: boolean;
  };
};

export const plainlySeen: SeenState = {
  view: { scale: 1, x: 0, y: 0 },
  window: { width: 0, height: 0 },
  solo: null,
  compare: null,
  peek: false,
  squinting: false,
  rulers: false,
  uncorrected: false,
  lifted: false,
  replay: null,
  differences: null,
  heldByFinger: {},
};
