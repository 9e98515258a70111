import { transfer } from 'comlink';
import { createStore, type StoreApi } from 'zustand/vanilla';
import type { Drawing, Line, Reference } from '@/core';
import type { ThinOptions } from '@/core/drawing/thin';
import type { SettleFigures } from '@/core/change/settleEdits';
import type { LineDistance } from '@/core/check/lineDistance';
import { openNotes, type Note, type NoteKind } from '@/core/check/note';
import { differingLines } from '../canvas/liveLines';
import type { CheckWorker, CoverageFound, Reshaped } from '@/workers/check.worker';
import { correct, sourceOf } from './corrections';
import { LazyWorker } from './lazyWorker';
import { preferences } from './preferences';
import type { Bench } from './store';

/** What the checks know of the drawing as it is seen. */
export type Checked = {
  /** How each line lies to its ink, by its id. */
  readonly distances: ReadonlyMap<string, LineDistance>;
  readonly coverage: readonly CoverageFound[];
  readonly notes: readonly Note[];
  /** The notes that were not waved through. */
  readonly open: readonly Note[];
  readonly note: string | null;
  readonly state: 'idle' | 'preparing' | 'measuring' | 'ready';
  readonly failed: string | null;
  /** The place along the chosen line that the plot points at, in page units; null where it points at none. */
  readonly pointed: { x: number; y: number } | null;
};

export const nothingChecked: Checked = {
  distances: new Map(),
  coverage: [],
  notes: [],
  open: [],
  note: null,
  state: 'idle',
  failed: null,
  pointed: null,
};

const NOTES_MS = 450;
const FIRST_MS = 1_500;

/**
 * Keeps the checks up with the drawing, in a worker: under the hand only the lines that move are measured, frame by
 * frame; after each change what it touched; at rest the coverage and the notes.
 */
export class Checking {
  readonly store: StoreApi<Checked> = createStore<Checked>()(() => nothingChecked);
  private readonly worker = new LazyWorker<CheckWorker>(
    () => new Worker(new URL('../../workers/check.worker.ts', import.meta.url), { type: 'module' }),
    'the worker that checks lines',
    () => this.forget(),
  );
  private readonly stop: (() => void)[] = [];
  private loaded = false;
  private readonly sent = new Map<string, string>();
  private restTimer: ReturnType<typeof setTimeout> | undefined;
  private notesTimer: ReturnType<typeof setTimeout> | undefined;
  private isLive = false;
  private isMeasuring = false;
  private again = false;
  private announced = false;
  /** As the worker last told them of the drawing itself. */
  private readonly settled = new Map<string, LineDistance>();

  constructor(private readonly bench: Bench) {
    this.stop.push(
      bench.onChange((change) => {
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
        if (wants || p.inkReach !== before.inkReach) this.rest(0);
      }),
    );
    // The page comes first: what is drawn on it is to be seen before it is checked.
    if (this.isWanted) this.rest(FIRST_MS);
  }

  dispose(): void {
    clearTimeout(this.restTimer);
    clearTimeout(this.notesTimer);
    this.stop.forEach((f) => f());
    this.worker.end();
    this.store.getState().coverage.forEach((c) => c.wash?.close());
  }

  /** Lines are checked where they are refined. */
  private get isWanted(): boolean {
    return this.bench.getState().stage === 'refine';
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
    clearTimeout(this.restTimer);
    this.restTimer = setTimeout(() => void this.measure(), after);
    clearTimeout(this.notesTimer);
    this.notesTimer = setTimeout(() => void this.findNotes(), after + NOTES_MS);
  }

  /** The worker with the drawing and its pictures in it. */
  private async ready(): Promise<void> {
    const { drawing } = this.bench.getState();
    if (!this.loaded) {
      this.loaded = true;
      await this.worker.ask((api) => api.load(drawing));
    }
    const wanted = drawing.references.filter((r) => r.visible && !r.beside);
    for (const r of wanted) await this.send(r);
    for (const id of [...this.sent.keys()]) {
      if (wanted.some((r) => r.id === id)) continue;
      this.sent.delete(id);
      await this.worker.ask((api) => api.picture(id, '', null));
    }
  }

  private async send(r: Reference): Promise<void> {
    const key = JSON.stringify([r.picture, r.corrections]);
    if (this.sent.get(r.id) === key) return;
    this.store.setState({ state: 'preparing' });
    const image = await correct.grey(sourceOf(r), r.corrections);
    await this.worker.ask((api) => api.picture(r.id, key, transfer(image, [image.data.buffer])));
    this.sent.set(r.id, key);
  }

  /** Measures what changed; asked again meanwhile, it does so once more afterwards. */
  private async measure(): Promise<void> {
    if (this.isMeasuring) {
      this.again = true;
      return;
    }
    this.isMeasuring = true;
    try {
      do {
        this.again = false;
        await this.ready();
        const { inkReach } = preferences.getState();
        if (this.store.getState().state !== 'ready') this.store.setState({ state: 'measuring' });
        const { ids, fresh } = await this.worker.ask((api) => api.distances(inkReach));
        for (const l of fresh) this.settled.set(l.id, l);
        const kept = new Set(ids);
        for (const id of [...this.settled.keys()]) if (!kept.has(id)) this.settled.delete(id);
        if (!this.bench.getState().preview)
          this.store.setState({ distances: new Map(this.settled), state: 'ready', failed: null });
      } while (this.again);
      await this.cover();
    } catch (error) {
      this.store.setState({ state: 'idle', failed: error instanceof Error ? error.message : String(error) });
    } finally {
      this.isMeasuring = false;
    }
  }

  private async cover(): Promise<void> {
    if (!preferences.getState().coverage) return;
    const { drawing } = this.bench.getState();
    const reach = preferences.getState().inkReach;
    const found: CoverageFound[] = [];
    for (const r of drawing.references.filter((x) => x.visible && !x.beside && x.target === 'ink')) {
      const one = await this.worker.ask((api) => api.coverage(r.id, reach));
      if (one) found.push(one);
    }
    this.store.getState().coverage.forEach((c) => c.wash?.close());
    this.store.setState({ coverage: found });
  }

  private async findNotes(): Promise<void> {
    if (!this.loaded || this.bench.getState().preview) return;
    const drawing = this.bench.getState().drawing;
    const notes = await this.worker.ask((api) => api.notes()).catch(() => null);
    if (notes && drawing === this.bench.getState().drawing) this.sayOpen(notes);
  }

  /** Measures the lines under the hand; what moves on meanwhile is asked for next, the rest is passed over. */
  private async live(): Promise<void> {
    if (this.isLive || !this.loaded || !preferences.getState().distance || !this.isWanted) return;
    this.isLive = true;
    try {
      for (let before: Drawing | null = null; ;) {
        const { drawing, preview } = this.bench.getState();
        if (!preview || preview === before) break;
        before = preview;
        const { lines }: { lines: Line[] } = differingLines(drawing, preview);
        if (lines.length === 0) break;
        const { inkReach } = preferences.getState();
        const list = await this.worker.ask((api) => api.live(lines, inkReach));
        if (!this.bench.getState().preview) break;
        const distances = new Map(this.store.getState().distances);
        for (const l of list) distances.set(l.id, l);
        this.store.setState({ distances });
      }
    } catch {
      // The worker has failed, and says so itself.
    } finally {
      this.isLive = false;
    }
  }

  /** Lines settled onto their ink, as they would be. */
  async settle(ids: string[], nodes: string[], figures: SettleFigures): Promise<Reshaped[]> {
    await this.ready();
    return this.worker.ask((api) => api.settle(ids, nodes, figures));
  }

  /** Lines thinned out, as they would be. */
  async thin(ids: string[], options: ThinOptions): Promise<Reshaped[]> {
    await this.ready();
    return this.worker.ask((api) => api.thin(ids, options));
  }

  /** The notes of a kind that are open. */
  openOf = (kind: NoteKind): Note[] => this.store.getState().open.filter((n) => n.kind === kind);
}

const checkings = new WeakMap<Bench, Checking>();

/** The checks of a bench, from when they are started; none on a bench without a page, as in tests. */
export const checkingOf = (bench: Bench): Checking | undefined => checkings.get(bench);

export function startChecking(bench: Bench): () => void {
  const checking = new Checking(bench);
  checkings.set(bench, checking);
  return () => checking.dispose();
}
