import type { Change } from '@/core';
import { upgradedChange } from '@/core/change/upgradeChange';
import { changesBefore } from './api';
import { dropPending, dropSent, keepStuck, lastSent, pendingOf, sentAt, sentOf, type KeptSent } from './pending';
import { Batches, isRefusal, notBegun, Outgoing, putAside, sendSome, type Tip } from './sending';
import type { Stuck } from './saver';
import { putWholeAside } from './wholeAside';

/**
 * A server that has gone back: it acknowledged changes that it has no longer (a backup was put back, its disk lost them). This
 * browser still has those that it sent, and can give them again.
 */
export type WentBack = {
  /** The last revision that the server and this browser have in common. */
  readonly revision: number;
  /** The change that made it, where it is known. */
  readonly last?: string | undefined;
  readonly changes: readonly Change[];
  readonly keys: { readonly sent: readonly number[]; readonly pending: readonly number[] };
};

/** So many changes are looked at in one request, to find what is in common. */
const STRETCH = 200;

/**
 * What a server that is at `revision`, made by the change `last`, lacks of what it had acknowledged, and what was made after
 * that here. Null where it lacks nothing; nothing is asked of it where that is plain. `isBehind`: it has refused what waits here
 * because it has gone back. Each change is sent with the one that it was made on, so where the newest is there, all are.
 * @throws ApiError
 */
export async function lookBack(id: string, { revision, last }: Tip, isBehind: boolean): Promise<WentBack | null> {
  const waiting = (await pendingOf(id).catch(() => [])).filter((p) => p.pending.stuck === undefined);
  const pending = waiting.map((w) => upgradedChange(w.pending.change, w.pending.schema ?? 1));
  const keys = waiting.map((w) => w.key);
  const { common, lost, all } = await lostOf(id, revision, last);
  if (lost.length > 0)
    return {
      revision: common,
      last: common === revision ? last : common > 0 ? await sentAt(id, common) : undefined,
      changes: [...lost.map(({ sent }) => upgradedChange(JSON.parse(sent.text), sent.schema)), ...pending],
      keys: { sent: all, pending: keys },
    };
  // What was made on others' changes that it lacks: they go on from what it has, where they fit.
  if (isBehind && waiting.length > 0) return { revision, last, changes: pending, keys: { sent: [], pending: keys } };
  return null;
}

/** What this browser sent and the server lacks, after the last revision in common; `all` are the keys of what goes with it. */
async function lostOf(
  id: string,
  revision: number,
  last: string | undefined,
): Promise<{ common: number; lost: KeptSent[]; all: number[] }> {
  const none = { common: revision, lost: [], all: [] };
  const top = await lastSent(id).catch(() => undefined);
  if (!top || (top.revision === revision && top.id === last)) return none;
  if ((await idAt(id, top.revision)) === top.id) return none;
  const kept = await sentOf(id);
  const own = new Map(kept.map(({ sent }) => [sent.revision, sent.id]));
  const common = await commonRevision(id, revision, own, kept[0].sent.revision - 1);
  const after = kept.filter(({ sent }) => sent.revision > common);
  // The newest of each revision: what was brought back once may have been sent twice.
  const lost = [...new Map(after.map((k) => [k.sent.revision, k])).values()];
  return { common, lost: lost.sort((a, b) => a.sent.revision - b.sent.revision), all: after.map((k) => k.key) };
}

async function idAt(id: string, revision: number): Promise<string | undefined> {
  const { changes } = await changesBefore(id, revision + 1, 1);
  return changes[0]?.id;
}

/** The newest revision that was made by the same change here and there; `least` where none is known to be. */
async function commonRevision(
  id: string,
  revision: number,
  own: ReadonlyMap<number, string>,
  least: number,
): Promise<number> {
  for (let before = revision + 1; before > 1 && before - 1 > least;) {
    const { from, changes } = await changesBefore(id, before, STRETCH);
    for (let i = changes.length - 1; i >= 0; i--) if (own.get(from + i) === changes[i].id) return from + i;
    if (changes.length === 0) break;
    before = from;
  }
  return Math.min(least, revision);
}

export type BroughtBack =
  | { kind: 'back'; count: number }
  | { kind: 'aside'; id: string; title: string; count: number }
  | ({ kind: 'stuck' } & Stuck);

/**
 * Gives the server what it lacks: after what is in common where it has gone no further since (`asOne`), else, or where it does
 * not fit, as a drawing of its own. What has arrived is not kept here any more. @throws ApiError where it cannot be reached: then
 * all is still here.
 */
export async function giveAgain(
  id: string,
  { revision, last, changes, keys }: WentBack,
  asOne: boolean,
): Promise<BroughtBack> {
  const queue = changes.map((change) => new Outgoing(change, Promise.resolve(null)));
  const batches = new Batches();
  const forget = async (): Promise<void> => {
    await Promise.all([dropSent(keys.sent), dropPending(keys.pending)]).catch(() => undefined);
  };
  const tip: Tip = { revision, last };
  if (asOne) {
    try {
      while (queue.length > 0) await sendSome(id, tip, queue, batches);
      await forget();
      return { kind: 'back', count: changes.length };
    } catch (error) {
      if (!isRefusal(error)) throw error;
    }
  }
  try {
    const { id: made, title, count } = (await putAside(id, tip.revision, queue, batches, notBegun()))!;
    await forget();
    return { kind: 'aside', id: made, title, count };
  } catch (error) {
    if (!isRefusal(error)) throw error;
    const whole = await putWholeAside(
      id,
      changes.map((c) => c.id),
    );
    if (whole) await forget();
    if (whole) return { kind: 'aside', ...whole, count: changes.length };
    const left = queue.map((q) => q.change);
    // From now on it is offered as a file, and not tried again.
    await keepStuck(id, tip.revision, left, error.message).then(forget, () => undefined);
    return { kind: 'stuck', why: error.message, base: tip.revision, changes: left };
  }
}
