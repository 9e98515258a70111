import type { Drawing } from '@/core';
import { isOpenSheet } from '@/core/drawing/find';

/** What is in hand: the sheet that is drawn on, and what is chosen. */
export type SelectionState = {
  readonly sheet: string;
  readonly lines: ReadonlySet<string>;
  readonly nodes: ReadonlySet<string>;
  /** The width mark in hand, by its number on the one chosen line. */
  readonly mark: number | null;
  /** The groups that are entered, the outermost first: within them lines are chosen one by one. */
  readonly within: readonly string[];
  readonly reference: string | null;
};

export const nothingChosen = (drawing: Drawing): SelectionState => ({
  sheet: (drawing.sheets.findLast(isOpenSheet) ?? drawing.sheets.at(-1))?.id ?? '',
  lines: new Set(),
  nodes: new Set(),
  mark: null,
  within: [],
  reference: null,
});
