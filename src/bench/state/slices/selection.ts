import type { Drawing, Point } from '@/core';
import { isOpenSheet } from '@/core/drawing/find';

/** About which place things are scaled, turned and copied: one of the box around them, by shares, or one of the page. */
export type Origin = { readonly share: Point } | { readonly place: Point };

export const middleOrigin: Origin = { share: { x: 0.5, y: 0.5 } };

/** What is in hand: the sheet that is drawn on, and what is chosen. */
export type SelectionState = {
  readonly sheet: string;
  readonly lines: ReadonlySet<string>;
  readonly nodes: ReadonlySet<string>;
  readonly flats: ReadonlySet<string>;
  /** The width mark in hand, by its number on the one chosen line. */
  readonly mark: number | null;
  /** The groups that are entered, the outermost first: within them lines are chosen one by one. */
  readonly within: readonly string[];
  readonly reference: string | null;
  /** The shape that new lines are drawn into; null where they lie on their sheet. */
  readonly into: string | null;
  /** The item that new lines are drawn behind; null where they lie on top of their sheet. */
  readonly behind: string | null;
  /** Where the page was pressed last to choose something; null where it was not. */
  readonly lookedAt: Point | null;
  readonly origin: Origin;
};

export const nothingChosen = (drawing: Drawing): SelectionState => ({
  sheet: (drawing.sheets.findLast(isOpenSheet) ?? drawing.sheets.at(-1))?.id ?? '',
  lines: new Set(),
  nodes: new Set(),
  flats: new Set(),
  mark: null,
  within: [],
  reference: null,
  into: null,
  behind: null,
  lookedAt: null,
  origin: middleOrigin,
});
