import { isLong } from '@/core/change/changeText';
import { whenSeen } from '@/ui/whenIdle';
import { keepPending } from './pending';

/**
 * Keeps changes in the browser's own store, in the order in which they are made. To write out a long one takes as long as some
 * frames do: what it does is seen first. It is kept before the next one all the same, and before the page goes.
 */
export class PendingKeeper {
  private late: (() => void) | null = null;

  constructor() {
    globalThis.addEventListener?.('pagehide', this.now);
  }

  /** The key that it is kept under; null where this browser keeps nothing (private windows, a full disk). */
  keep(pending: Parameters<typeof keepPending>[0]): Promise<number | null> {
    this.now();
    const kept = (): Promise<number | null> => keepPending(pending).catch(() => null);
    if (!isLong(pending.change)) return kept();
    return new Promise((resolve) => {
      const callOff = whenSeen(this.now);
      this.late = () => {
        callOff();
        resolve(kept());
      };
    });
  }

  /** Keeps what waits to be kept. */
  readonly now = (): void => {
    const { late } = this;
    this.late = null;
    late?.();
  };

  end(): void {
    this.now();
    globalThis.removeEventListener?.('pagehide', this.now);
  }
}
