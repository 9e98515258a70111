import type { Change, Drawing, Point } from '@/core';
import type { Version } from '../api';
import type { SaveState } from '../saver';

/**
 * Another tab edits; what was made here was refused, and is being or was put aside; an earlier visit's changes wait; a part
 * of the journal cannot be read; the server lacks what it had acknowledged.
 */
export type ReadingWhy = 'another tab' | 'putting aside' | 'refused' | 'waiting' | 'damaged' | 'went back';

/** The drawing, what was done to it, and how it is kept. */
export type DocumentState = {
  readonly id: string;
  readonly title: string;
  readonly drawing: Drawing;
  /** What would be, while a hand is moving: never saved, never undone. */
  readonly preview: Drawing | null;
  /** How far what is chosen is seen moved, where that is too much to be worked out with every move of the hand. */
  readonly shift: Point | null;
  readonly undoable: readonly Change[];
  /** The journal holds changes before those that can be undone: they are read when they are wanted. */
  readonly hasPast: boolean;
  readonly redoable: readonly Change[];
  /** The drawing as it was when it was opened here. */
  readonly opened: Drawing;
  /** The state that holding the before key shows, what it is called, and which version it is, if it is one. */
  readonly before: { readonly drawing: Drawing; readonly label: string; readonly version?: string };
  /** The states kept by name, the last kept first; null before they were looked up. */
  readonly versions: readonly Version[] | null;
  readonly save: SaveState;
  readonly reading: boolean;
  /** Why it is only read, while it is. */
  readonly readingWhy: ReadingWhy;
};

export const openedDocument = (id: string, title: string, drawing: Drawing, revision: number): DocumentState => ({
  id,
  title,
  drawing,
  preview: null,
  shift: null,
  undoable: [],
  hasPast: false,
  redoable: [],
  opened: drawing,
  before: { drawing, label: 'as it was opened' },
  versions: null,
  save: { kind: 'saved', revision },
  reading: false,
  readingWhy: 'another tab',
});
