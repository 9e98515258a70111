import type { Change } from '@/core';
import { stacksOf } from '@/core/change/history';
import type { Recall } from './store';

/** The journal before what this visit has done, read in stretches from the newest back. */
export class Past {
  private before = 1;
  private undoneLater = 0;
  private isNewest = true;
  private recall: Recall | null = null;
  private underway: Promise<Read | null> | null = null;

  /** Begins anew: nothing of what lies before a revision is read yet. */
  begin(before: number, recall: Recall): void {
    Object.assign(this, { before, recall, undoneLater: 0, isNewest: true, underway: null });
  }

  get hasMore(): boolean {
    return this.before > 1 && this.recall !== null;
  }

  /** The stretch before the last that was read; null where there is none, or while another is being read. */
  async read(): Promise<Read | null> {
    if (!this.hasMore || this.underway) return null;
    const asked = this.stretch();
    this.underway = asked;
    try {
      const read = await asked;
      return this.underway === asked ? read : null;
    } finally {
      if (this.underway === asked) this.underway = null;
    }
  }

  private async stretch(): Promise<Read | null> {
    const { before, recall } = this;
    const { from, changes } = await recall!(before).catch(() => ({ from: before, changes: [] as readonly Change[] }));
    if (before !== this.before || recall !== this.recall) return null;
    // Where it cannot be read any further, what lies before cannot be undone.
    this.before = from < before ? from : 1;
    const stacks = stacksOf(changes, this.undoneLater);
    this.undoneLater = stacks.undoneBefore;
    const { isNewest } = this;
    this.isNewest = false;
    return { undoable: stacks.undoable, redoable: stacks.redoable, isNewest };
  }
}

type Read = { undoable: readonly Change[]; redoable: readonly Change[]; isNewest: boolean };
