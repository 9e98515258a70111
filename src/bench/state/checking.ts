import { transfer } from 'comlink';
import { createStore, type StoreApi } from 'zustand/vanilla';
import type { Drawing, Reference } from '@/core';
import type { LineDistance } from '@/core/check/lineDistance';
import { openNotes, type Note, type NoteKind } from '@/core/check/note';
import { differingLines } from '../canvas/liveLines';
import type { Checks } from '@/workers/checks';
import { Asking, SLICE_MS } from './asking';
import { nothingChecked, type Checked } from './checked';
import { correct, sourceOf } from './corrections';
import { HandAtWork } from './handAtWork';
import type { LazyWorker } from './lazyWorker';
import { LookingAhead } from './lookingAhead';
import { NoteSeeker } from './noteSeeker';
import { bytesOf } from './opening';
import { preferences } from './preferences';
import type { Bench } from './store';

/** Who does the checks: in a worker, started when it is first asked. */
export type Checker = Pick<LazyWorker<Checks>, 'ask' | 'end' | 'onFailure'>;

/** The page comes first: what is drawn on it is to be seen before it is checked. */
const FIRST_MS = { notes: 250, measures: 1_500 };
/** The wash and the notes wait until nothing changes for so long. */
const QUIET_MS = 450;
/** While much is measured for the first time, what is found is shown so often. */
const SHOW_MS = 400;

/**
 * Keeps the checks up with the drawing, in a worker: under the hand only what moves is measured, frame by frame; after
 * each change what it touched; when nothing changes the wash and the notes. All but what is under the hand waits for it.
 */
export class Checking {
  /** What is asked for, and not kept up with. */
  readonly ask: Asking;
  readonly store: StoreApi<Checked> = createStore<Checked>()(() => nothingChecked);
  private readonly hand: HandAtWork;
  private readonly ahead: LookingAhead;
  private readonly seeker: NoteSeeker;
  /** The drawing that notes are being looked for in. */
  private seeking: Drawing | null = null;
  private readonly stop: (() => void)[] = [];
  private loaded = false;
  private readonly sent = new Map<string, string>();
  private restTimer: ReturnType<typeof setTimeout> | undefined;
  private quietTimer: ReturnType<typeof setTimeout> | undefined;
  private firstTimer: ReturnType<typeof setTimeout> | undefined;
  private isLive = false;
  private isMeasuring = false;
  private again = false;
  private announced = false;
  /** As the worker last told them of the drawing itself. */
  private readonly settled = new Map<string, LineDistance>();

  /** The checker and who look for notes, which may have to begin again: workers; where a hand is heard of: the window. */
  constructor(
    private readonly bench: Bench,
    private readonly worker: Checker,
    seekers: readonly Checker[],
    hands: Pick<Window, 'addEventListener'>,
  ) {
    this.hand = new HandAtWork(hands);
    this.ask = new Asking(bench, worker, () => this.ready());
    this.seeker = new NoteSeeker(bench, seekers, this.hand);
    this.ahead = new LookingAhead(bench, worker, this.seeker, () => this.ready());
    worker.onFailure = () => this.forget();
    this.stop.push(
      bench.onChange(({ change }) => {
        this.announced = true;
        if (this.loaded) void this.worker.ask((api) => api.change(change)).catch(() => undefined);
      }),
      bench.subscribe((s, before) => {
        if (s.stage !== before.stage && this.isWanted) this.rest(0);
        if (s.drawing !== before.drawing) this.changed();
        else if (s.preview !== before.preview && s.preview) void this.live();
        else if (before.preview && !s.preview) this.rest(0);
      }),
      preferences.subscribe((p, before) => {
        const wants = p.distance !== before.distance || p.coverage !== before.coverage;
        if (wants || p.inkReach !== before.inkReach || p.deliverCards !== before.deliverCards) this.rest(0);
      }),
    );
    if (!this.isWanted) return;
    this.rest(FIRST_MS.measures);
    this.firstTimer = setTimeout(() => void this.seek(), FIRST_MS.notes);
  }

  dispose(): void {
    clearTimeout(this.restTimer);
    clearTimeout(this.quietTimer);
    clearTimeout(this.firstTimer);
    this.ahead.dispose();
    this.seeker.dispose();
    this.stop.forEach((f) => f());
    this.hand.dispose();
    this.worker.end();
    this.store.getState().uncovered.forEach((c) => c.wash?.close());
  }

  /** Lines are checked where they are refined, and where it is asked what is left to do. */
  private get isWanted(): boolean {
    return this.bench.getState().stage === 'refine' || this.isSummed;
  }

  private get isSummed(): boolean {
    return this.bench.getState().stage === 'deliver' && preferences.getState().deliverCards === 'ready';
  }

  /** Whether a drawing is still as it was, and to be checked. */
  private isAt(drawing: Drawing): boolean {
    const s = this.bench.getState();
    return s.drawing === drawing && !s.preview && this.isWanted;
  }

  /** What is measured: what is looked at, and all of it where it is summed up. */
  private get measures(): { distance: boolean; coverage: boolean } {
    const { distance, coverage } = preferences.getState();
    return { distance: distance || this.isSummed, coverage: coverage || this.isSummed };
  }

  private forget(): void {
    this.loaded = false;
    this.sent.clear();
    this.settled.clear();
    this.store.setState({ ...nothingChecked, failed: 'The checks had to begin again.' });
    if (this.isWanted) this.rest(1000);
  }

  private changed(): void {
    // A drawing that was not made by a change has come from elsewhere: the worker's own is of no use.
    if (!this.announced) this.loaded = false;
    this.announced = false;
    this.sayOpen();
    if (this.isWanted) this.rest(0);
  }

  /** The notes that are still open: waving one through is seen at once. */
  private sayOpen(notes = this.store.getState().notes): void {
    this.store.setState({ notes, open: openNotes(this.bench.getState().drawing, notes) });
  }

  private rest(after: number): void {
    if (!this.isWanted) return;
    this.again = true;
    clearTimeout(this.restTimer);
    this.restTimer = setTimeout(() => void this.measure(), after);
    clearTimeout(this.quietTimer);
  }

  /** The worker with the drawing in it. */
  private async load(): Promise<void> {
    if (this.loaded) return;
    const { drawing } = this.bench.getState();
    this.loaded = true;
    this.settled.clear();
    await this.worker.ask((api) => api.load(bytesOf(drawing) ?? drawing));
  }

  /** The worker with the drawing and its pictures in it. */
  private async ready(): Promise<void> {
    const { drawing } = this.bench.getState();
    await this.load();
    const wanted = drawing.references.filter((r) => r.visible && !r.beside);
    for (const r of wanted) await this.send(r);
    for (const id of [...this.sent.keys()]) {
      if (wanted.some((r) => r.id === id)) continue;
      this.sent.delete(id);
      await this.worker.ask((api) => api.picture(id, null));
    }
  }

  private async send(r: Reference): Promise<void> {
    const key = JSON.stringify([r.picture, r.corrections, r.target]);
    if (this.sent.get(r.id) === key) return;
    this.store.setState({ state: 'preparing' });
    const image = await correct.picture(sourceOf(r), r.corrections, r.target);
    await this.worker.ask((api) => api.picture(r.id, transfer(image, [image.data.buffer])));
    this.sent.set(r.id, key);
  }

  /** Measures and counts what changed; what changes meanwhile, afterwards. */
  private async measure(): Promise<void> {
    if (this.isMeasuring) return;
    this.isMeasuring = true;
    // The first time they are not kept waiting.
    if (!this.store.getState().sought) void this.seek();
    try {
      do {
        this.again = false;
        await this.ready();
        if (this.store.getState().state !== 'ready') this.store.setState({ state: 'measuring' });
        const { distance, coverage } = this.measures;
        if (distance) await this.distances();
        if (coverage) await this.covers();
      } while (this.again && this.isWanted);
      this.store.setState({ state: 'ready', failed: null });
      clearTimeout(this.quietTimer);
      this.quietTimer = setTimeout(() => void this.quiet(), QUIET_MS);
    } catch (error) {
      this.store.setState({ state: 'idle', failed: error instanceof Error ? error.message : String(error) });
    } finally {
      this.isMeasuring = false;
    }
  }

  /** Under way what changed is measured in part; when nothing changes, as a whole. */
  private async distances(whole = false): Promise<void> {
    const { inkReach } = preferences.getState();
    for (let shown = performance.now(); !this.again;) {
      await this.hand.rest();
      const { fresh, gone, done, ...measured } = await this.worker.ask((api) =>
        api.distances(inkReach, SLICE_MS, whole),
      );
      for (const l of fresh) this.settled.set(l.id, l);
      for (const id of gone) this.settled.delete(id);
      if (whole ? fresh.length > 0 : done || performance.now() - shown > SHOW_MS) {
        const sums = measured.sums ?? (await this.worker.ask((api) => api.sums(inkReach)));
        if (!this.bench.getState().preview) this.store.setState({ distances: new Map(this.settled), sums });
        shown = performance.now();
      }
      if (done) return;
    }
  }

  private async covers(): Promise<void> {
    const { inkReach } = preferences.getState();
    while (!this.again) {
      await this.hand.rest();
      const covers = await this.worker.ask((api) => api.covers(inkReach, SLICE_MS));
      if (!covers) continue;
      if (!this.bench.getState().preview) this.store.setState({ covers });
      return;
    }
  }

  /** What is worth looking for only when nothing changes. */
  private async quiet(): Promise<void> {
    const { drawing } = this.bench.getState();
    const isCurrent = (): boolean => this.isAt(drawing) && !this.again;
    void this.seek();
    try {
      await this.hand.rest();
      const { inkReach } = preferences.getState();
      const { distance, coverage } = this.measures;
      if (distance && isCurrent()) await this.distances(true);
      if (coverage && isCurrent()) {
        const uncovered = await this.worker.ask((api) => api.uncovered(inkReach));
        this.store.getState().uncovered.forEach((c) => c.wash?.close());
        this.store.setState({ uncovered });
      }
    } catch {
      // The worker has failed, and says so itself.
    }
  }

  private async seek(): Promise<void> {
    const { drawing } = this.bench.getState();
    if (this.seeking === drawing) return;
    this.seeking = drawing;
    // Where a worker fails they are looked for again with the next change.
    const notes = await this.seeker.seek(() => this.isAt(drawing)).catch(() => null);
    if (this.seeking === drawing) this.seeking = null;
    if (!notes) return;
    this.sayOpen(notes);
    this.store.setState({ sought: true });
  }

  /** Measures the lines under the hand; what moves on meanwhile is asked for next, the rest is passed over. */
  private async live(): Promise<void> {
    const { inkReach } = preferences.getState();
    const { distance, coverage } = this.measures;
    if (this.isLive || !this.loaded || !(distance || coverage) || !this.isWanted) return;
    this.isLive = true;
    try {
      for (let before: Drawing | null = null; ;) {
        const { drawing, preview } = this.bench.getState();
        if (!preview || preview === before) break;
        before = preview;
        const { lines } = differingLines(drawing, preview);
        if (lines.length === 0) break;
        const moved = await this.worker.ask((api) => api.moved(lines, inkReach, { distance, coverage }));
        if (!this.bench.getState().preview) break;
        const { distances, covers } = this.store.getState();
        this.store.setState({
          distances: moved.sums ? new Map([...distances, ...moved.lines.map((l) => [l.id, l] as const)]) : distances,
          sums: moved.sums ?? this.store.getState().sums,
          covers: moved.covers ?? covers,
        });
      }
    } catch {
      // The worker has failed, and says so itself.
    } finally {
      this.isLive = false;
    }
  }

  /** The notes of a kind that are open. */
  openOf = (kind: NoteKind): Note[] => this.store.getState().open.filter((n) => n.kind === kind);
}
