import type { Checker } from './checking';
import type { NoteSeeker } from './noteSeeker';
import type { Bench } from './store';

/** The page comes first: pictures are looked through so long after Ink was come to. */
const WIDTHS_MS = 1_500;
/**
 * Lines that are being traced are looked through when nothing has changed for so long, after opening soon, if there are no more
 * than so many.
 */
const NOTES = { ms: 3_000, firstMs: 400, lines: 4_000 };

/**
 * What the checks can know before they are asked: notes are looked for while lines are traced, so that Refine has
 * them at once; pictures are looked through in Ink, so that reading widths from them takes no time.
 */
export class LookingAhead {
  private timer: ReturnType<typeof setTimeout> | undefined;
  private readonly stop: () => void;

  constructor(
    private readonly bench: Bench,
    private readonly worker: Checker,
    private readonly seeker: NoteSeeker,
    /** Has the checks' worker with the drawing and its pictures in it. */
    private readonly load: () => Promise<void>,
  ) {
    this.stop = bench.subscribe((s, before) => {
      if (s.stage !== before.stage || (s.stage === 'trace' && s.drawing !== before.drawing)) this.begin();
    });
    this.begin(NOTES.firstMs);
  }

  dispose(): void {
    clearTimeout(this.timer);
    this.stop();
  }

  private begin(notesMs = NOTES.ms): void {
    clearTimeout(this.timer);
    const { stage } = this.bench.getState();
    if (stage === 'trace') this.timer = setTimeout(() => void this.notes(), notesMs);
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
    // Where the worker fails it is tried again with the next change.
    await this.seeker.seek(isCurrent).catch(() => null);
  }

  private async widths(): Promise<void> {
    if (this.bench.getState().stage !== 'ink') return;
    try {
      await this.load();
      await this.worker.ask((api) => api.prepareWidths());
    } catch {
      // The worker has failed, and says so itself.
    }
  }
}
