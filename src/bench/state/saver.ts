import type { Change } from '@/core';
import { ApiError } from './api';
import { putWholeAside } from './wholeAside';
import { dropPending, pendingOf, type KeptPending } from './pending';
import { PendingKeeper } from './pendingKeeper';
import {
  Batches,
  hasGoneBack,
  isRefusal,
  notBegun,
  Outgoing,
  outgoingOf,
  putAside,
  release,
  sendSome,
  setBy,
  type Aside,
  type Tip,
} from './sending';

export type SaveState =
  | { kind: 'saved'; revision: number }
  | { kind: 'sending'; waiting: number; revision: number }
  /** `why` is what the server said, if it answered. */
  | { kind: 'waiting'; waiting: number; revision: number; why?: string };

/** Changes that the server will not have, not even as a drawing of their own: kept here, to be saved as a file. */
export type Stuck = { why: string; base: number; changes: Change[] };

export type SaveListener = {
  onState(state: SaveState): void;
  /** The server would not have a change. Told before anything else is done: from now on none may be made. */
  onRefused(): void;
  /** They are a drawing of their own now. */
  onAside(aside: Omit<Aside, 'revision'>): void;
  onStuck(stuck: Stuck): void;
  /** The server has fewer changes than it had acknowledged; what it lacks is still in this browser's store. */
  onWentBack(): void;
};

const RETRY_MS = [300, 600, 1200, 2500, 5000];

/**
 * Sends changes in their order: each is in the browser's own store before it is sent, and leaves it when the server
 * has acknowledged it. While the server cannot be reached they wait and are tried again. What it refuses becomes a drawing
 * of its own.
 */
export class Saver {
  private readonly queue: Outgoing[] = [];
  private readonly keeper = new PendingKeeper();
  private readonly batches = new Batches();
  private readonly begun = notBegun();
  private readonly tip: Tip;
  private refused = false;
  private running = false;
  private stopped = false;
  private failures = 0;
  private why: string | undefined;
  private timer: ReturnType<typeof setTimeout> | undefined;

  constructor(
    private readonly id: string,
    revision: number,
    private readonly listener: SaveListener,
    /** The change that made that revision, as far as it is known. */
    last?: string,
  ) {
    this.tip = { revision, last };
    globalThis.addEventListener?.('online', this.retryNow);
  }

  push(change: Change): void {
    const base = this.tip.revision + this.queue.length;
    const after = this.queue.at(-1)?.change.id ?? this.tip.last;
    this.queue.push(new Outgoing(change, this.keeper.keep({ drawing: this.id, base, after, change })));
    this.tell();
    void this.run();
  }

  get waiting(): number {
    return this.queue.length;
  }

  stop(): void {
    this.stopped = true;
    this.keeper.end();
    clearTimeout(this.timer);
    globalThis.removeEventListener?.('online', this.retryNow);
  }

  private readonly retryNow = (): void => {
    clearTimeout(this.timer);
    void this.run();
  };

  private tell(): void {
    const { revision } = this.tip;
    const waiting = this.queue.length;
    if (waiting === 0) this.listener.onState({ kind: 'saved', revision });
    else if (this.failures === 0) this.listener.onState({ kind: 'sending', waiting, revision });
    else this.listener.onState({ kind: 'waiting', waiting, revision, ...(this.why && { why: this.why }) });
  }

  private async run(): Promise<void> {
    if (this.running || this.stopped) return;
    this.running = true;
    try {
      if (this.refused) await this.setAside();
      else await this.sendAll();
    } catch (error) {
      await this.failed(error);
    } finally {
      this.running = false;
    }
  }

  private async sendAll(): Promise<void> {
    while (this.queue.length > 0 && !this.stopped) {
      await sendSome(this.id, this.tip, this.queue, this.batches);
      this.failures = 0;
      this.tell();
    }
  }

  private async failed(error: unknown): Promise<void> {
    if (hasGoneBack(error, this.tip.revision) && (await this.isAllKept())) {
      this.stop();
      return this.listener.onWentBack();
    }
    if (isRefusal(error) && !this.refused) {
      this.refused = true;
      this.listener.onRefused();
      return this.setAside().catch((e: unknown) => this.failed(e));
    }
    if (isRefusal(error)) return this.giveUp(error.message);
    this.failures++;
    this.why = error instanceof ApiError && error.status > 0 ? error.message : undefined;
    this.tell();
    const delay = RETRY_MS[Math.min(this.failures, RETRY_MS.length) - 1];
    if (!this.stopped) this.timer = setTimeout(this.retryNow, delay);
  }

  /** Leaves what is on its way to another tab, which finds it in this browser's store; without one it goes on sending. */
  async handOver(): Promise<void> {
    if (this.queue.length > 0 && (await this.isAllKept())) this.stop();
  }

  /** Whether this browser's own store has all that is on its way. */
  private async isAllKept(): Promise<boolean> {
    const keys = await Promise.all(this.queue.map((q) => q.key));
    return keys.length > 0 && keys.every((k) => k !== null);
  }

  private async setAside(): Promise<void> {
    const aside = await putAside(this.id, this.tip.revision, this.queue, this.batches, this.begun);
    this.stop();
    if (aside) this.listener.onAside(aside);
  }

  /** Not even aside: what is left stays in this browser, and with whoever listens. */
  private async giveUp(why: string): Promise<void> {
    this.stop();
    const left = [...this.queue];
    await setBy(left, await pendingOf(this.id).catch(() => []), why);
    const base = this.tip.revision + (this.begun.aside?.count ?? 0);
    this.listener.onStuck({ why, base, changes: left.map((q) => q.change) });
  }
}

/** What became of changes that an earlier visit left in this browser. */
export type Recovered =
  | { kind: 'none' }
  /** The server has fewer changes than these were made on. */
  | { kind: 'went back' }
  /** This browser keeps nothing from one visit to the next. */
  | { kind: 'no store' }
  | { kind: 'sent'; count: number }
  | { kind: 'aside'; id: string; title: string; count: number }
  /** They could not be sent just now; they are still here. */
  | { kind: 'waiting'; why: string; count: number }
  | ({ kind: 'stuck' } & Stuck);

/**
 * Sends what an earlier visit left behind. Changes that no longer fit become a drawing of their own; those that the server
 * will not have at all are set by, to be saved as a file. Whatever becomes of them, none is lost, and nothing is thrown.
 */
export async function recoverPending(id: string): Promise<Recovered> {
  const kept = await pendingOf(id).catch(() => null);
  if (!kept) return { kind: 'no store' };
  const waiting = kept.filter((k) => k.pending.stuck === undefined);
  if (waiting.length === 0) return stuckOf(kept);
  let queue: Outgoing[];
  try {
    queue = outgoingOf(waiting);
  } catch (error) {
    const changes = waiting.map((k) => k.pending.change);
    return { kind: 'stuck', why: `${messageOf(error)}.`, base: waiting[0].pending.base, changes };
  }
  const batches = new Batches();
  const begun = notBegun();
  const { base, after } = waiting[0].pending;
  const tip: Tip = { revision: base, last: after };
  try {
    while (queue.length > 0) await sendSome(id, tip, queue, batches);
    return { kind: 'sent', count: waiting.length };
  } catch (error) {
    if (hasGoneBack(error, tip.revision)) return { kind: 'went back' };
    if (!isRefusal(error)) return { kind: 'waiting', why: messageOf(error), count: queue.length };
  }
  try {
    const aside = (await putAside(id, tip.revision, queue, batches, begun))!;
    return { kind: 'aside', id: aside.id, title: aside.title, count: aside.count };
  } catch (error) {
    if (!isRefusal(error)) return { kind: 'waiting', why: messageOf(error), count: queue.length };
    const left = queue.map((q) => q.change.id);
    const whole = await putWholeAside(id, left).catch(() => null);
    if (whole) await release(queue);
    if (whole) return { kind: 'aside', ...whole, count: queue.length };
    await setBy(queue, waiting, error.message);
    return { kind: 'stuck', why: error.message, base: tip.revision, changes: queue.map((q) => q.change) };
  }
}

const messageOf = (error: unknown): string => (error instanceof Error ? error.message : String(error));

function stuckOf(kept: readonly KeptPending[]): Recovered {
  if (kept.length === 0) return { kind: 'none' };
  const [{ pending }] = kept;
  return { kind: 'stuck', why: pending.stuck!, base: pending.base, changes: kept.map((k) => k.pending.change) };
}

/** Lets go of what was set by: it was saved as a file. */
export async function forgetStuck(id: string): Promise<void> {
  const kept = await pendingOf(id);
  await dropPending(kept.filter((k) => k.pending.stuck !== undefined).map((k) => k.key));
}
