import { SLICE_MS } from './asking';
import type { Checker } from './checking';
import type { HandAtWork } from './handAtWork';
import type { Bench } from './store';

/** The page comes first: pictures are looked through so long after Ink was come to. */
const WIDTHS_MS = 1_500;
/** Lines that are being traced are looked through when nothing has changed for so long, if there are no more than so many. */
const NOTES = { ms: 3_000, lines: 4_000 };

/** Has the checks' worker with the drawing in it, or with its pictures as well. */
type Load = { readonly drawing: () => Promise<void>; readonly all: () => Promise<void> };

/**
 * What the checks' worker can know before it is asked: notes are looked for while lines are traced, so that Refine has
 * them at once; pictures are looked through in Ink, so that reading widths from them takes no time.
 */
export class LookingAhead {
  private timer: ReturnType<typeof setTimeout> | undefined;
  private readonly stop: () => void;

  constructor(
    private readonly bench: Bench,
    private readonly worker: Checker,
    private readonly hand: HandAtWork,
    private readonly load: Load,
  ) {
    this.stop = bench.subscribe((s, before) => {
      if (s.stage !== before.stage || (s.stage === 'trace' && s.drawing !== before.drawing)) this.begin();
    });
    this.begin();
  }

  dispose(): void {
    clearTimeout(this.timer);
    this.stop();
  }

  private begin(): void {
    clearTimeout(this.timer);
    const { stage } = this.bench.getState();
    if (stage === 'trace') this.timer = setTimeout(() => void this.notes(), NOTES.ms);
    if (stage === 'ink') this.timer = setTimeout(() => void this.widths(), WIDTHS_MS);
  }

  private async notes(): Promise<void> {
    const { drawing } = this.bench.getState();
    const isCurrent = (): boolean => {
      const s = this.bench.getState();
      return s.stage === 'trace' && s.drawing === drawing && !s.preview;
    };
    const items = drawing.sheets.reduce((n, s) => n + s.items.length, 0);
    if (items === 0 || items > NOTES.lines) return;
    try {
      await this.hand.rest();
      if (isCurrent()) await this.load.drawing();
      while (isCurrent()) {
        await this.hand.rest();
        if (await this.worker.ask((api) => api.notes(SLICE_MS))) return;
      }
    } catch {
      // The worker has failed, and says so itself.
    }
  }

  private async widths(): Promise<void> {
    if (this.bench.getState().stage !== 'ink') return;
    try {
      await this.load.all();
      await this.worker.ask((api) => api.prepareWidths());
    } catch {
      // The worker has failed, and says so itself.
    }
  }
}
