import { gathered } from '@/core/check/findNotes';
import type { Note } from '@/core/check/note';
import type { Checker } from './checking';
import type { HandAtWork } from './handAtWork';
import { bytesOf } from './opening';
import type { Bench } from './store';

/** Nobody else waits for these workers. */
const SLICE_MS = 60;

/** Looks for notes, in workers of its own, each in its share of the lines: they do not wait for what is measured, nor that for them. */
export class NoteSeeker {
  private loaded = false;
  private announced = false;
  private readonly stop: (() => void)[];

  constructor(
    private readonly bench: Bench,
    private readonly workers: readonly Checker[],
    private readonly hand: HandAtWork,
  ) {
    for (const worker of this.workers) worker.onFailure = () => (this.loaded = false);
    this.stop = [
      bench.onChange(({ change }) => {
        this.announced = true;
        if (!this.loaded) return;
        for (const worker of this.workers) void worker.ask((api) => api.change(change)).catch(() => undefined);
      }),
      bench.subscribe((s, before) => {
        if (s.drawing === before.drawing) return;
        // A drawing that was not made by a change has come from elsewhere: the workers' own is of no use.
        if (!this.announced) this.loaded = false;
        this.announced = false;
      }),
    ];
  }

  dispose(): void {
    this.stop.forEach((f) => f());
    for (const worker of this.workers) worker.end();
  }

  /** All notes of the drawing as it is, a slice at a time, while no hand is at work; null once they are not wanted any more. */
  async seek(isWanted: () => boolean): Promise<Note[] | null> {
    await this.hand.rest();
    if (!isWanted()) return null;
    const { drawing } = this.bench.getState();
    // Each is asked after it was given the drawing.
    const [, ...found] = await Promise.all([this.load(), ...this.workers.map((_, i) => this.share(i, isWanted))]);
    return isWanted() && found.every((n) => n !== null) ? gathered(drawing, found.flat()) : null;
  }

  private async load(): Promise<void> {
    if (this.loaded) return;
    this.loaded = true;
    const { drawing } = this.bench.getState();
    await Promise.all(this.workers.map((worker) => worker.ask((api) => api.load(bytesOf(drawing) ?? drawing))));
  }

  private async share(take: number, isWanted: () => boolean): Promise<Note[] | null> {
    while (isWanted()) {
      await this.hand.rest();
      const notes = await this.workers[take].ask((api) => api.notes(SLICE_MS, { of: this.workers.length, take }));
      if (notes) return notes;
    }
    return null;
  }
}
