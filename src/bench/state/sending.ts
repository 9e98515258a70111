import type { Change } from '@/core';
import { changeText } from '@/core/change/changeText';
import { upgradedChange } from '@/core/change/upgradeChange';
import { ApiError, keepAside, sendChanges } from './api';
import { rememberAside } from './asides';
import { SCHEMA_VERSION } from '@/core/drawing/schema';
import { dropPending, keepSent, markStuck, type KeptPending, type Sent } from './pending';

/** A change on its way: as it is sent, and under which key this browser keeps it (null where it keeps nothing). */
export class Outgoing {
  private written: string | null = null;

  constructor(
    readonly change: Change,
    readonly key: Promise<number | null>,
  ) {}

  /** Written out when it is first asked for. */
  get text(): string {
    return (this.written ??= changeText(this.change));
  }
}

/** What an earlier visit kept, maybe of an earlier program. @throws RangeError for what no earlier program wrote. */
export const outgoingOf = (kept: readonly KeptPending[]): Outgoing[] =>
  kept.map(
    ({ key, pending }) => new Outgoing(upgradedChange(pending.change, pending.schema ?? 1), Promise.resolve(key)),
  );

/** One request carries no more than this (characters), nor more changes. A single change goes whatever its size. */
const MOST_CHARACTERS = 8_000_000;
const MOST_CHANGES = 100;

/** Answers that will stay the same however often they are asked for: what was sent does not fit, or what it was for is gone. */
const FINAL = [400, 404, 409, 410, 413, 422];
export const isRefusal = (error: unknown): error is ApiError =>
  error instanceof ApiError && FINAL.includes(error.status);

/** Whether the server says that it is at an earlier revision than it was. */
export const hasGoneBack = (error: unknown, revision: number): boolean =>
  error instanceof ApiError && error.status === 409 && error.revision !== undefined && error.revision < revision;

/** Parts a queue into requests of a bounded size; what is too large for the server all the same is halved. */
export class Batches {
  private most = MOST_CHARACTERS;

  private next(queue: readonly Outgoing[]): Outgoing[] {
    let size = 0;
    const over = queue.findIndex((q, i) => (size += q.text.length) > this.most && i > 0);
    return queue.slice(0, Math.min(over < 0 ? queue.length : over, MOST_CHANGES));
  }

  /** Sends the first of a queue; how many that were, and the answer. @throws ApiError */
  async send<T>(
    queue: readonly Outgoing[],
    by: (batch: readonly Outgoing[]) => Promise<T>,
  ): Promise<{ answer: T; sent: number }> {
    for (;;) {
      // A long one is kept, and written out, when what it does has been seen: to hand it on takes as long as some frames do.
      await queue[0].key;
      const batch = this.next(queue);
      await Promise.all(batch.map((b) => b.key));
      try {
        return { answer: await by(batch), sent: batch.length };
      } catch (error) {
        if (!(error instanceof ApiError) || error.status !== 413 || batch.length === 1) throw error;
        this.most = Math.max(1, batch.reduce((n, b) => n + b.text.length, 0) / 2);
      }
    }
  }
}

/**
 * Appends changes to a drawing; `after` is the change that made `base`, where that is known. @throws ApiError, status 0 also for
 * an answer that does not say what was asked.
 */
async function append(id: string, base: number, batch: readonly Outgoing[], after?: string): Promise<number> {
  const texts = batch.map((b) => b.text);
  const { revision } = (await sendChanges(id, base, texts, after)) ?? {};
  if (revision !== base + batch.length)
    throw new ApiError(0, 'not-understood', 'The server’s answer was not understood.');
  return revision;
}

/** Where a drawing is, as far as who sends knows: its revision, and the change that made it. */
export type Tip = { revision: number; last?: string | undefined };

/**
 * Appends the first of a queue to a drawing, as many as go in one request. They are out of the queue, and the tip is theirs, from
 * one moment to the next: the queue may grow at any time. @throws ApiError
 */
export async function sendSome(id: string, tip: Tip, queue: Outgoing[], batches: Batches): Promise<void> {
  const base = tip.revision;
  const { answer, sent } = await batches.send(queue, (b) => append(id, base, b, tip.last));
  const done = queue.splice(0, sent);
  [tip.revision, tip.last] = [answer, done.at(-1)!.change.id];
  await acknowledged(id, base, done);
}

/** The drawing that changes are put aside in. */
export type Aside = { id: string; title: string; revision: number; count: number };

/** What a try to put changes aside came to: the drawing, and the pieces that are in it and not out of the queue yet. */
export type Begun = { aside?: Aside | undefined; pieces: { base: number | null; count: number }[] };
export const notBegun = (): Begun => ({ pieces: [] });

/**
 * Puts what is in a queue aside as a drawing of its own, made on the state that the first was made on; in pieces, if need
 * be. It is taken out of the queue, and let go of, once a copy of that drawing is kept here: a server that loses it at once must
 * be given it again. The queue may grow at its end meanwhile. `begun` is what an earlier try came to.
 * @throws ApiError; `begun` holds what is in the drawing until then.
 */
export async function putAside(
  id: string,
  base: number,
  queue: Outgoing[],
  batches: Batches,
  begun: Begun,
): Promise<Aside | undefined> {
  while (queue.length > 0) {
    try {
      while (countIn(begun) < queue.length) await putPieceAside(id, base, queue.slice(countIn(begun)), batches, begun);
    } catch (error) {
      // What is in it already is not among what is refused.
      if (isRefusal(error) && begun.pieces.length > 0) await settle(id, queue, begun);
      throw error;
    }
    await settle(id, queue, begun);
  }
  return begun.aside;
}

const countIn = (begun: Begun): number => begun.pieces.reduce((n, p) => n + p.count, 0);

async function putPieceAside(
  id: string,
  base: number,
  queue: readonly Outgoing[],
  batches: Batches,
  begun: Begun,
): Promise<void> {
  const { aside } = begun;
  const { sent } = await batches.send(queue, async (batch) => {
    const texts = batch.map((b) => b.text);
    begun.aside = aside
      ? { ...aside, revision: await append(aside.id, aside.revision, batch), count: aside.count + batch.length }
      : { ...(await keepAside(id, base, texts)), count: batch.length };
  });
  begun.pieces.push({ base: aside ? aside.revision : null, count: sent });
}

/** Keeps a copy of what is aside, and lets go of what is in it. @throws ApiError, status 0, where the server has lost it again. */
async function settle(id: string, queue: Outgoing[], begun: Begun): Promise<void> {
  try {
    await rememberAside(id, begun.aside!.id);
  } catch (error) {
    const isLost = error instanceof ApiError && (error.status === 404 || error.status === 410);
    if (isLost) [begun.aside, begun.pieces] = [undefined, []];
    if (isRefusal(error)) throw new ApiError(0, 'lost', 'The server has lost what was just put aside.');
    throw error;
  }
  const pieces = begun.pieces.splice(0);
  for (const { base, count } of pieces) {
    const done = queue.splice(0, count);
    // What went in after its first state is a change of it as of any other drawing.
    if (base === null) await release(done);
    else await acknowledged(begun.aside!.id, base, done);
  }
}

/** What was sent need not be kept here any longer. A store that fails in this costs nothing: no change is made twice. */
export async function release(sent: readonly Outgoing[]): Promise<void> {
  const keys = await keysOf(sent);
  if (keys.length > 0) await dropPending(keys).catch(() => undefined);
}

/** Marks what the server will not have, not even aside: it stays here, to be saved as a file. */
export async function setBy(queue: readonly Outgoing[], kept: readonly KeptPending[], why: string): Promise<void> {
  const keys = new Set(await keysOf(queue));
  await markStuck(
    kept.filter((k) => keys.has(k.key)),
    why,
  ).catch(() => undefined);
}

/** What is kept of changes that a drawing has now, after `base`. */
const sentRecords = (drawing: string, base: number, sent: readonly Outgoing[]): Sent[] =>
  sent.map(({ change, text }, i) => ({
    drawing,
    revision: base + i + 1,
    id: change.id,
    text,
    schema: SCHEMA_VERSION,
  }));

/** Changes that a drawing has now, after `base`: they wait no longer, and are kept a while as what the server had. */
async function acknowledged(drawing: string, base: number, sent: readonly Outgoing[]): Promise<void> {
  const keys = await keysOf(sent);
  // Where this browser keeps nothing, it keeps nothing of this either.
  await keepSent(keys, sentRecords(drawing, base, sent)).catch(() => dropPending(keys).catch(() => undefined));
}

const keysOf = async (list: readonly Outgoing[]): Promise<number[]> =>
  (await Promise.all(list.map((s) => s.key))).filter((k) => k !== null);
