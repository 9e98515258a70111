import { createStore, type StoreApi } from 'zustand/vanilla';
import { linesOfItem } from '@/core/drawing/items';
import { nodeCount } from '@/core/drawing/find';
import type { Change, Line } from '@/core';
import type { Item } from '@/core/drawing/item';
import type { StageId } from '../stages/table';
import { preferences } from './preferences';
import type { Bench } from './store';

/** What a hand did on one drawing, kept on this machine only. Times in seconds. */
export type HandRecord = {
  readonly presses: number;
  readonly undos: number;
  readonly nodes: number;
  readonly stages: Readonly<Partial<Record<StageId, number>>>;
};

export const nothingDone: HandRecord = { presses: 0, undos: 0, nodes: 0, stages: {} };

/** Looked at so often; who has done nothing for so long is not at work, s. */
const EVERY = 5;
const AWAY = 60;

const keyFor = (id: string): string => `yellow-quill:hand:${id}`;
const records = new WeakMap<Bench, HandRecording>();

/** The record of a bench's hand, from when it is started. */
export const handRecordOf = (bench: Bench): HandRecording | undefined => records.get(bench);

/** Where presses and keys are heard of, and whether anyone looks: the window and its page but for tests. */
type Surroundings = {
  readonly hands: Pick<Window, 'addEventListener'>;
  readonly isSeen: () => boolean;
  readonly now: () => number;
  readonly store: Pick<Storage, 'getItem' | 'setItem' | 'removeItem'>;
};

const theWindow = (): Surroundings => ({
  hands: window,
  isSeen: () => document.visibilityState === 'visible',
  now: () => performance.now() / 1000,
  store: localStorage,
});

/** Counts quietly what the hand does: presses on the page, nodes laid, what is taken back, and the time at each stage. */
export class HandRecording {
  readonly store: StoreApi<HandRecord>;
  private lastDeed: number;
  private readonly stop = new AbortController();
  private readonly timer: ReturnType<typeof setInterval>;
  private readonly leave: (() => void)[] = [];

  constructor(
    private readonly bench: Bench,
    private readonly id: string,
    private readonly around: Surroundings = theWindow(),
  ) {
    this.store = createStore<HandRecord>()(() => this.kept());
    this.lastDeed = around.now();
    const { signal } = this.stop;
    const deed = (e: Event): void => {
      this.lastDeed = around.now();
      const target = e.target as { closest?: (selector: string) => unknown } | null;
      if (e.type === 'pointerdown' && target?.closest?.('.canvas')) this.add({ presses: 1 });
    };
    for (const type of ['pointerdown', 'keydown', 'wheel'] as const)
      around.hands.addEventListener(type, deed, { signal, capture: true, passive: true });
    this.timer = setInterval(() => this.tick(), EVERY * 1000);
    this.leave.push(bench.onChange(({ change }) => this.hear(change)));
    records.set(bench, this);
  }

  dispose(): void {
    clearInterval(this.timer);
    this.stop.abort();
    this.leave.forEach((f) => f());
  }

  /** Begins anew. */
  clear(): void {
    this.around.store.removeItem(keyFor(this.id));
    this.store.setState(nothingDone, true);
  }

  private kept(): HandRecord {
    try {
      const text = this.around.store.getItem(keyFor(this.id));
      return text ? { ...nothingDone, ...(JSON.parse(text) as Partial<HandRecord>) } : nothingDone;
    } catch {
      return nothingDone;
    }
  }

  private hear(change: Change): void {
    if (change.label.startsWith('Undo')) this.add({ undos: 1 });
    else if (!change.label.startsWith('Redo')) this.add({ nodes: nodesLaid(change) });
  }

  /** Time counts while someone looks, and has done something lately. */
  private tick(): void {
    if (!this.around.isSeen() || this.around.now() - this.lastDeed > AWAY) return;
    const { stage } = this.bench.getState();
    const { stages } = this.store.getState();
    this.add({ stages: { ...stages, [stage]: (stages[stage] ?? 0) + EVERY } });
  }

  private add({ presses = 0, undos = 0, nodes = 0, stages }: Partial<HandRecord>): void {
    if (!preferences.getState().handRecord || (presses + undos + nodes === 0 && !stages)) return;
    const was = this.store.getState();
    const next: HandRecord = {
      presses: was.presses + presses,
      undos: was.undos + undos,
      nodes: was.nodes + nodes,
      stages: stages ?? was.stages,
    };
    this.store.setState(next, true);
    try {
      this.around.store.setItem(keyFor(this.id), JSON.stringify(next));
    } catch {
      // A browser that keeps nothing counts for as long as it is open.
    }
  }
}

/** How many nodes a change brought: those of new lines, and what its lines have more. */
export function nodesLaid(change: Change): number {
  const count = (runs: Line['runs'] | undefined): number => (runs ? nodeCount({ runs } as Line) : 0);
  return change.steps.reduce((sum, s) => {
    if (s.step === 'insertItem') return sum + linesOfItem(s.item as Item).reduce((n, l) => n + nodeCount(l), 0);
    if (s.step === 'setLine') return sum + Math.max(0, count(s.after.runs) - count(s.before.runs));
    return sum;
  }, 0);
}

export function startHandRecord(bench: Bench, id: string): () => void {
  const recording = new HandRecording(bench, id);
  return () => recording.dispose();
}
