import type { Change, Drawing } from '@/core';
import { applyChange } from '@/core/change/apply';
import { upgradedChange } from '@/core/change/upgradeChange';
import { packed, unpacked } from '@/core/formats/packed';
import { keepWholeAside } from './api';
import { keepCopy } from './asides';
import { pendingOf, seenOf, sentOf } from './pending';

/**
 * A drawing as it was last seen here: as it was opened, and what was done to it since. Null where this browser does not have all
 * of that any more, or where some of the changes that are to be in it are not.
 */
async function lastSeen(id: string, wanted: readonly string[]): Promise<Drawing | null> {
  const seen = await seenOf(id);
  if (!seen) return null;
  const all = (await sentOf(id)).map((k) => k.sent);
  const sent = new Map(all.map((s) => [s.revision, s]));
  const waiting = (await pendingOf(id)).map((p) => p.pending).filter((p) => p.stuck === undefined);
  waiting.sort((a, b) => a.base - b.base);
  const changes: Change[] = [];
  let revision = seen.revision;
  for (let next = sent.get(revision + 1); next; next = sent.get(++revision + 1))
    changes.push(upgradedChange(JSON.parse(next.text), next.schema));
  for (const { base, change, schema } of waiting)
    if (base >= revision) changes.push(upgradedChange(change, schema ?? 1));
  const held = new Set([...all.filter((s) => s.revision <= seen.revision), ...changes].map((c) => c.id));
  if (wanted.some((w) => !held.has(w))) return null;
  try {
    return changes.reduce<Drawing>((d, c) => applyChange(d, c), unpacked(new Uint8Array(seen.bytes)));
  } catch {
    return null;
  }
}

/**
 * Keeps a drawing as it was last seen here as one of its own, where its changes alone (`wanted`, by their ids) fit nowhere any
 * more; null where that cannot be done. @throws ApiError while the server cannot be reached.
 */
export async function putWholeAside(
  id: string,
  wanted: readonly string[],
): Promise<{ id: string; title: string } | null> {
  const whole = await lastSeen(id, wanted).catch(() => null);
  if (!whole) return null;
  const bytes = packed(whole);
  const aside = await keepWholeAside(id, bytes);
  await keepCopy(id, aside.id, bytes.slice().buffer);
  return aside;
}
