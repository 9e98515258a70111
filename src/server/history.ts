import type { History } from '@/core/change/historyPoints';
import { cardOf } from './drawings';
import { doneApart, type JobWays } from './jobs/pool';
import { rowsOf, stateOf } from './journal';
import { packedOnce } from './render';

/** As many states as a time line shows. */
const MOST_POINTS = 120;
const MOST_KEPT = 8;
const kept = new Map<string, Promise<History>>();

/** How a drawing came about, as its journal tells; found beside the server's own work, and kept for as long as it is so. @throws Problem 404. */
export function drawingHistory(id: string, how: JobWays = {}): Promise<History> {
  const { revision } = cardOf(id);
  const key = `${id} ${revision}`;
  let found = kept.get(key);
  if (!found) {
    const rows = rowsOf(id, 1).map(({ revision: at, body, schema, at: time }) => ({
      revision: at,
      at: time,
      body,
      schema,
    }));
    found = doneApart('history', [packedOnce(stateOf(id, 0).drawing), rows, MOST_POINTS], how);
    found.catch(() => kept.delete(key));
    kept.set(key, found);
    if (kept.size > MOST_KEPT) kept.delete(kept.keys().next().value!);
  }
  return found;
}
