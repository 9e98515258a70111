import type { Change } from '@/core';
import { ApiError, keepAside, sendChanges } from './api';
import { dropPending, keepPending, pendingOf } from './pending';

export type SaveState =
  | { kind: 'saved'; revision: number }
  | { kind: 'sending'; waiting: number; revision: number }
  | { kind: 'waiting'; waiting: number; revision: number };

type Listener = {
  onState(state: SaveState): void;
  /** The server would not have the changes; they are a drawing of their own now. */
  onAside(aside: { id: string; title: string; count: number }): void;
  /** They could not even be kept aside; they stay in this browser. */
  onStuck(why: string): void;
};

const MOST_AT_ONCE = 100;
const NOT_KEPT = -1;
const RETRY_MS = [300, 600, 1200, 2500, 5000];

/**
 * Sends changes in their order: each is in the browser's own store before it is sent, and leaves it when the server
 * has acknowledged it. While the server cannot be reached they wait and are tried again.
 */
export class Saver {
  private queue: { change: Change; key: Promise<number> }[] = [];
  private running = false;
  private stopped = false;
  private failures = 0;
  private timer: ReturnType<typeof setTimeout> | undefined;

  constructor(
    private readonly id: string,
    private revision: number,
    private readonly listener: Listener,
  ) {
    globalThis.addEventListener?.('online', this.retryNow);
  }

  push(change: Change): void {
    const base = this.revision + this.queue.length;
    // A browser that keeps nothing (private windows, a full disk) must not keep changes from being sent.
    const key = keepPending({ drawing: this.id, base, change }).catch(() => NOT_KEPT);
    this.queue.push({ change, key });
    this.tell();
    void this.run();
  }

  get waiting(): number {
    return this.queue.length;
  }

  stop(): void {
    this.stopped = true;
    clearTimeout(this.timer);
    globalThis.removeEventListener?.('online', this.retryNow);
  }

  private readonly retryNow = (): void => {
    clearTimeout(this.timer);
    void this.run();
  };

  private tell(): void {
    const { revision } = this;
    const waiting = this.queue.length;
    if (waiting === 0) this.listener.onState({ kind: 'saved', revision });
    else this.listener.onState({ kind: this.failures > 0 ? 'waiting' : 'sending', waiting, revision });
  }

  private async run(): Promise<void> {
    if (this.running || this.stopped) return;
    this.running = true;
    try {
      while (this.queue.length > 0 && !this.stopped) {
        const batch = this.queue.slice(0, MOST_AT_ONCE);
        await Promise.all(batch.map((b) => b.key));
        const { revision } = await sendChanges(
          this.id,
          this.revision,
          batch.map((b) => b.change),
        );
        this.revision = revision;
        this.queue.splice(0, batch.length);
        this.failures = 0;
        await this.drop(batch);
        this.tell();
      }
    } catch (error) {
      await this.failed(error);
    } finally {
      this.running = false;
    }
  }

  private async failed(error: unknown): Promise<void> {
    const refused = error instanceof ApiError && error.status >= 400 && error.status < 500;
    if (refused) return this.setAside(error);
    this.failures++;
    this.tell();
    const delay = RETRY_MS[Math.min(this.failures, RETRY_MS.length) - 1];
    this.timer = setTimeout(this.retryNow, delay);
  }

  private async drop(sent: readonly { key: Promise<number> }[]): Promise<void> {
    const keys = (await Promise.all(sent.map((s) => s.key))).filter((k) => k !== NOT_KEPT);
    if (keys.length > 0) await dropPending(keys);
  }

  private async setAside(why: ApiError): Promise<void> {
    this.stop();
    const outcome = await putAside(
      this.id,
      this.revision,
      this.queue.map((q) => q.change),
    );
    if ('title' in outcome) {
      await this.drop(this.queue);
      const count = this.queue.length;
      this.queue = [];
      this.listener.onAside({ ...outcome, count });
    } else {
      this.listener.onStuck(why.message);
    }
  }
}

const putAside = (
  id: string,
  base: number,
  changes: Change[],
): Promise<{ id: string; title: string } | { failed: true }> =>
  keepAside(id, base, changes).catch(() => ({ failed: true as const }));

/** What became of changes that an earlier visit left in this browser. */
export type Recovered =
  { kind: 'none' } | { kind: 'sent'; count: number } | { kind: 'aside'; id: string; title: string; count: number };

/**
 * Sends what an earlier visit left behind, before a drawing is opened. Changes that no longer fit become a drawing of
 * their own.
 * @throws ApiError when the server cannot be reached; nothing is lost then.
 */
export async function recoverPending(id: string): Promise<Recovered> {
  const left = await pendingOf(id);
  if (left.length === 0) return { kind: 'none' };
  const changes = left.map((l) => l.pending.change);
  const { base } = left[0].pending;
  const count = changes.length;
  try {
    await sendChanges(id, base, changes);
    await dropPending(left.map((l) => l.key));
    return { kind: 'sent', count };
  } catch (error) {
    if (!(error instanceof ApiError) || error.status === 0 || error.status >= 500) throw error;
    const aside = await keepAside(id, base, changes);
    await dropPending(left.map((l) => l.key));
    return { kind: 'aside', ...aside, count };
  }
}
