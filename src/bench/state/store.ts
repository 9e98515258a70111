import { nanoid } from 'nanoid';
import { createStore, type StoreApi } from 'zustand/vanilla';
import { applyChange, inverseOf, type Change, type Drawing, type Line, type Point } from '@/core';
import { changeOf } from '@/core/change/changeOf';
import type { Edit } from '@/core/change/edit';
import type { End } from '@/core/edits/join';
import { refusalOf } from '@/core/change/refusal';
import { isOpenSheet } from '@/core/drawing/find';
import type { StageId } from '../stages/table';
import type { ToolId } from '../tools/registry';
import type { Version } from './api';
import { Past } from './past';
import { reconciled } from './reconciled';
import type { SaveState } from './saver';
import type { Size, View } from './view';

/** What is at hand in a stage, the tool first that is taken in hand there. */
export type DeskStage = { readonly id: StageId; readonly tools: readonly ToolId[]; readonly first: ToolId };

/** Pulled lines as they would be laid on the page, and which of them are let go. */
export type Pulled = {
  readonly reference: string;
  readonly lines: readonly Line[];
  readonly dropped: ReadonlySet<string>;
};

/**
 * How the work is compared. Wipe: the reference to the left of a share of the window, the lines to the right of it.
 * Beside: the work on the left, the reference alone on the right. Blink: now one, now the other.
 */
export type Compare = { readonly kind: 'wipe'; readonly at: number } | { readonly kind: 'beside' | 'blink' };

/** What a tool is trying on the chosen lines: shown, not yet in the drawing. */
export type Trial = {
  readonly kind: 'settle' | 'thin' | 'readWidths';
  readonly busy: boolean;
  /** How many lines come out otherwise, and the nodes of all that were asked for before and after. */
  readonly lines: number;
  readonly before: number;
  readonly after: number;
  readonly failed: string | null;
};

/**
 * Another tab edits; what was made here was refused, and is being or was put aside; an earlier visit's changes wait; a part
 * of the journal cannot be read.
 */
export type ReadingWhy = 'another tab' | 'putting aside' | 'refused' | 'waiting' | 'damaged';

/** Something to tell, with at most one thing to do about it. */
export type Message = { key: number; tone: 'note' | 'warning'; text: string; action?: { label: string; run(): void } };

export type BenchState = {
  readonly id: string;
  readonly title: string;
  readonly stage: StageId;
  readonly tool: ToolId;
  /** The stages, and what is at hand in each. */
  readonly desk: readonly DeskStage[];
  readonly drawing: Drawing;
  /** What would be, while a hand is moving: never saved, never undone. */
  readonly preview: Drawing | null;
  /** How far what is chosen is seen moved, where that is too much to be worked out with every move of the hand. */
  readonly shift: Point | null;
  readonly undoable: readonly Change[];
  /** The journal holds changes before those that can be undone: they are read when they are wanted. */
  readonly hasPast: boolean;
  readonly redoable: readonly Change[];
  readonly sheet: string;
  readonly lines: ReadonlySet<string>;
  readonly nodes: ReadonlySet<string>;
  /** The width mark in hand, by its number on the one chosen line. */
  readonly mark: number | null;
  /** The groups that are entered, the outermost first: within them lines are chosen one by one. */
  readonly within: readonly string[];
  /** The end at which the pen is drawing a line on; null when it draws none. */
  readonly underPen: End | null;
  /** The sheet that is seen alone; null when all are seen as they are set. */
  readonly solo: string | null;
  readonly reference: string | null;
  /** Lines that are being pulled from ink: shown, not yet in the drawing. */
  readonly pulled: Pulled | null;
  readonly compare: Compare | null;
  /** The drawing as it was when it was opened here. */
  readonly opened: Drawing;
  /** The state that holding the before key shows, what it is called, and which version it is, if it is one. */
  readonly before: { readonly drawing: Drawing; readonly label: string; readonly version?: string };
  /** The states kept by name, the last kept first; null before they were looked up. */
  readonly versions: readonly Version[] | null;
  /** What is being tried by settling or thinning out; null while nothing is. */
  readonly trial: Trial | null;
  readonly view: View;
  readonly window: Size;
  readonly peek: boolean;
  readonly rulers: boolean;
  /** Things are seen as they were: pictures before their tones were corrected, lines before what is being tried. */
  readonly uncorrected: boolean;
  /** The lines are lifted away. */
  readonly lifted: boolean;
  readonly save: SaveState;
  readonly reading: boolean;
  /** Why it is only read, while it is. */
  readonly readingWhy: ReadingWhy;
  readonly message: Message | null;
};

/** A bench: its state, and everything that can be done to it. Tools, panels and keys all go through here. */
export type Bench = StoreApi<BenchState> & {
  /**
   * Makes an edit a change: applied, undoable, on its way to the disk. For an edit without steps nothing happens but that
   * `nothing` is told, and one that a drawing cannot hold is refused with words; then null comes back. `chosen`: the lines
   * that are chosen from then on.
   */
  commit(edit: Edit, chosen?: Iterable<string> | null, nothing?: string): Change | null;
  /** Shows what is chosen moved so far; null shows it where it is. For very many lines, in place of `show`. */
  showMoved(by: Point | null): void;
  /** Shows what an edit would do; null shows the drawing as it is. */
  show(edit: Edit | null): void;
  undo(): void;
  redo(): void;
  /** Takes the last change back for good, as if it had not been made. */
  dropLast(change: Change): boolean;
  choose(lines: Iterable<string>, nodes?: Iterable<string>): void;
  tell(text: string, action?: Message['action'], tone?: Message['tone']): void;
  /** Reads what was done before, so that it can be undone. Done by itself when undo comes to what is not read yet. */
  recall(): Promise<void>;
  /** Where earlier changes are read from: those before a revision. */
  recallFrom(revision: number, read: Recall): void;
  /** Hears of every change made here, undone and redone ones too, before the state shows it. */
  onChange(listener: (change: Change) => void): () => void;
};

/** Reads a stretch of the journal that ends before a revision; `from` is the revision of its first change. */
export type Recall = (before: number) => Promise<{ from: number; changes: readonly Change[] }>;

export type Opening = { id: string; title: string; stage: StageId; drawing: Drawing; revision: number };

export function createBench(opening: Opening, desk: readonly DeskStage[] = []): Bench {
  const { drawing, revision, ...card } = opening;
  const store = createStore<BenchState>()(() => ({
    ...card,
    desk,
    tool: 'select',
    drawing,
    preview: null,
    shift: null,
    undoable: [],
    hasPast: false,
    redoable: [],
    sheet: (drawing.sheets.findLast(isOpenSheet) ?? drawing.sheets.at(-1))?.id ?? '',
    lines: new Set(),
    nodes: new Set(),
    mark: null,
    within: [],
    underPen: null,
    solo: null,
    reference: null,
    pulled: null,
    trial: null,
    compare: null,
    opened: drawing,
    versions: null,
    before: { drawing, label: 'as it was opened' },
    view: { scale: 1, x: 0, y: 0 },
    window: { width: 0, height: 0 },
    peek: false,
    rulers: false,
    uncorrected: false,
    lifted: false,
    save: { kind: 'saved', revision },
    reading: false,
    readingWhy: 'another tab',
    message: null,
  }));
  const { getState: get, setState: set } = store;

  const make = (change: Change): Drawing => {
    const after = applyChange(get().drawing, change);
    for (const hear of listeners) hear(change);
    return after;
  };
  const listeners = new Set<(change: Change) => void>();
  let messages = 0;
  const past = new Past();

  const bench: Bench = Object.assign(store, {
    commit(edit: Edit, chosen?: Iterable<string> | null, nothing?: string): Change | null {
      if (edit.steps.length === 0 || get().reading) {
        if (get().preview || get().shift) set({ preview: null, shift: null });
        if (nothing && !get().reading) bench.tell(nothing);
        return null;
      }
      const change = { ...changeOf(edit, nanoid(12)), time: Date.now() };
      const why = refusalOf(change);
      if (why) {
        set({ preview: null, shift: null });
        bench.tell(`${why} Nothing was changed.`, undefined, 'warning');
        return null;
      }
      const after = make(change);
      set((s) => ({
        ...reconciled(s, after, change),
        drawing: after,
        preview: null,
        shift: null,
        undoable: [...s.undoable, change],
        redoable: [],
        ...(chosen && { lines: new Set(chosen), nodes: new Set<string>(), mark: null }),
      }));
      return change;
    },
    show(edit: Edit | null): void {
      if (get().reading) return;
      const preview = edit && edit.steps.length > 0 ? applyChange(get().drawing, edit) : null;
      if (preview !== get().preview || get().shift) set({ preview, shift: null });
    },
    showMoved(by: Point | null): void {
      if (!get().reading) set({ preview: null, shift: by });
    },
    undo(): void {
      if (get().reading) return;
      const change = get().undoable.at(-1);
      if (!change) {
        if (get().hasPast) void bench.recall().then(() => get().undoable.length > 0 && bench.undo());
        return;
      }
      const inverse = inverseOf(change, nanoid(12), `Undo: ${change.label}`.slice(0, 200));
      const after = make({ ...inverse, time: Date.now() });
      set((s) => ({
        ...reconciled(s, after, inverse),
        drawing: after,
        preview: null,
        undoable: s.undoable.slice(0, -1),
        redoable: [...s.redoable, change],
      }));
    },
    redo(): void {
      const change = get().redoable.at(-1);
      if (!change || get().reading) return;
      const { undoes: _, ...again } = change;
      const after = make({ ...again, id: nanoid(12), redoes: change.id, time: Date.now() });
      set((s) => ({
        ...reconciled(s, after, again),
        drawing: after,
        preview: null,
        undoable: [...s.undoable, change],
        redoable: s.redoable.slice(0, -1),
      }));
    },
    dropLast(change: Change): boolean {
      if (get().undoable.at(-1) !== change) return false;
      bench.undo();
      set((s) => ({ redoable: s.redoable.slice(0, -1) }));
      return true;
    },
    async recall(): Promise<void> {
      const read = await past.read();
      if (!read) return;
      set((s) => ({
        undoable: [...read.undoable, ...s.undoable],
        // What was made meanwhile leaves nothing to be made again.
        redoable: read.isNewest && s.undoable.length + s.redoable.length === 0 ? read.redoable : s.redoable,
        hasPast: past.hasMore,
      }));
      if (read.undoable.length === 0 && past.hasMore) await bench.recall();
    },
    recallFrom(revision: number, read: Recall): void {
      past.begin(revision + 1, read);
      set({ undoable: [], redoable: [], hasPast: past.hasMore });
    },
    choose(lines: Iterable<string>, nodes: Iterable<string> = []): void {
      set({ lines: new Set(lines), nodes: new Set(nodes), mark: null });
    },
    tell(text: string, action?: Message['action'], tone: Message['tone'] = 'note'): void {
      set({ message: { key: ++messages, text, action, tone } });
    },
    onChange(listener: (change: Change) => void): () => void {
      listeners.add(listener);
      return () => void listeners.delete(listener);
    },
  });
  return bench;
}

/** More lines than this are not worked out and marked one by one while a hand is at work. */
export const MANY = 400;

const NONE: ReadonlySet<string> = new Set();
/** The chosen lines that a tool marks by itself: very many are marked by the painters. */
export const linesToMark = (s: Pick<BenchState, 'lines'>): ReadonlySet<string> =>
  s.lines.size > MANY ? NONE : s.lines;

/** The drawing as it is to be seen: with what the hand is doing. */
export const shownDrawing = (s: BenchState): Drawing => (s.preview && !s.uncorrected ? s.preview : s.drawing);
