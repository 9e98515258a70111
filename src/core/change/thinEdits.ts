import { findLine } from '../drawing/find';
import { thinnedRun, type ThinOptions } from '../drawing/thin';
import type { Drawing, Run } from '../drawing/schema';
import { counted, edit, type Edit } from './edit';
import { reshapeLines } from './lineEdits';

/** Lines with as few nodes as hold their shape; those that would have no fewer, and are to be no smoother, are left. */
export function thinOut(d: Drawing, ids: Iterable<string>, options: ThinOptions): Edit {
  const runsById = new Map<string, Run[]>();
  for (const id of new Set(ids)) {
    const line = findLine(d, id)?.line;
    if (!line) continue;
    const runs = line.runs.map((run) => thinnedRun(run, options));
    if (runs.some((run, i) => run !== line.runs[i])) runsById.set(id, runs);
  }
  return runsById.size === 0 ? edit('Thin out') : reshapeLines(d, runsById, counted('Thin out', runsById.size, 'line'));
}
