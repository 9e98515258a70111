import type { Cubic } from '@/core';
import type { ReadFigures } from '@/core/assist/readMarks';
import type { Note } from '@/core/check/note';
import type { ThinOptions } from '@/core/drawing/thin';
import type { SettleFigures } from '@/core/edits/settle';
import type { Fixed, Reshaped, Widened } from '@/workers/checks';
import type { Checker } from './checking';
import { preferences } from './preferences';
import type { Bench } from './store';

/** The worker works on for so long at a time: a hand that takes hold of something waits no longer for its figures. */
export const SLICE_MS = 24;

/** What the checks' worker is asked for: lines as they would be. Nothing of the drawing changes. */
export class Asking {
  constructor(
    private readonly bench: Bench,
    private readonly worker: Checker,
    /** The worker with the drawing and its pictures in it. */
    private readonly ready: () => Promise<void>,
  ) {}

  /** What puts notes right in the drawing, no line further from its ink; null when that has changed meanwhile. */
  async fix(notes: Note[], label: string): Promise<Fixed | null> {
    await this.ready();
    const { drawing } = this.bench.getState();
    const { inkReach } = preferences.getState();
    const job = await this.worker.ask((api) => api.beginFix(notes, label, inkReach));
    for (let fixed: Fixed | null = null; this.bench.getState().drawing === drawing;) {
      if (fixed) return fixed;
      fixed = await this.worker.ask((api) => api.goOnFixing(job, SLICE_MS));
    }
    await this.worker.ask((api) => api.dropFix(job));
    return null;
  }

  /** Lines settled onto their ink. */
  async settle(ids: string[], nodes: string[], figures: SettleFigures): Promise<Reshaped[]> {
    await this.ready();
    return this.worker.ask((api) => api.settle(ids, nodes, figures));
  }

  /** The widths of the ink beneath lines. */
  async readWidths(ids: string[], figures: ReadFigures): Promise<Widened[]> {
    await this.ready();
    return this.worker.ask((api) => api.readWidths(ids, figures));
  }

  /** Few curves along a piece of a photo's outline that has no line, page units; null where it has one by now. */
  async outline(reference: string, key: string): Promise<Cubic[] | null> {
    await this.ready();
    const { inkReach } = preferences.getState();
    return this.worker.ask((api) => api.outline(reference, key, inkReach));
  }

  /** Lines thinned out. */
  async thin(ids: string[], options: ThinOptions): Promise<Reshaped[]> {
    await this.ready();
    return this.worker.ask((api) => api.thin(ids, options));
  }
}
