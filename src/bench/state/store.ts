import { nanoid } from 'nanoid';
import { createStore, type StoreApi } from 'zustand/vanilla';
import { applyChange, ChangeError, inverseOf, type Change, type Drawing, type Point } from '@/core';
import { atOnce, inPortions, touchedItems } from '@/core/change/apply';
import { changeOf } from '@/core/change/changeOf';
import type { Edit } from '@/core/change/edit';
import { drawnBehind, drawnInside } from '@/core/edits/drawnInto';
import { beyondBounds } from '@/core/change/bounds';
import { refusalOf } from '@/core/change/refusal';
import { alone } from '@/ui/alone';
import type { StageId } from '../stages/table';
import { FollowersUnderHand, type FollowingElsewhere } from './followersUnderHand';
import { LettingGo } from './lettingGo';
import { Mirroring } from './mirroring';
import { Past } from './past';
import { reconciled } from './reconciled';
import { openedDocument, type DocumentState } from './slices/document';
import { plainlySeen, type SeenState } from './slices/seen';
import { nothingChosen, type SelectionState } from './slices/selection';
import { freshWork, type DeskStage, type Message, type WorkState } from './slices/work';

export type { Compare } from './slices/seen';
export type { ReadingWhy } from './slices/document';
export type { DeskStage, Message, Pulled, Trial } from './slices/work';

export type BenchState = DocumentState & SelectionState & SeenState & WorkState;

/** What became of the drawing by a change that was made, undone or redone here; `touched` are items by their ids. */
export type Made = {
  readonly change: Change;
  readonly before: Drawing;
  readonly after: Drawing;
  readonly touched: ReadonlySet<string>;
};

/** A bench: its state, and everything that can be done to it. Tools, panels and keys all go through here. */
export type Bench = StoreApi<BenchState> & {
  /**
   * Makes an edit a change: applied, undoable, on its way to the disk. For an edit without steps nothing happens but that
   * `nothing` is told, and one that a drawing cannot hold is refused with words; then null comes back. `chosen`: the lines
   * that are chosen from then on.
   */
  commit(edit: Edit, chosen?: Iterable<string> | null, nothing?: string): Change | null;
  /** The same for what a hand lets go of: very many lines, shown moved as they are, within the next frames or with the next deed. */
  letGo(edit: Edit): void;
  /** Makes at once what was let go of. */
  settle(): void;
  /** Shows what is chosen moved so far; null shows it where it is. For very many lines, in place of `show`. */
  showMoved(by: Point | null): void;
  /** Makes a line that was drawn in a mirror one with its other half, where both end on the axis. */
  joinHalves(line: string): void;
  /** Shows what an edit would do; null shows the drawing as it is. */
  show(edit: Edit | null): void;
  undo(): void;
  redo(): void;
  /** Takes the last change back for good, as if it had not been made. */
  dropLast(change: Change): boolean;
  /** Chooses lines, and nothing else; or nodes on them. */
  choose(lines: Iterable<string>, nodes?: Iterable<string>): void;
  /** Chooses flats, and nothing else. */
  chooseFlats(flats: Iterable<string>): void;
  tell(text: string, action?: Message['action'], tone?: Message['tone']): void;
  /** Reads what was done before, so that it can be undone. Done by itself when undo comes to what is not read yet. */
  recall(): Promise<void>;
  /** Where earlier changes are read from: those before a revision. */
  recallFrom(revision: number, read: Recall): void;
  /** Hears of every change made here, undone and redone ones too, before the state shows it. */
  onChange(listener: (made: Made) => void): () => void;
  /** Who works out what follows from what a hand shows, so that the hand need not wait; null leaves it to the bench. */
  followElsewhere(elsewhere: FollowingElsewhere | null): void;
};

/** Reads a stretch of the journal that ends before a revision; `from` is the revision of its first change. */
export type Recall = (before: number) => Promise<{ from: number; changes: readonly Change[] }>;

export type Opening = { id: string; title: string; stage: StageId; drawing: Drawing; revision: number };

export function createBench(opening: Opening, desk: readonly DeskStage[] = []): Bench {
  const { id, title, stage, drawing, revision } = opening;
  const store = createStore<BenchState>()(() => ({
    ...openedDocument(id, title, drawing, revision),
    ...nothingChosen(drawing),
    ...plainlySeen,
    ...freshWork(stage, desk),
  }));
  const { getState: get, setState: set, subscribe } = store;

  const make = (change: Change): Drawing => {
    const before = get().drawing;
    return checked(change, before, applyChange(before, change));
  };
  const checked = (change: Change, before: Drawing, after: Drawing): Drawing => {
    const why = beyondBounds(before, after, change);
    if (why) throw new ChangeError(why);
    const made: Made = { change, before, after, touched: touchedItems(change) };
    for (const hear of listeners) alone(() => hear(made));
    return after;
  };
  /** An edit as the change that it is to become; null where there is none, or none that can be kept, which is told. */
  const changeFor = (asked: Edit, nothing?: string): Change | null => {
    const edit = followers.made(get().drawing, drawnInto(mirroring.of(asked, get())));
    if (edit.steps.length === 0 || get().reading) {
      if (get().preview || get().shift) set({ preview: null, shift: null });
      if (nothing && !get().reading) bench.tell(nothing);
      return null;
    }
    const change = { ...changeOf(edit, nanoid(12)), time: Date.now() };
    const why = refusalOf(change);
    return why ? refused(why) : change;
  };
  /** A change that is new, made and shown, in portions; null comes back where it cannot be made, which is told. */
  function* making(change: Change, chosen?: Iterable<string> | null): Generator<undefined, Change | null> {
    try {
      let before = get().drawing;
      let made = yield* inPortions(before, change);
      // It may have been read anew in a pause.
      if (get().drawing !== before) made = applyChange((before = get().drawing), change);
      const after = checked(change, before, made);
      set((s) => ({
        ...reconciled(s, after, change),
        drawing: after,
        preview: null,
        shift: null,
        undoable: [...s.undoable, change],
        redoable: [],
        ...(chosen && { lines: new Set(chosen), nodes: new Set<string>(), flats: new Set<string>(), mark: null }),
      }));
      return change;
    } catch (error) {
      if (!(error instanceof ChangeError)) throw error;
      return refused(`${error.message[0].toUpperCase()}${error.message.slice(1)}.`);
    }
  }
  const lettingGo = new LettingGo();
  const refused = (why: string): null => {
    set({ preview: null, shift: null });
    bench.tell(`${why} Nothing was changed.`, undefined, 'warning');
    return null;
  };
  /** What is drawn comes to lie inside of the shape that is drawn into, or behind what it is drawn behind. */
  const drawnInto = (edit: Edit): Edit => {
    const { into, behind, drawing } = get();
    if (behind !== null) return drawnBehind(drawing, edit, behind);
    return into === null ? edit : drawnInside(drawing, edit, into, () => nanoid(12));
  };
  const listeners = new Set<(made: Made) => void>();
  let messages = 0;
  const past = new Past();
  const mirroring = new Mirroring();
  const followers = new FollowersUnderHand((was, is) => {
    if (get().preview === was) set({ preview: is });
  });

  const bench: Bench = Object.assign(store, {
    // One who hears of it and fails keeps no other from hearing, and no change from being made.
    subscribe: (listener: (s: BenchState, before: BenchState) => void) =>
      subscribe((s, before) => alone(() => listener(s, before))),
    commit(asked: Edit, chosen?: Iterable<string> | null, nothing?: string): Change | null {
      lettingGo.finish();
      const change = changeFor(asked, nothing);
      return change && atOnce(making(change, chosen));
    },
    letGo(asked: Edit): void {
      lettingGo.finish();
      const change = changeFor(asked);
      if (!change) return;
      if (get().shift) lettingGo.begin(making(change));
      else atOnce(making(change));
    },
    settle: lettingGo.finish,
    show(asked: Edit | null): void {
      lettingGo.finish();
      if (get().reading) return;
      const edit = asked && drawnInto(mirroring.of(asked, get()));
      const preview = edit && edit.steps.length > 0 ? followers.shown(get().drawing, edit) : null;
      if (preview !== get().preview || get().shift) set({ preview, shift: null });
    },
    joinHalves(line: string): void {
      const edit = mirroring.joined(get().drawing, line);
      if (edit) bench.commit(edit);
    },
    showMoved(by: Point | null): void {
      lettingGo.finish();
      if (!get().reading) set({ preview: null, shift: by });
    },
    undo(): void {
      lettingGo.finish();
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
      lettingGo.finish();
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
      lettingGo.finish();
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
      set({ lines: new Set(lines), nodes: new Set(nodes), flats: new Set(), mark: null });
    },
    chooseFlats(flats: Iterable<string>): void {
      set({ lines: new Set(), nodes: new Set(), flats: new Set(flats), mark: null });
    },
    tell(text: string, action?: Message['action'], tone: Message['tone'] = 'note'): void {
      set({ message: { key: ++messages, text, action, tone } });
    },
    onChange(listener: (made: Made) => void): () => void {
      listeners.add(listener);
      return () => void listeners.delete(listener);
    },
    followElsewhere(elsewhere: FollowingElsewhere | null): void {
      followers.elsewhere = elsewhere;
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
